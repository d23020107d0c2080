import { z } from 'zod'
import { good } from '../answer'
import type { LayersReport } from '../print/slice/readLayers'
import { cup, island, mishap } from '../schemas/reports'
import { defineCheck } from './check'

const pair = z.tuple([z.number(), z.number()])

export const archive = defineCheck({
  version: 2,
  schema: z.object({
    kind: z.literal('archive'),
    pitch: z
      .tuple([z.number().gt(0).max(1), z.number().gt(0).max(1)])
      .optional()
      .describe('mm a pixel, where the archive does not say'),
    layerHeight: z.number().gt(0).max(1).optional().describe('mm'),
  }),
  report: z.object({
    format: z.string(),
    layers: z.number(),
    layerHeight: z.number(),
    pixels: pair,
    pitch: pair,
    areas: z.array(z.number()),
    peel: z.array(z.number()),
    suction: z.array(z.number()),
    islands: z.array(island),
    cups: z.array(cup),
    volume: z.number(),
    mishaps: z.array(mishap),
  }) satisfies z.ZodType<LayersReport>,
  run: async ({ params, host }) => {
    const { readLayers } = await import('../print/slice/readLayers')
    const { pitch, layerHeight } = params
    const r = await readLayers(host.archive!, { pitch, layerHeight }, host.progress)
    return r.ok ? good({ report: r.value }) : r
  },
})
