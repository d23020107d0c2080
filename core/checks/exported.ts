import { z } from 'zod'
import { good } from '../answer'
import { defineCheck } from './check'

export const exported = defineCheck({
  version: 2,
  schema: z.object({
    kind: z.literal('export'),
    format: z.enum(['stl', 'obj', 'ply', '3mf', 'glb']),
    name: z.string().max(80),
  }),
  report: z.object({ bytes: z.number() }),
  run: async ({ meshes: [mesh], params: { format, name } }) => {
    const { writeMesh } = await import('../formats/writeMesh')
    const bytes = writeMesh(mesh, format, name)
    return good({ files: { [format]: bytes }, report: { bytes: bytes.length } })
  },
})
