import { z } from 'zod'
import { good } from '../answer'
import type { AccessReport } from '../fit/access'
import { hash } from '../schemas/geometry'
import { defineCheck } from './check'

export const access = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('access'),
    others: z.array(hash).max(64).describe('parts as they stand to it once joined'),
  }),
  report: z.object({
    area: z.number(),
    brush: z.number(),
    airbrush: z.number(),
    brushLost: z.number(),
    airbrushLost: z.number(),
  }) satisfies z.ZodType<AccessReport>,
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...others], host }) => {
    const { accessOf } = await import('../fit/access')
    return good({ report: accessOf(mesh, others, host.progress) })
  },
})
