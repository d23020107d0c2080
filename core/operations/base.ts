import { z } from 'zod'
import { good } from '../answer'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const base = defineOperation({
  version: 1,
  stage: 'combine',
  clouds: true,
  makes: true,
  schema: z.object({
    kind: z.literal('base'),
    outline: z.enum(['round', 'rounded']).default('round'),
    width: z.number().min(5).max(1000).default(80).describe('mm across the front'),
    depth: z.number().min(5).max(1000).default(80).describe('mm from front to back'),
    height: z.number().min(1).max(500).default(12).describe('mm'),
    corner: z.number().min(0).max(200).default(6).describe('mm'),
    side: z.enum(['plain', 'stepped', 'turned']).default('plain'),
    steps: z.int().min(1).max(8).default(2),
    profile: z
      .array(z.tuple([z.number().min(0).max(1.5), z.number().min(0).max(1)]))
      .max(60)
      .default([])
      .describe('turned: share of half the width and share of the height, from the foot up'),
    top: z.enum(['plain', 'cobbles', 'planks', 'rock']).default('plain'),
    relief: z.number().min(0).max(30).default(1.5).describe('mm'),
    seed: z.int().min(0).max(1_000_000).default(1),
  }),
  report: z.object({}),
  label: ({ width, depth, height }) =>
    message('operations.base', { width: rounded(width, 1), depth: rounded(depth, 1), height: rounded(height, 1) }),
  apply: async ({ op, progress }) => {
    const { base: made } = await import('../shape/base')
    const r = made(op, progress)
    return r.ok ? good({ mesh: r.value, report: {} }) : r
  },
})
