import { z } from 'zod'
import { good } from '../answer'
import { point, quaternion } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const place = defineOperation({
  version: 1,
  stage: 'combine',
  clouds: true,
  schema: z.object({
    kind: z.literal('place'),
    quaternion: quaternion.default([0, 0, 0, 1]).describe('x, y, z, w'),
    shift: point.default([0, 0, 0]).describe('mm'),
    mirror: z.boolean().default(false),
  }),
  report: z.object({}),
  label: ({ mirror }) => (mirror ? message('operations.mirrored') : message('operations.placed')),
  apply: async ({ mesh, op }) => {
    const { place: placed } = await import('../shape/place')
    return good({ mesh: placed(mesh, op), report: {} })
  },
})
