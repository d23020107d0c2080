import { z } from 'zod'
import { good } from '../answer'
import { point, direction } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const plug = defineOperation({
  version: 1,
  stage: 'hollow',
  aid: true,
  makes: true,
  schema: z.object({
    kind: z.literal('plug'),
    point,
    direction,
    diameter: z.number().min(1).max(40).describe('mm, of the hole'),
    depth: z.number().min(0.2).max(100).describe('mm'),
    clearance: z.number().min(0).max(2).default(0.1).describe('mm per side'),
  }),
  report: z.object({ plug: z.object({ volume: z.number() }) }),
  label: ({ diameter }) => message('operations.plug', { diameter: rounded(diameter) }),
  apply: async ({ mesh, op }) => {
    const { plug: made } = await import('../shape/plug')
    const r = await made(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { plug: r.value.report } }) : r
  },
})
