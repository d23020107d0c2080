import { z } from 'zod'
import { good } from '../answer'
import type { PoseReport } from '../pose/quality'
import { point, quaternion } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const joint = z.object({
  name: z.string().trim().min(1).max(60),
  parent: z
    .int()
    .min(-1)
    .describe('index of the joint it hangs on; −1 for a root; parents stand before their children'),
  position: point.describe('mm, inside the sculpt as it is before posing'),
  turn: quaternion.default([0, 0, 0, 1]).describe('x, y, z, w against its parent'),
})
export type JointRecord = z.infer<typeof joint>

export const pose = defineOperation({
  version: 2,
  stage: 'pose',
  schema: z.object({
    kind: z.literal('pose'),
    joints: z.array(joint).max(80),
    rigid: z
      .int()
      .min(0)
      .nullable()
      .default(null)
      .describe('joint that the whole part follows; null bends its surface'),
    settle: z.boolean().default(true),
    paint: z
      .array(z.object({ joint: z.int().min(0).max(79), point, radius: z.number().gt(0).max(200) }))
      .max(2000)
      .default([])
      .describe('which joint the surface follows where a brush went, on the sculpt before the pose'),
  }),
  report: z.object({
    pose: z.object({
      flipped: z.number(),
      volumeChange: z.number(),
      joints: z.array(
        z.object({
          name: z.string(),
          turned: z.number(),
          volumeChange: z.number(),
          stretch: z.number(),
          flipped: z.number(),
          at: point,
        }),
      ),
    }) satisfies z.ZodType<PoseReport>,
  }),
  label: ({ joints }) => message('operations.pose', { joints: joints.length }),
  apply: async ({ mesh, op, progress }) => {
    const { pose: posed } = await import('../pose/pose')
    const r = await posed(mesh, op, progress)
    return r.ok ? good({ mesh: r.value.mesh, report: { pose: r.value.report } }) : r
  },
})
