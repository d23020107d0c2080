import { z } from 'zod'
import { good } from '../answer'
import type { Rinse } from '../print/resin/rinse'
import { drainHole, point } from '../schemas/geometry'
import { defineCheck } from './check'

export const rinse = defineCheck({
  version: 2,
  schema: z.object({ kind: z.literal('rinse'), holes: z.array(drainHole).max(64).default([]) }),
  report: z.object({
    openings: z.array(z.object({ at: point, area: z.number(), hole: z.number().nullable() })),
    enter: z.number(),
    swept: z.number(),
    still: z.number(),
    deadEnds: z.array(z.object({ at: point, volume: z.number() })),
    streams: z.array(z.array(point)),
  }) satisfies z.ZodType<Rinse>,
  run: async ({ meshes: [mesh], params, host }) => {
    const { rinse: followed } = await import('../print/resin/rinse')
    return good({ report: followed(mesh, params.holes, host.progress) })
  },
})
