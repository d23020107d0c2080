import { z } from 'zod'
import { good } from '../answer'
import { vertexMap } from '../schemas/reports'
import { defineCheck, vertexFile } from './check'

export const thicknessMap = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('thicknessMap') }),
  report: vertexMap,
  run: async ({ meshes: [mesh], host }) => {
    const { thicknessMap: map } = await import('../fit/thicknessMap')
    return good(vertexFile(map(mesh, host.progress)))
  },
})
