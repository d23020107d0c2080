import { z } from 'zod'
import { good } from '../answer'
import { hash, point } from '../schemas/geometry'
import { defineCheck } from './check'

export const coveredDabs = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('coveredDabs'),
    others: z.array(hash).max(64),
    spacing: z.number().min(0.3).max(50),
  }),
  report: z.object({ dabs: z.array(z.object({ point, radius: z.number() })) }),
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...others], params }) => {
    const { coveredDabs: found } = await import('../shape/coveredDabs')
    return good({ report: { dabs: found(mesh, others, params.spacing) } })
  },
})
