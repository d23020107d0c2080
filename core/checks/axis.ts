import { z } from 'zod'
import { good } from '../answer'
import type { Axis } from '../mesh/roundness'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const axis = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('axis'), point }),
  report: z.object({ point, direction: point, radius: z.number() }) satisfies z.ZodType<Axis>,
  run: async ({ meshes: [mesh], params }) => {
    const { axisAt } = await import('../mesh/roundness')
    const r = axisAt(mesh, params.point)
    return r.ok ? good({ report: r.value }) : r
  },
})
