import { z } from 'zod'
import { good } from '../answer'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const smooth = defineOperation({
  version: 1,
  stage: 'import',
  schema: z.object({
    kind: z.literal('smooth'),
    passes: z.int().min(1).max(200).default(10),
    limit: z.number().min(0).max(50).default(0.5).describe('mm by which a vertex may move at most'),
  }),
  report: z.object({}),
  label: ({ passes }) => message('operations.smooth', { passes }),
  apply: async ({ mesh, op }) => {
    const { smoothed } = await import('../mesh/smooth')
    return good({ mesh: smoothed(mesh, op.passes, op.limit), report: {} })
  },
})
