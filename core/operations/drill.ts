import { z } from 'zod'
import { good } from '../answer'
import { drilledHole } from '../schemas/reports'
import { drainHole } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const drill = defineOperation({
  version: 2,
  stage: 'hollow',
  buildsOn: ['hollow'],
  schema: z.object({ kind: z.literal('drill'), holes: z.array(drainHole).min(1).max(64) }),
  report: z.object({ drill: z.object({ holes: z.array(drilledHole), volumeRemoved: z.number() }) }),
  label: ({ holes }) => message('operations.drill', { holes: holes.length }),
  apply: async ({ mesh, op }) => {
    const { drill: drilled } = await import('../shape/drill')
    const r = await drilled(mesh, op.holes)
    return r.ok ? good({ mesh: r.value.mesh, report: { drill: r.value.report } }) : r
  },
})
