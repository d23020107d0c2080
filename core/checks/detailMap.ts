import { z } from 'zod'
import { good } from '../answer'
import { DETAIL_FACES, detailLimits } from './detailLimits'
import { hash } from '../schemas/geometry'
import { vertexMap } from '../schemas/reports'
import { defineCheck, vertexFile } from './check'

export const detailMap = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('detailMap'),
    other: hash,
    factor: z.number().gt(0).max(10_000),
    ...detailLimits,
  }),
  report: vertexMap,
  inputs: (p) => [p.other],
  run: async ({ meshes: [mesh, full], params, host }) => {
    const { detailMap: map } = await import('../fit/detail')
    const { simplify } = await import('../mesh/simplify')
    return good(vertexFile(map(mesh, await simplify(full!, DETAIL_FACES, 0.05), params.factor, params, host.progress)))
  },
})
