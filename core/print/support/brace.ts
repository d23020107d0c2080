import type { Vector3 } from '../../math/vectors'
import { clear, type Obstacle } from './supportRoute'

export interface Brace {
  from: Vector3
  to: Vector3
  radius: number
}

/** Length over radius beyond which a free-standing stem of green resin bends rather than pulls (Euler). */
const SLENDER = 36
const REACH = 14

/**
 * Ties slender stems to their nearest neighbours by rising diagonals, as often as keeps each free length under
 * the slenderness limit. A tie is only laid where it clears the body.
 */
export function braces(
  body: Obstacle,
  stems: readonly { path: Vector3[]; radius: number }[],
  clearance: number,
): Brace[] {
  const out: Brace[] = []
  const uprights = stems.map((s) => {
    const [top, foot] = [s.path.at(-2)!, s.path.at(-1)!]
    return { x: foot[0], y: foot[1], low: foot[2], high: top[2], radius: s.radius }
  })
  for (const [i, a] of uprights.entries()) {
    const free = SLENDER * a.radius
    if (a.high - a.low <= free) continue
    const mates = uprights
      .map((b, j) => ({ b, j, d: Math.hypot(a.x - b.x, a.y - b.y) }))
      .filter(({ b, j, d }) => j !== i && d > 1.2 && d < REACH && b.high - b.low > free / 2)
      .sort((p, q) => p.d - q.d)
      .slice(0, 2)
    for (const { b, j, d } of mates) {
      // Each pair is tied once, by its lower-numbered stem, unless the other one is not slender itself.
      if (j < i && uprights[j]!.high - uprights[j]!.low > SLENDER * uprights[j]!.radius) continue
      for (let z = a.low + free / 2; z + d < Math.min(a.high, b.high); z += free * 0.75) {
        const from: Vector3 = [a.x, a.y, z],
          to: Vector3 = [b.x, b.y, z + d * 0.9]
        if (clear(body, from, to, 0.35 + clearance)) out.push({ from, to, radius: 0.35 })
      }
    }
  }
  return out
}
