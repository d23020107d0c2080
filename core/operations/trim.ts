import { z } from 'zod'
import { good } from '../answer'
import { point, direction } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const trim = defineOperation({
  version: 1,
  stage: 'import',
  repeated: true,
  clouds: true,
  schema: z.object({
    kind: z.literal('trim'),
    planes: z
      .array(z.object({ point, normal: direction }))
      .max(24)
      .default([]),
    box: z.object({ min: point, max: point }).nullable().default(null),
  }),
  report: z.object({ removed: z.number() }),
  label: ({ box, planes }) =>
    box ? message('operations.crop') : message('operations.trim', { planes: planes.length }),
  apply: async ({ mesh, op }) => {
    const { trim: trimmed } = await import('../shape/trim')
    const r = trimmed(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { removed: r.value.removed } }) : r
  },
})
