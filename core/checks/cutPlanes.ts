import { z } from 'zod'
import { good } from '../answer'
import type { CutPlane } from '../shape/cutPlanes'
import { point } from '../schemas/geometry'
import { defineCheck } from './check'

export const cutPlanes = defineCheck({
  version: 2,
  schema: z.object({
    kind: z.literal('cutPlanes'),
    volume: point,
    focal: z
      .array(z.object({ point, radius: z.number().gt(0).max(500) }))
      .max(200)
      .default([]),
  }),
  report: z.object({
    planes: z.array(
      z.object({
        point,
        normal: point,
        area: z.number(),
        seam: z.number(),
        seen: z.number(),
        pieces: z.number(),
        room: z.number(),
        smaller: z.number(),
        below: point,
        above: point,
        parts: z.number(),
        crosses: z.number(),
      }),
    ),
  }) satisfies z.ZodType<{ planes: CutPlane[] }>,
  run: async ({ meshes: [mesh], params, host }) => {
    const { cutPlanes: scored } = await import('../shape/cutPlanes')
    const { simplify } = await import('../mesh/simplify')
    return good({ report: { planes: scored(await simplify(mesh, 60_000, 0.2), params, host.progress) } })
  },
})
