import { z } from 'zod'

/** Where a hand has put a part: mm of its origin from the plate's middle, radians. */
export const plateLock = z.object({
  copy: z.int().min(0).max(200),
  printer: z.string().max(60),
  plate: z.int().min(0).max(500),
  x: z.number(),
  y: z.number(),
  angle: z.number(),
})
