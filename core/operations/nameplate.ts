import { z } from 'zod'
import { good } from '../answer'
import type { NameplateReport } from '../shape/nameplate'
import { point } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const nameplate = defineOperation({
  version: 1,
  stage: 'combine',
  schema: z.object({
    kind: z.literal('nameplate'),
    text: z.string().trim().min(1).max(200).describe('lines are parted by line breaks'),
    face: z.enum(['sans', 'serif']).default('serif'),
    letter: z.number().min(0.8).max(100).default(4).describe('mm, of a capital'),
    spacing: z.number().min(-0.05).max(0.5).default(0.06).describe('share of the em between letters'),
    style: z.enum(['raised', 'sunk']).default('raised'),
    relief: z.number().min(0.1).max(10).default(0.6).describe('mm'),
    around: z.number().min(-180).max(180).default(0).describe('degrees from the front'),
    up: z
      .number()
      .min(0)
      .max(1000)
      .nullable()
      .default(null)
      .describe('mm above the foot; null for where it is flattest'),
    width: z.number().min(2).max(500).nullable().default(null).describe('mm; null for as wide as the text needs'),
    height: z.number().min(2).max(300).nullable().default(null).describe('mm'),
    recess: z.number().min(0).max(20).default(0.8).describe('mm'),
  }),
  report: z.object({
    nameplate: z.object({
      width: z.number(),
      height: z.number(),
      depth: z.number(),
      stroke: z.number(),
      centre: point,
      outward: point,
    }) satisfies z.ZodType<NameplateReport>,
  }),
  label: ({ text }) => message('operations.nameplate', { lines: text.split('\n').join(' / ') }),
  apply: async ({ mesh, op }) => {
    const { nameplate: made } = await import('../shape/nameplate')
    const r = await made(mesh, op)
    return r.ok ? good({ mesh: r.value.mesh, report: { nameplate: r.value.report } }) : r
  },
})
