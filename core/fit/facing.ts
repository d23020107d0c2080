import type { Vector3 } from '../math/vectors'

/** Degrees round the upright from the front (−y), to the right of who looks at it; null for straight up or down. */
export function azimuthOf(d: Vector3): number | null {
  return Math.hypot(d[0], d[1]) < 0.1 * Math.hypot(...d) ? null : (Math.atan2(d[0], -d[1]) * 180) / Math.PI
}

/** Difference of two directions round the upright, −180 to 180. */
export const between = (a: number, b: number): number => ((((a - b) % 360) + 540) % 360) - 180
