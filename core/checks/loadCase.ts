import { z } from 'zod'
import type { WallLoad } from '../fit/wallLoad'
import { point } from '../schemas/geometry'

/** What bends a standing body: `LoadCase` of core/fit/wallLoad. */
export const loadCase = {
  wall: z.number().min(0.4).max(20),
  density: z.number().min(0.5).max(3),
  push: z.number().min(0).max(200).default(3),
  handling: z.number().min(0).max(50).default(5),
  allow: z.number().min(0.1).max(100).default(10),
}

const worst = z.object({ stress: z.number(), height: z.number() })
export const wallLoadReport = z.object({
  places: z.array(z.object({ point, reach: z.number(), stress: z.number(), wall: z.number().nullable() })),
  planned: worst,
  solid: worst,
}) satisfies z.ZodType<WallLoad>
