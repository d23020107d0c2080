import { z } from 'zod'
import { good } from '../answer'
import { point, quaternion } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const orient = defineOperation({
  version: 2,
  stage: 'orient',
  schema: z.object({ kind: z.literal('orient'), quaternion: quaternion.describe('x, y, z, w') }),
  report: z.object({ offset: point }),
  label: () => message('operations.orient'),
  apply: async ({ mesh, op }) => {
    const { orient: stood } = await import('../shape/orient')
    const r = stood(mesh, op.quaternion)
    return good({ mesh: r.mesh, report: { offset: r.offset } })
  },
})
