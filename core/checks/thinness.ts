import { z } from 'zod'
import { good } from '../answer'
import type { Thinness } from '../fit/thinness'
import { withoutCrumbs } from '../mesh/shellFacts'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const thinness = defineCheck({
  version: 4,
  schema: z.object({
    kind: z.literal('thinness'),
    limit: z.number().min(1e-6).max(1e4).describe('mm'),
  }),
  report: z.object({
    thinnest: z.number().nullable(),
    place: point,
    thinArea: z.number(),
    samples: z.number(),
    places: z.array(z.object({ point, thickness: z.number() })),
    spots: z.array(point),
  }) satisfies z.ZodType<Thinness>,
  run: async ({ meshes: [mesh], params, host }) => {
    const { thinness: measured } = await import('../fit/thinness')
    return good({ report: measured(withoutCrumbs(mesh), params.limit, host.progress) })
  },
})
