import { z } from 'zod'
import { good } from '../answer'
import { defineCheck } from './check'

export const presupported = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('presupported') }),
  report: z.object({ found: z.object({ stems: z.number(), height: z.number(), raft: z.boolean() }).nullable() }),
  run: async ({ meshes: [mesh] }) => {
    const { presupported: found } = await import('../print/support/presupported')
    return good({ report: { found: found(mesh) } })
  },
})
