import { z } from 'zod'
import { good } from '../answer'
import type { SliceReport } from '../print/slice/slice'
import { printer, slicedResin } from '../schemas/printer'
import { cup, island, repairReport } from '../schemas/reports'
import { defineCheck } from './check'

export const slice = defineCheck({
  version: 5,
  schema: z.object({ kind: z.literal('slice'), printer, resin: slicedResin }),
  report: z.object({
    layers: z.number(),
    layerHeight: z.number(),
    pixels: z.tuple([z.number(), z.number()]),
    seconds: z.number(),
    resinMl: z.number(),
    resinCost: z.number(),
    areas: z.array(z.number()),
    perimeters: z.array(z.number()),
    peel: z.array(z.number()),
    islands: z.array(island),
    cups: z.array(cup),
    suction: z.array(z.number()),
    brokenRows: z.number(),
    mended: repairReport.nullable(),
  }) satisfies z.ZodType<SliceReport>,
  run: async ({ meshes: [mesh], params: { printer: p, resin }, host }) => {
    const { slice: sliced } = await import('../print/slice/slice')
    const { manifest } = await import('../print/slice/manifest')
    const r = await sliced(mesh, p, resin, host.putFile, host.progress, host.layerThreads(p))
    if (!r.ok) return r
    await host.putFile('manifest.json', new TextEncoder().encode(JSON.stringify(manifest(p, resin, r.value), null, 1)))
    return good({ report: r.value })
  },
})
