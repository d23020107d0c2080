import { z } from 'zod'
import { good } from '../answer'
import { defineOperation } from './operation'

export const simplify = defineOperation({
  version: 1,
  schema: z.object({ kind: z.literal('simplify'), faces: z.int().min(100).max(20_000_000) }),
  report: z.object({}),
  label: ({ faces }) => `down to ${faces.toLocaleString()} faces`,
  apply: async ({ mesh, op }) => {
    const { simplify: simplified } = await import('../mesh/simplify')
    return good({ mesh: await simplified(mesh, op.faces, Infinity), report: {} })
  },
})
