import { z } from 'zod'
import { good } from '../answer'
import type { FitReport } from '../fit/gap'
import { hash, point } from '../schemas/geometry'
import { defineCheck } from './check'

const spot = z.object({ point, gap: z.number() }).nullable()

export const fit = defineCheck({
  version: 5,
  schema: z.object({ kind: z.literal('fit'), other: hash, reach: z.number().gt(0).max(20).default(3) }),
  report: z.object({
    touching: z.boolean(),
    area: z.number(),
    centre: point,
    outward: point,
    p5: z.number(),
    p50: z.number(),
    p95: z.number(),
    overlap: z.number(),
    seam: z.number(),
    filler: z.number(),
    seamGaps: z.array(z.object({ upTo: z.number().nullable(), length: z.number(), volume: z.number() })),
    widest: spot,
    deepest: spot,
  }) satisfies z.ZodType<FitReport>,
  inputs: (p) => [p.other],
  run: async ({ meshes: [mesh, other], params, host }) => {
    const { fitDefaults, fitOf } = await import('../fit/gap')
    const r = await fitOf(mesh, other!, { ...fitDefaults, reach: params.reach }, host.progress)
    return r.ok ? good({ report: r.value }) : r
  },
})
