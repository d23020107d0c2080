import { z } from 'zod'
import { good } from '../answer'
import { cup, island } from '../schemas/reports'
import { defineCheck } from './check'

export const layers = defineCheck({
  version: 3,
  schema: z.object({ kind: z.literal('layers'), step: z.number().min(0.02).max(1) }),
  report: z.object({
    islands: z.array(island),
    cups: z.array(cup),
    areas: z.array(z.number()),
    suction: z.array(z.number()),
  }),
  run: async ({ meshes: [mesh], params, host }) => {
    const { inspectLayers } = await import('../print/slice/slice')
    return good({ report: inspectLayers(mesh, params.step, host.progress) })
  },
})
