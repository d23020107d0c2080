import { z } from 'zod'
import { good } from '../answer'
import { defineCheck } from './check'

export const scan = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('scan'),
    stations: z
      .array(z.object({ azimuth: z.number(), elevation: z.number().min(-60).max(90) }))
      .min(1)
      .max(64),
    across: z.int().min(20).max(600).default(220),
    noise: z.number().min(0).max(0.05).default(0.001),
    dropouts: z.number().min(0).max(0.95).default(0.1),
    floor: z.boolean().default(true),
    seed: z
      .int()
      .min(0)
      .max(2 ** 31),
  }),
  report: z.object({ points: z.number() }),
  run: async ({ meshes: [mesh], params, host }) => {
    const { scan: scanned } = await import('../scan/scanner')
    const { writePly } = await import('../formats/ply')
    // The true scale stays here: finding it is what calibration is for.
    const { cloud } = scanned(mesh, params, host.progress)
    return good({ files: { ply: writePly(cloud) }, report: { points: cloud.positions.length / 3 } })
  },
})
