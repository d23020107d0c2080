import { z } from 'zod'
import { good } from '../answer'
import { identity3 } from '../math/vectors'
import type { Mesh } from '../mesh/mesh'
import { transformed } from '../mesh/transform'
import { point, hash, NO_MESH } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

type Nine = [N, N, N, N, N, N, N, N, N]
type N = z.ZodNumber

export const join = defineOperation({
  version: 1,
  stage: 'combine',
  repeated: true,
  schema: z.object({
    kind: z.literal('join'),
    mode: z.enum(['union', 'subtract', 'blend', 'relieve']),
    others: z
      .array(
        z.object({
          part: z.string().max(400),
          mesh: hash.default(NO_MESH),
          matrix: z
            .tuple(Array.from({ length: 9 }, () => z.number()) as Nine)
            .default([1, 0, 0, 0, 1, 0, 0, 0, 1])
            .describe('by rows: how the other has been turned and has grown since, with this one'),
          shift: point.default([0, 0, 0]).describe('mm, and moved by'),
        }),
      )
      .min(1)
      .max(32)
      .describe('the other parts and the hash of each mesh; on the command line part is a file, beside OPS.json'),
    fillet: z.number().min(0).max(50).default(2).describe('mm'),
    clearance: z.number().min(0).max(5).default(0.1).describe('mm per side'),
    voxel: z.number().min(0.02).max(5).default(0.25).describe('mm'),
  }),
  report: z.object({
    join: z.object({ volumeBefore: z.number(), volumeAfter: z.number(), overlap: z.number() }),
  }),
  label: ({ mode, fillet, clearance }) =>
    ({
      union: message('operations.union'),
      subtract: message('operations.subtract'),
      blend: message('operations.blend', { fillet: rounded(fillet) }),
      relieve: message('operations.clearance', { clearance: rounded(clearance) }),
    })[mode],
  others: (op) => op.others.map((o) => o.mesh),
  apply: async ({ mesh, op, others, progress }) => {
    const { join: joined } = await import('../shape/join')
    const brought = others.map((m, i): Mesh => {
      const { matrix = identity3, shift = [0, 0, 0] } = op.others[i] ?? {}
      const still = matrix.every((v, k) => v === identity3[k]) && shift.every((v) => v === 0)
      return still ? m : transformed(m, matrix, shift)
    })
    const r = await joined(mesh, brought, op, progress)
    return r.ok ? good({ mesh: r.value.mesh, report: { join: r.value.report } }) : r
  },
})
