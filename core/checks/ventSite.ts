import { z } from 'zod'
import { good } from '../answer'
import { point, quaternion } from '../schemas/geometry'
import { drilledHole } from '../schemas/reports'
import { defineCheck } from './check'

export const ventSite = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('ventSite'),
    point,
    quaternion,
    shift: point,
    diameter: z.number().min(1).max(20),
  }),
  report: z.object({ site: drilledHole }),
  run: async ({ meshes: [mesh], params }) => {
    const { ventSite: found } = await import('../shape/ventSite')
    const site = found(mesh, params)
    return site.ok ? good({ report: { site: site.value } }) : site
  },
})
