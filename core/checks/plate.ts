import { z } from 'zod'
import { bad, good } from '../answer'
import { measure } from '../mesh/measure'
import { concatenate } from '../mesh/mesh'
import { hash, measures } from '../schemas/geometry'
import { defineCheck } from './check'
import { message } from '../words/message'

export const plate = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('plate'),
    others: z.array(hash).max(199),
    parts: z
      .array(z.object({ of: z.int().min(0), x: z.number(), y: z.number(), angle: z.number() }))
      .min(1)
      .max(1000)
      .describe('`of`: 0 is the mesh, from 1 on the others; mm from the plate’s middle, radians'),
  }),
  report: z.object({ measures }),
  inputs: (p) => p.others,
  run: async ({ meshes, params }) => {
    const { placedBody } = await import('../print/nest/plateBody')
    const lost = params.parts.find((p) => p.of >= meshes.length)
    if (lost)
      return bad('no-such-part', message('problems.plate.thereIsNoPartAmong', { of: lost.of, length: meshes.length }))
    const body = concatenate(params.parts.map((p) => placedBody(meshes[p.of]!, p)))
    return good({ mesh: body, report: { measures: measure(body) } })
  },
})
