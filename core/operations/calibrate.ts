import { z } from 'zod'
import { bad, good } from '../answer'
import { scaledMesh } from '../mesh/transform'
import { point } from '../schemas/geometry'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const calibrate = defineOperation({
  version: 1,
  stage: 'import',
  clouds: true,
  schema: z.object({
    kind: z.literal('calibrate'),
    from: point,
    to: point,
    distance: z.number().gt(0).max(100_000).describe('mm between the two in truth'),
  }),
  report: z.object({ factor: z.number() }),
  label: ({ distance }) => message('operations.calibrate', { distance: rounded(distance) }),
  apply: async ({ mesh, op }) => {
    const apart = Math.hypot(op.to[0] - op.from[0], op.to[1] - op.from[1], op.to[2] - op.from[2])
    if (!(apart > 1e-6)) return bad('same-place', message('problems.calibrate.theTwoPointsAreAt'))
    const factor = op.distance / apart
    return good({ mesh: scaledMesh(mesh, [factor, factor, factor], [0, 0, 0]), report: { factor } })
  },
})
