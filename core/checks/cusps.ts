import { z } from 'zod'
import { good } from '../answer'
import type { Cusps } from '../print/orient/cusps'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const cusps = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('cusps'), up: point, layerHeight: z.number().min(0.005).max(1) }),
  report: z.object({
    p50: z.number(),
    p90: z.number(),
    stepped: z.number(),
    flat: z.number(),
  }) satisfies z.ZodType<Cusps>,
  run: async ({ meshes: [mesh], params }) => {
    const { cuspsOf } = await import('../print/orient/cusps')
    return good({ report: cuspsOf(mesh, params.up, params.layerHeight) })
  },
})
