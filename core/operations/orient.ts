import { z } from 'zod'
import { good } from '../answer'
import { point, quaternion } from '../schemas/geometry'
import { defineOperation } from './operation'

export const orient = defineOperation({
  version: 2,
  schema: z.object({ kind: z.literal('orient'), quaternion: quaternion.describe('x, y, z, w') }),
  report: z.object({ offset: point }),
  label: () => 'stood up',
  apply: async ({ mesh, op }) => {
    const { orient: stood } = await import('../shape/orient')
    const r = stood(mesh, op.quaternion)
    return good({ mesh: r.mesh, report: { offset: r.offset } })
  },
})
