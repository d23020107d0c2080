import { z } from 'zod'
import { good } from '../answer'
import type { BalanceReport } from '../fit/balance'
import { hash, point } from '../schemas/geometry'
import { defineCheck } from './check'

const weight = z.object({
  density: z.number().min(-25).max(25).describe('g/cm³; below 0 it is taken off what the others weigh'),
  infill: z.number().min(0).max(1).default(1),
})
const tip = z.object({ direction: z.number(), margin: z.number(), angle: z.number() })

export const balance = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('balance'),
    others: z.array(hash).max(64),
    weights: z.array(weight).min(1).max(65),
    wish: z.number().min(1).max(80).default(15),
  }),
  report: z.object({
    mass: z.number(),
    centre: point,
    support: z.array(z.tuple([z.number(), z.number()])),
    tips: z.array(tip),
    weakest: tip,
    energy: z.number(),
    remedy: z.object({ ballast: z.number().nullable(), widen: z.number() }).nullable(),
  }) satisfies z.ZodType<BalanceReport>,
  inputs: (p) => p.others,
  run: async ({ meshes, params }) => {
    const { balance: balanced } = await import('../fit/balance')
    const r = balanced(
      meshes.map((mesh, i) => ({ mesh, ...(params.weights[i] ?? params.weights[0]!) })),
      params.wish,
    )
    return r.ok ? good({ report: r.value }) : r
  },
})
