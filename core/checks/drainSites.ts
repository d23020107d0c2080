import { z } from 'zod'
import { good } from '../answer'
import { hash, point } from '../schemas/geometry'
import { drainSite } from '../schemas/reports'
import { defineCheck } from './check'

export const drainSites = defineCheck({
  version: 5,
  schema: z.object({
    kind: z.literal('drainSites'),
    diameter: z.number().min(1).max(20),
    down: point,
    others: z.array(hash).max(64).default([]).describe('parts that will cover some of the skin'),
  }),
  report: z.object({ sites: z.array(drainSite) }),
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...others], params, host }) => {
    const { drainSites: found } = await import('../shape/drainSites')
    return good({ report: { sites: found(mesh, params, others, host.progress) } })
  },
})
