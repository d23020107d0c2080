import { z } from 'zod'
import { good } from '../answer'
import type { CoreChoice } from '../fit/coreChoices'
import { loadCase, wallLoadReport } from './loadCase'
import { hash } from '../schemas/geometry'
import { defineCheck } from './check'

const choice = z.object({
  resin: z.number(),
  area: z.number(),
  casting: z.number(),
  mass: z.number(),
  centre: z.number(),
  tip: z.number().nullable(),
  stress: z.number(),
  height: z.number(),
  section: z.number(),
}) satisfies z.ZodType<CoreChoice>

export const coreChoices = defineCheck({
  version: 3,
  schema: z.object({
    kind: z.literal('coreChoices'),
    others: z.array(hash).length(1).describe('the hollowed body'),
    casting: z.number().min(0.5).max(3).describe('g/ml'),
    ...loadCase,
  }),
  report: z.object({ solid: choice, hollow: choice, filled: choice, load: wallLoadReport }),
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, hollowed], params, host }) => {
    const { coreChoices: compared } = await import('../fit/coreChoices')
    return good({ report: compared(mesh, hollowed!, params.casting, params, host.progress) })
  },
})
