import type { Vector3 } from '../math/vectors'

/**
 * Standing height measured along the body: the chain from landmark to landmark, so that a pose that crouches or bends
 * takes nothing off it (methods.md 9).
 *
 * @param points as many as there are landmarks, mm
 * @param axes further factors across, deep and high
 */
export function statureAlong(points: readonly Vector3[], axes: Vector3 = [1, 1, 1]): number {
  let sum = 0
  for (let i = 1; i < points.length; i++)
    sum += Math.hypot(...[0, 1, 2].map((k) => axes[k]! * (points[i]![k]! - points[i - 1]![k]!)))
  return sum
}
