import { z } from 'zod'
import { good } from '../answer'
import { DETAIL_FACES, detailLimits } from './detailLimits'
import { defineCheck } from './check'

export const detail = defineCheck({
  version: 2,
  schema: z.object({
    kind: z.literal('detail'),
    ...detailLimits,
    factors: z.array(z.number().gt(0).max(10_000)).min(1).max(12),
  }),
  report: z.object({ shares: z.array(z.object({ factor: z.number(), survives: z.number() })) }),
  run: async ({ meshes: [mesh], params, host }) => {
    const { detailShares } = await import('../fit/detail')
    const { simplify } = await import('../mesh/simplify')
    const lean = await simplify(mesh, DETAIL_FACES, 0.05)
    return good({ report: { shares: detailShares(lean, params.factors, params, host.progress) } })
  },
})
