import { faceCross, lengthOf } from './face'

/**
 * Patches for holes. Small rims get the triangulation of least area by dynamic programming (Barequet and
 * Sharir 1995, Liepa 2003, O(n³)); long rims are first cut down by clipping their flattest ears.
 */
const EXACT = 120

/**
 * @param p vertex coordinates, 3 per vertex
 * @param loop rim as vertex indices in the direction of the faces' own open half-edges
 * @returns triangles (3 indices each) that run against the rim, so the patch closes the surface consistently
 */
export function patchHole(p: Float32Array, loop: readonly number[]): number[] {
  const rim = [...loop].reverse()
  const out: number[] = []
  while (rim.length > EXACT) {
    let best = Infinity,
      at = 0
    for (let i = 0; i < rim.length; i++) {
      const a = rim[(i + rim.length - 1) % rim.length]!,
        b = rim[i]!,
        c = rim[(i + 1) % rim.length]!
      const cost = triangleArea(p, a, b, c) + 0.05 * distance2(p, a, c)
      if (cost < best) {
        best = cost
        at = i
      }
    }
    out.push(rim[(at + rim.length - 1) % rim.length]!, rim[at]!, rim[(at + 1) % rim.length]!)
    rim.splice(at, 1)
  }
  leastArea(p, rim, out)
  return out
}

function leastArea(p: Float32Array, rim: number[], out: number[]): void {
  const n = rim.length
  const cost = new Float64Array(n * n),
    pick = new Int32Array(n * n)
  for (let span = 2; span < n; span++) {
    for (let i = 0; i + span < n; i++) {
      const k = i + span
      let best = Infinity,
        via = i + 1
      for (let j = i + 1; j < k; j++) {
        const c = cost[i * n + j]! + cost[j * n + k]! + triangleArea(p, rim[i]!, rim[j]!, rim[k]!)
        if (c < best) {
          best = c
          via = j
        }
      }
      cost[i * n + k] = best
      pick[i * n + k] = via
    }
  }
  const todo: number[] = [0, n - 1]
  while (todo.length > 0) {
    const k = todo.pop()!,
      i = todo.pop()!
    if (k - i < 2) continue
    const j = pick[i * n + k]!
    out.push(rim[i]!, rim[j]!, rim[k]!)
    todo.push(i, j, j, k)
  }
}

const cross = new Float64Array(3)
function triangleArea(p: Float32Array, a: number, b: number, c: number): number {
  faceCross(p, a * 3, b * 3, c * 3, cross)
  return lengthOf(cross) / 2
}
function distance2(p: Float32Array, a: number, b: number): number {
  const x = p[a * 3]! - p[b * 3]!,
    y = p[a * 3 + 1]! - p[b * 3 + 1]!,
    z = p[a * 3 + 2]! - p[b * 3 + 2]!
  return x * x + y * y + z * z
}
