import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const floor = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('floor') }),
  report: z.object({
    floor: z.object({ point, normal: point, share: z.number(), scatter: z.number() }).nullable(),
  }),
  run: async ({ meshes: [mesh] }) => {
    const { findFloor } = await import('../scan/floor')
    return good({ report: { floor: findFloor(mesh.positions) } })
  },
})
