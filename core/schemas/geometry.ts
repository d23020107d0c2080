import { z } from 'zod'
import type { Measures } from '../mesh/measure'

/** x, y, z in mm, or a direction. */
export const point = z.tuple([z.number(), z.number(), z.number()])
/** x, y, z, w */
export const quaternion = z.tuple([z.number(), z.number(), z.number(), z.number()])
export const direction = point.refine((v) => Math.abs(Math.hypot(...v) - 1) < 1e-3, 'must be a unit vector')
/** SHA-256 of a mesh in the store, in hexadecimal. */
export const hash = z.string().regex(/^[0-9a-f]{64}$/)
/** Stands where no mesh of the store is meant. */
export const NO_MESH = '0'.repeat(64)

/** Places that a brush went over, at least one. */
/** Dabs of a brush that one operation takes. */
export const MOST_DABS = 1000
export const dabs = z
  .array(z.object({ point, radius: z.number().min(0.1).max(200).describe('mm') }))
  .min(1)
  .max(MOST_DABS)

export const box = z.object({ min: point, max: point })
/** What `measure` of core/mesh gives. */
export const measures = z.object({
  volume: z.number(),
  area: z.number(),
  centre: point,
  box,
  size: point,
}) satisfies z.ZodType<Measures>

export const drainHole = z.object({
  point: point.describe('on the outer skin, mm'),
  direction: point.describe('unit vector into the body'),
  diameter: z.number().min(1).max(40).describe('mm'),
})
