import { z } from 'zod'
import { good } from '../answer'
import { defineCheck } from './check'

export const display = defineCheck({
  version: 5,
  schema: z.object({
    kind: z.literal('display'),
    faces: z.int().min(1000).max(400_000).default(120_000),
    bodyFaces: z.int().min(0).optional().describe('faces before this index are the body, the rest its supports'),
  }),
  report: z.object({ faces: z.number(), bodyFaces: z.number() }),
  run: async ({ meshes: [mesh], params }) => {
    const { displayCopy } = await import('./displayCopy')
    const { mesh: copy, bodyFaces } = await displayCopy(mesh, params.faces, params.bodyFaces)
    return good({ mesh: copy, report: { faces: copy.triangles.length / 3, bodyFaces } })
  },
})
