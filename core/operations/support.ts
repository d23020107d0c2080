import { GREEN_STRENGTH, PEEL_PRESSURE } from '../defaults/print'
import { z } from 'zod'
import { good } from '../answer'
import type { SupportReport } from '../print/support/support'
import { point } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

const grade = z.enum(['whisker', 'strut', 'post'])
const paint = z.array(z.object({ point, radius: z.number().min(0.1).max(1000) })).max(2000)

export const supportEdit = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('add'), point, grade }),
  z.object({ kind: z.literal('remove'), point, radius: z.number().min(0.1).max(200).optional().describe('mm') }),
  z.object({ kind: z.literal('regrade'), point, grade }),
  z.object({ kind: z.literal('move'), point, to: point }),
  z.object({ kind: z.literal('drop'), point }).describe('the loose piece there is not printed'),
])

export const support = defineOperation({
  version: 7,
  stage: 'orient',
  buildsOn: ['orient'],
  schema: z.object({
    kind: z.literal('support'),
    limit: z
      .number()
      .min(15)
      .max(75)
      .default(40)
      .describe('degrees from the plate below which the surface needs support'),
    spacing: z.number().min(0.8).max(20).default(3.5).describe('mm between tips'),
    clearance: z.number().min(0.1).max(5).default(0.6).describe('mm between stems and body'),
    lift: z.number().min(0).max(40).default(5).describe('mm between raft and body; 0 stands it on the plate'),
    peelPressure: z.number().min(100).max(200_000).default(PEEL_PRESSURE).describe('Pa'),
    greenStrength: z.number().min(1e5).max(1e8).default(GREEN_STRENGTH).describe('Pa'),
    automatic: z.boolean().default(true),
    edits: z.array(supportEdit).max(5000).default([]),
    school: z.enum(['broad', 'heavy', 'joints']).optional(),
    none: paint.optional().describe('no supports here'),
    more: paint.optional().describe('supports twice as close here'),
    only: paint.optional().describe('for supports on joint faces: all there may be'),
    focal: paint.optional().describe('tips stay whiskers here as long as they hold'),
  }),
  report: z.object({
    support: z.object({
      tips: z.array(
        z.object({
          point,
          grade,
          landsOn: z.enum(['plate', 'body', 'trunk']),
          force: z.number(),
          utilisation: z.number(),
          worstZ: z.number(),
          byHand: z.boolean(),
          island: z.boolean(),
          focal: z.boolean(),
          length: z.number(),
          clearance: z.number(),
        }),
      ),
      unreached: z.array(z.object({ point, island: z.boolean() })),
      barred: z.array(point),
      lostEdits: z.number(),
      bodyFaces: z.number(),
      supportVolume: z.number(),
      shift: point,
      scarArea: z.number(),
      focalScar: z.number(),
      thinned: z.number(),
      joined: z.number(),
      braces: z.number(),
      height: z.number(),
      layers: z.array(z.object({ z: z.number(), force: z.number(), utilisation: z.number() })),
    }) satisfies z.ZodType<SupportReport>,
  }),
  label: () => message('operations.support'),
  apply: async ({ mesh, op, progress }) => {
    const { support: supported } = await import('../print/support/support')
    const r = supported(mesh, op, progress)
    return r.ok ? good({ mesh: r.value.mesh, report: { support: r.value.report } }) : r
  },
})
