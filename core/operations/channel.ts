import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const channel = defineOperation({
  version: 1,
  stage: 'combine',
  repeated: true,
  schema: z.object({
    kind: z.literal('channel'),
    path: z.array(point).min(2).max(400),
    diameter: z.number().min(0.5).max(40).default(2.5).describe('mm'),
  }),
  report: z.object({ channel: z.object({ length: z.number(), volume: z.number() }) }),
  label: ({ diameter }) => message('operations.channel', { diameter: rounded(diameter) }),
  apply: async ({ mesh, op }) => {
    const { channel: channelled } = await import('../shape/channel')
    const r = await channelled(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { channel: r.value.report } }) : r
  },
})
