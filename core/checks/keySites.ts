import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const keySites = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('keySites'),
    point,
    normal: point,
    wall: z.number().min(0.3).max(20),
    clearance: z.number().min(0).max(2),
    draft: z.number().min(0).max(15),
  }),
  report: z.object({
    sites: z.array(
      z.object({
        shape: z.enum(['key', 'ball', 'pin', 'magnet']),
        point,
        direction: point,
        width: z.number(),
        length: z.number(),
        draft: z.number(),
        clearance: z.number(),
      }),
    ),
  }),
  run: async ({ meshes: [mesh], params }) => {
    const { keySites: found } = await import('../shape/fixing')
    return good({ report: { sites: found(mesh, params.point, params.normal, params) } })
  },
})
