import { z } from 'zod'
import { good } from '../answer'
import { loadCase, wallLoadReport } from './loadCase'
import { defineCheck } from './check'

export const wallLoad = defineCheck({
  version: 2,
  schema: z.object({ kind: z.literal('wallLoad'), ...loadCase }),
  report: wallLoadReport,
  run: async ({ meshes: [mesh], params, host }) => {
    const { wallLoad: worked } = await import('../fit/wallLoad')
    return good({ report: worked(mesh, params, host.progress) })
  },
})
