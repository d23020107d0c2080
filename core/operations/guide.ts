import { z } from 'zod'
import { good } from '../answer'
import { point, direction } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const guide = defineOperation({
  version: 1,
  stage: 'prime',
  aid: true,
  makes: true,
  schema: z.object({
    kind: z.literal('guide'),
    point: point.describe('on the face of a joint, where a drill goes in'),
    direction,
    bore: z.number().min(0.3).max(12).describe('mm, of the drill'),
    radius: z.number().min(1).max(60).describe('mm'),
    height: z.number().min(2).max(60).default(8).describe('mm over the face'),
    lap: z.number().min(0).max(20).default(2.5).describe('mm down beside it'),
    clearance: z.number().min(0).max(2).default(0.15).describe('mm per side'),
  }),
  report: z.object({ guide: z.object({ volume: z.number(), led: z.number() }) }),
  label: ({ bore }) => message('operations.guide', { bore: rounded(bore) }),
  apply: async ({ mesh, op }) => {
    const { drillGuide } = await import('../shape/drillGuide')
    const r = await drillGuide(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { guide: r.value.report } }) : r
  },
})
