import { z } from 'zod'
import { good } from '../answer'
import { vertexNormals } from '../mesh/measure'
import { hash } from '../schemas/geometry'
import { vertexMap } from '../schemas/reports'
import { defineCheck, vertexFile } from './check'

export const gapMap = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('gapMap'), other: hash, reach: z.number().gt(0).max(20).default(3) }),
  report: vertexMap,
  inputs: (p) => [p.other],
  run: async ({ meshes: [mesh, other], params, host }) => {
    const { gapMap: map } = await import('../fit/gap')
    return good(vertexFile(map(mesh, vertexNormals(mesh), other!, params.reach, host.progress)))
  },
})
