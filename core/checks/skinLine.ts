import { z } from 'zod'
import { good } from '../answer'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const skinLine = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('skinLine'), places: z.array(point).min(2).max(200), closed: z.boolean() }),
  report: z.object({ line: z.array(point) }),
  run: async ({ meshes: [mesh], params }) => {
    const { skinLine: line } = await import('../mesh/skinLine')
    return good({ report: { line: line(mesh, params.places, params.closed) } })
  },
})
