import { z } from 'zod'
import { good } from '../answer'
import type { TrapReport } from '../print/resin/trapped'
import { point } from '../schemas/geometry'
import { pool } from '../schemas/reports'
import { defineCheck } from './check'

const drainStep = z.object({ down: point, left: z.number() })

export const trapped = defineCheck({
  version: 3,
  schema: z.object({ kind: z.literal('trapped'), down: point }),
  report: z.object({
    trapped: z.number(),
    pools: z.array(pool),
    cavity: z.number(),
    shut: z.number(),
    best: drainStep,
    routine: z.array(drainStep),
    stuck: z.array(pool),
    voxel: z.number(),
  }) satisfies z.ZodType<TrapReport>,
  run: async ({ meshes: [mesh], params, host }) => {
    const { trappedResin } = await import('../print/resin/trapped')
    return good({ report: trappedResin(mesh, params.down, host.progress) })
  },
})
