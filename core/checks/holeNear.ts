import { z } from 'zod'
import { good } from '../answer'
import type { HoleNear } from '../shape/holeNear'
import { hash, point } from '../schemas/geometry'
import { drainSite } from '../schemas/reports'
import { defineCheck } from './check'
import { problem } from '../schemas/reports'

export const holeNear = defineCheck({
  version: 2,
  schema: z.object({
    kind: z.literal('holeNear'),
    point,
    diameter: z.number().min(1).max(20),
    others: z.array(hash).max(64).default([]),
    snap: z.number().min(0).max(50).default(6).describe('mm within which a covered place is taken instead'),
    within: z.number().min(0).max(100).default(15).describe('mm'),
  }),
  report: z.object({
    asked: drainSite.nullable(),
    problem: problem.nullable(),
    instead: drainSite.nullable(),
  }) satisfies z.ZodType<HoleNear>,
  inputs: (p) => p.others,
  run: async ({ meshes: [mesh, ...others], params }) => {
    const { holeNear: found } = await import('../shape/holeNear')
    return good({ report: found(mesh, others, params) })
  },
})
