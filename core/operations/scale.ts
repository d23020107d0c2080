import { z } from 'zod'
import { good } from '../answer'
import type { Vector3 } from '../math/vectors'
import { bounds } from '../mesh/mesh'
import { scaledMesh } from '../mesh/transform'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const scale = defineOperation({
  version: 2,
  stage: 'scale',
  clouds: true,
  schema: z.object({
    kind: z.literal('scale'),
    factor: z.number().gt(0).max(10_000),
    axes: z
      .tuple([z.number().gt(0).max(100), z.number().gt(0).max(100), z.number().gt(0).max(100)])
      .default([1, 1, 1])
      .describe('further factors across, deep and high'),
    about: z.enum(['foot', 'origin']).default('foot'),
  }),
  report: z.object({}),
  label: ({ factor }) => message('operations.scale', { factor: rounded(factor, 4) }),
  apply: async ({ mesh, op }) => {
    const box = bounds(mesh)
    // About the middle of the foot, so that the sculpt stays where it stands; or all parts about one point.
    const about: Vector3 =
      op.about === 'origin' ? [0, 0, 0] : [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2, box.min[2]]
    const [x, y, z_] = op.axes
    return good({ mesh: scaledMesh(mesh, [x * op.factor, y * op.factor, z_ * op.factor], about), report: {} })
  },
})
