import { z } from 'zod'
import { good } from '../answer'
import type { LightRoute } from '../shape/lightRoute'
import { hash, point } from '../schemas/geometry'
import { defineCheck } from './check'

export const lightRoute = defineCheck({
  version: 2,
  schema: z.object({
    kind: z.literal('lightRoute'),
    others: z.array(hash).max(64),
    from: point,
    to: point,
    diameter: z.number().min(0.5).max(40),
    wall: z.number().min(0.2).max(20),
  }),
  report: z.object({
    path: z.array(point),
    length: z.number(),
    wall: z.number().nullable(),
    thinnest: point,
    bend: z.number(),
    open: z.tuple([z.number(), z.number()]),
  }) satisfies z.ZodType<LightRoute>,
  inputs: (p) => p.others,
  run: async ({ meshes, params, host }) => {
    const { lightRoute: found } = await import('../shape/lightRoute')
    const r = found(meshes, params, host.progress)
    return r.ok ? good({ report: r.value }) : r
  },
})
