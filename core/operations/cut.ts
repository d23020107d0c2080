import { z } from 'zod'
import { good } from '../answer'
import type { CutReport } from '../shape/cut'
import { point, direction } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const cut = defineOperation({
  version: 1,
  stage: 'scale',
  repeated: true,
  schema: z.object({
    kind: z.literal('cut'),
    point,
    normal: direction,
    keep: z.enum(['above', 'below']),
    line: z.array(point).max(2000).default([]).describe('round the body; empty for a plane cut'),
    piece: point.optional().describe('mm: only the piece nearest to this place stays, with what touches it'),
  }),
  report: z.object({
    cut: z.object({
      area: z.number(),
      seam: z.number(),
      pieces: z.number(),
      left: z.object({ count: z.number(), volume: z.number(), at: point.nullable() }).optional(),
    }) satisfies z.ZodType<CutReport>,
  }),
  label: ({ line }) => (line.length > 0 ? message('operations.cutLine') : message('operations.cutPlane')),
  apply: async ({ mesh, op }) => {
    const { cut: halved } = await import('../shape/cut')
    const r = await halved(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { cut: r.value.report } }) : r
  },
})
