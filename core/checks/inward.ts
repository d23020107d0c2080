import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const inward = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('inward'), point, normal: point }),
  report: z.object({ middle: point }),
  run: async ({ meshes: [mesh], params }) => {
    const { inwardMiddle } = await import('../pose/landmark')
    return good({ report: { middle: inwardMiddle(mesh, params.point, params.normal) } })
  },
})
