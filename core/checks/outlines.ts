import { z } from 'zod'
import { good } from '../answer'
import { printer } from '../schemas/printer'
import { repairReport } from '../schemas/reports'
import { defineCheck } from './check'

export const outlines = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('outlines'), format: z.enum(['3mf', 'svg']), printer }),
  report: z.object({ layers: z.number(), mended: repairReport.nullable() }),
  run: async ({ meshes: [mesh], params, host }) => {
    const { outlineStack } = await import('../print/slice/outlineStack')
    const r = await outlineStack(mesh, params.printer, params.format, host.putBytes, host.progress)
    return r.ok ? good({ streamed: params.format, report: r.value }) : r
  },
})
