import { z } from 'zod'
import { good } from '../answer'
import { isCloud } from '../mesh/mesh'
import { measures, point } from '../schemas/geometry'
import { defineCheck } from './check'

const defect = z.object({ count: z.number(), places: z.array(point) })

export const health = defineCheck({
  version: 4,
  schema: z.object({ kind: z.literal('health') }),
  report: z.object({
    faces: z.number(),
    vertices: z.number(),
    shells: z.number(),
    shellVolumes: z.array(z.number()),
    openEdges: defect,
    holes: defect.extend({ lengths: z.array(z.number()) }),
    nonManifold: defect,
    disoriented: defect,
    insideOut: defect,
    degenerate: defect,
    duplicate: defect,
    selfIntersecting: defect.extend({ complete: z.boolean() }),
    crumbs: defect,
    volume: z.number(),
    area: z.number(),
    size: point,
    units: z.enum(['plausible', 'looks like metres', 'looks like inches', 'looks too large']),
    sound: z.boolean(),
    measures,
    points: z.number().describe('of a cloud; 0 of a mesh'),
  }),
  run: async ({ meshes: [mesh] }) => {
    const { health: examined } = await import('../mesh/health')
    return good({
      report: { ...examined(mesh), points: isCloud(mesh) ? mesh.positions.length / 3 : 0 },
    })
  },
})
