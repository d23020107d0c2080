import { z } from 'zod'
import { good } from '../answer'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const bay = defineOperation({
  version: 1,
  stage: 'combine',
  repeated: true,
  schema: z.object({
    kind: z.literal('bay'),
    centre: z.tuple([z.number(), z.number()]).describe('mm, on the foot'),
    width: z.number().min(3).max(300).default(26).describe('mm inside'),
    depth: z.number().min(3).max(300).default(26).describe('mm inside'),
    height: z.number().min(1).max(200).default(6).describe('mm inside'),
    lid: z.number().min(0.6).max(10).default(1.6).describe('mm, thickness of the lid'),
    ledge: z.number().min(0.5).max(10).default(1.5).describe('mm on which the lid rests'),
  }),
  report: z.object({ bay: z.object({ wall: z.number() }) }),
  label: ({ width, depth, height }) =>
    message('operations.bay', { width: rounded(width, 1), depth: rounded(depth, 1), height: rounded(height, 1) }),
  apply: async ({ mesh, op }) => {
    const { bay: made } = await import('../shape/channel')
    const r = await made(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { bay: r.value.report } }) : r
  },
})
