import { z } from 'zod'
import { good } from '../answer'
import { defineCheck } from './check'
import { said } from '../schemas/reports'
import type { Said } from '../words/say'

export const readFile = defineCheck({
  version: 2,
  schema: z.object({ kind: z.literal('import'), fileName: z.string() }),
  report: z.object({
    passedOver: z.array(said),
    bodies: z
      .array(z.object({ name: z.string(), mesh: z.string() }))
      .default([])
      .describe('what was read, by the hashes under which it is stored'),
  }),
  run: async ({ params, host }) => {
    const { readSculpt } = await import('../formats/readSculpt')
    const passedOver: Said[] = []
    const bodies = readSculpt(params.fileName, host.file!, passedOver)
    return bodies.ok ? good({ meshes: bodies.value, report: { passedOver, bodies: [] } }) : bodies
  },
})
