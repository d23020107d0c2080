import { z } from 'zod'
import { good } from '../answer'
import { hash } from '../schemas/geometry'
import { defineCheck } from './check'

export const rest = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('rest'), others: z.array(hash).max(64) }),
  report: z.object({ up: z.number().nullable() }),
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...others] }) => {
    const { restOn } = await import('../fit/rest')
    return good({ report: { up: restOn(mesh, others) } })
  },
})
