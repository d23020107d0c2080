import { z } from 'zod'
import { good } from '../answer'
import type { OrientationScore } from '../print/orient/orientation'
import { hash, point, quaternion } from '../schemas/geometry'
import { defineCheck } from './check'

const score = z.object({
  up: point,
  quaternion,
  height: z.number(),
  scar: z.number(),
  overhang: z.number(),
  focal: z.number(),
  resin: z.number(),
  starts: z.number(),
  peak: z.number(),
  cup: z.number(),
  fits: z.boolean(),
  front: z.boolean(),
  score: z.number(),
}) satisfies z.ZodType<OrientationScore>

export const orientations = defineCheck({
  version: 5,
  schema: z.object({
    kind: z.literal('orientations'),
    limit: z.number().min(15).max(75),
    volume: point,
    focal: z
      .array(z.object({ point, radius: z.number().min(0.01).max(1000) }))
      .max(500)
      .default([]),
    others: z.array(hash).max(64).default([]).describe('parts that will cover some of the skin'),
    keep: z
      .object({ direction: point, within: z.number().min(1).max(120).describe('degrees') })
      .nullable()
      .default(null)
      .describe('what is to look up'),
  }),
  report: z.object({ scores: z.array(score), upright: score.optional() }),
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...others], params, host }) => {
    const { scoreOrientations } = await import('../print/orient/orientation')
    const { scarImportance } = await import('../print/orient/importance')
    const { cupEstimate } = await import('../print/resin/cupEstimate')
    const { simplify } = await import('../mesh/simplify')
    const lean = await simplify(mesh, 30_000, 0.4)
    const importance = scarImportance(lean, params.focal, others)
    const scores = scoreOrientations(lean, { ...params, importance, cups: cupEstimate(mesh) }, host.progress)
    return good({ report: { scores, upright: scores.find((s) => s.up[2] > 0.9999) } })
  },
})
