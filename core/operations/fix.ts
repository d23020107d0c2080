import { z } from 'zod'
import { good } from '../answer'
import { point, direction } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const fixing = z.object({
  shape: z.enum(['key', 'ball', 'pin', 'magnet']),
  role: z.enum(['plug', 'socket']),
  point,
  direction,
  width: z.number().min(0.4).max(60).describe('mm'),
  length: z.number().min(0).max(100).describe('mm'),
  draft: z.number().min(0).max(15).default(3).describe('degrees'),
  clearance: z.number().min(0).max(2).default(0.1).describe('mm per side'),
})
export type FixingRecord = z.infer<typeof fixing>

export const fix = defineOperation({
  version: 1,
  stage: 'combine',
  repeated: true,
  schema: z.object({ kind: z.literal('fix'), fixings: z.array(fixing).min(1).max(64) }),
  report: z.object({
    fix: z.object({
      walls: z.array(z.number().nullable()).describe('mm; null of one too short to be near the surface'),
    }),
  }),
  label: ({ fixings }) =>
    message('operations.fix', {
      fixings: fixings.map((f) =>
        message('operations.fixing', { shape: f.shape, role: f.role, width: rounded(f.width) }),
      ),
    }),
  apply: async ({ mesh, op }) => {
    const { fix: fixed } = await import('../shape/fixing')
    const r = await fixed(mesh, op.fixings)
    return r.ok
      ? good({
          mesh: r.value.mesh,
          report: { fix: { walls: r.value.report.walls.map((w) => (Number.isFinite(w) ? w : null)) } },
        })
      : r
  },
})
