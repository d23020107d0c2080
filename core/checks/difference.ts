import { z } from 'zod'
import { good } from '../answer'
import { hash, point } from '../schemas/geometry'
import { defineCheck, vertexFile } from './check'

export const difference = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('difference'), other: hash }),
  report: z.object({ most: z.number(), mean: z.number(), where: point }),
  inputs: (p) => [p.other],
  run: async ({ meshes: [mesh, other], host }) => {
    const { difference: compared } = await import('../fit/difference')
    const { map, ...figures } = compared(mesh, other!, host.progress)
    return good({ files: vertexFile(map).files, report: figures })
  },
})
