import { type Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { frame, type Vector3 } from '../math/vectors'
import { treeOf } from '../mesh/tree'
import { isInside } from '../mesh/winding'

/** Places in a mouth that are looked out of: a spiral of equal areas. */
const PLACES = 40
const GOLDEN = Math.PI * (3 - Math.sqrt(5))

/**
 * How far a channel's mouth is open: the share of its section from which, a hair beyond its end, one looks straight out
 * for a diameter without meeting any part.
 *
 * @param end mm, the channel's end
 * @param before mm, the point of its path before that
 * @returns 0 (closed) to 1
 */
export function mouthOpen(meshes: readonly Mesh[], end: Vector3, before: Vector3, diameter: number): number {
  const l = Math.hypot(end[0] - before[0], end[1] - before[1], end[2] - before[2]) || 1
  const out = [0, 1, 2].map((k) => (end[k]! - before[k]!) / l) as [number, number, number]
  const [u, v] = frame(out)
  const trees = meshes.map((m) => treeOf(m))
  let open = 0
  for (let i = 0; i < PLACES; i++) {
    const r = (diameter / 2) * Math.sqrt((i + 0.5) / PLACES),
      a = i * GOLDEN
    const p = [0, 1, 2].map((k) => end[k]! + 0.3 * out[k]! + r * (Math.cos(a) * u[k]! + Math.sin(a) * v[k]!)) as [
      number,
      number,
      number,
    ]
    const free = trees.every((t) => !isInside(t, ...p) && !rayBlocked(t, ...p, ...out, 0, diameter))
    if (free) open++
  }
  return open / PLACES
}
