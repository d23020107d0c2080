import { z } from 'zod'
import { good } from '../answer'
import { hash } from '../schemas/geometry'
import { vertexMap } from '../schemas/reports'
import { defineCheck, vertexFile } from './check'

export const stretchMap = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('stretchMap'),
    others: z.array(hash).length(2).describe('posed, and before the pose'),
  }),
  report: vertexMap,
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, posed, rest] }) => {
    const { stretchMap: map } = await import('../pose/stretch')
    return good(vertexFile(map(mesh, posed!, rest!)))
  },
})
