import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { vertexMap } from '../schemas/reports'
import { defineCheck } from './check'

export const surfaceMaps = defineCheck({
  version: 6,
  schema: z.object({ kind: z.literal('surfaceMaps'), brush: z.number().gt(0).max(20), direction: point }),
  report: vertexMap,
  run: async ({ meshes: [mesh], params, host }) => {
    const { surfaceMaps: made } = await import('../paint/surface/surfaceMaps')
    const maps = made(mesh, params, host.progress)
    return good({ files: { maps: new Uint8Array(maps.data.buffer) }, report: { vertices: maps.vertices } })
  },
})
