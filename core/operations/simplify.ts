import { z } from 'zod'
import { good } from '../answer'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const simplify = defineOperation({
  version: 1,
  stage: 'import',
  schema: z.object({ kind: z.literal('simplify'), faces: z.int().min(100).max(20_000_000) }),
  report: z.object({}),
  label: ({ faces }) => message('operations.simplify', { faces }),
  apply: async ({ mesh, op }) => {
    const { simplify: simplified } = await import('../mesh/simplify')
    return good({ mesh: await simplified(mesh, op.faces, Infinity), report: {} })
  },
})
