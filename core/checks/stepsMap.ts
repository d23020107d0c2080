import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { vertexMap } from '../schemas/reports'
import { defineCheck, vertexFile } from './check'

export const stepsMap = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('stepsMap'), up: point, layerHeight: z.number().gt(0).max(1) }),
  report: vertexMap,
  run: async ({ meshes: [mesh], params }) => {
    const { stepsMap: map } = await import('../print/orient/stepsMap')
    return good(vertexFile(map(mesh, params.up, params.layerHeight)))
  },
})
