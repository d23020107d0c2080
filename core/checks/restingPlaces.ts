import { z } from 'zod'
import { good } from '../answer'
import { hash } from '../schemas/geometry'
import { vertexMap } from '../schemas/reports'
import { defineCheck, vertexFile } from './check'

export const restingPlaces = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('restingPlaces'),
    others: z.array(hash).min(2).max(40).describe('from the mesh on the table back to the sculpt'),
  }),
  report: vertexMap,
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...chain], host }) => {
    const { restingPlaces: map } = await import('../paint/surface/resting')
    return good(vertexFile(map(mesh, chain, host.progress)))
  },
})
