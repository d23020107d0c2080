import { z } from 'zod'
import { good, part } from '../answer'
import type { HollowReport } from '../shape/hollow'
import { point, dabs } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const hollow = defineOperation({
  version: 4,
  stage: 'hollow',
  schema: z.object({
    kind: z.literal('hollow'),
    wall: z.number().min(0.4).max(20).describe('mm'),
    voxel: z.number().min(0.05).max(5).default(0.5).describe('mm'),
    opening: z
      .number()
      .min(0.2)
      .max(20)
      .default(1)
      .describe('mm; slits of the cavity narrower than twice this are closed'),
    leastPocket: z.number().min(0).default(100).describe('mm³; smaller cavities stay solid'),
    thicker: z
      .object({ dabs, by: z.number().min(0.1).max(50).describe('mm of wall more under the full brush') })
      .optional(),
    fill: z
      .object({
        kind: z.enum(['bars', 'gyroid']),
        spacing: z.number().min(3).max(100).describe('mm'),
        thickness: z.number().min(0.4).max(20).describe('mm'),
      })
      .refine((f) => f.thickness < f.spacing / 2, 'A bar must be thinner than half the spacing, or nothing stays free.')
      .optional(),
  }),
  report: z.object({
    hollow: z.object({
      wallAsked: z.number(),
      wall: z.object({
        minimum: z.number(),
        percentile1: z.number(),
        mean: z.number(),
        samples: z.number(),
        thinnest: point,
      }),
      cavities: z.number(),
      cavityVolume: z.number(),
      volumeBefore: z.number(),
      volumeAfter: z.number(),
      centreBefore: point,
      centreAfter: point,
      pocketsFilled: z.number(),
      cavityCentre: point,
      cavityRadius: z.number(),
      kept: z.number(),
    }) satisfies z.ZodType<HollowReport>,
  }),
  label: ({ wall }) => message('operations.hollow', { wall: rounded(wall) }),
  apply: async ({ mesh, op, progress }) => {
    const { hollow: hollowed } = await import('../shape/hollow')
    // Measuring what was made takes the rest.
    const r = await hollowed(mesh, op, part(progress, 0, 0.98))
    return r.ok ? good({ mesh: r.value.mesh, report: { hollow: r.value.report } }) : r
  },
})
