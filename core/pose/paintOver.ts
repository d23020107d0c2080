import type { Vector3 } from '../math/vectors'

/** A place of a brush that says which joint the skin there follows, on the sculpt before posing. */
export interface WeightDab {
  joint: number
  point: Vector3
  /** mm: full out to half of it, none at it */
  radius: number
}

/** Lays dabs over the weights, later ones over earlier; the weights of a vertex go on summing to 1. */
export function paintOver(
  positions: Float32Array,
  weights: Float32Array,
  joints: number,
  dabs: readonly WeightDab[],
): Float32Array {
  for (const { joint, point, radius } of dabs) {
    if (joint >= joints) continue
    for (let v = 0; v < positions.length / 3; v++) {
      const d = Math.hypot(
        positions[v * 3]! - point[0],
        positions[v * 3 + 1]! - point[1],
        positions[v * 3 + 2]! - point[2],
      )
      if (d >= radius) continue
      const t = Math.min(1, 2 * (1 - d / radius))
      const share = t * t * (3 - 2 * t)
      for (let j = 0; j < joints; j++) weights[v * joints + j]! *= 1 - share
      weights[v * joints + joint]! += share
    }
  }
  return weights
}
