import { z } from 'zod'
import { good } from '../answer'
import { dabs } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const thicken = defineOperation({
  version: 1,
  stage: 'scale',
  repeated: true,
  schema: z.object({
    kind: z.literal('thicken'),
    dabs,
    by: z.number().min(0.02).max(10).default(0.3).describe('mm'),
    voxel: z.number().min(0.02).max(5).default(0.2).describe('mm'),
  }),
  report: z.object({ thicken: z.object({ added: z.number() }) }),
  label: ({ by }) => message('operations.thicken', { by: rounded(by) }),
  apply: async ({ mesh, op, progress }) => {
    const { thicken: thickened } = await import('../shape/thicken')
    const r = await thickened(mesh, op, progress)
    return r.ok ? good({ mesh: r.value.mesh, report: { thicken: r.value.report } }) : r
  },
})
