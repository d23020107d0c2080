import { closest, closestPoint } from '../mesh/closest'
import { measure } from '../mesh/measure'
import { bounds, keepFaces, type Box, type Mesh } from '../mesh/mesh'
import { shells } from '../mesh/topology'
import type { Vector3 } from '../math/vectors'
import { buildTree } from '../mesh/tree'

export interface LeftOut {
  /** loose pieces that do not go with the kept one */
  count: number
  /** mm³ of them together */
  volume: number
  /** mm, middle of the largest */
  at: [number, number, number] | null
}

/** Pieces that come as near as this belong together, mm: eyes in their sockets, a collar laid on. */
const NEAR = 0.3

/**
 * The piece of a body that lies nearest to a place, with all that touches it or lies in it. What only floats beside it is
 * left out: the lantern's ring when a figure is cut to a bust.
 */
export function mainPiece(mesh: Mesh, place: Vector3): { mesh: Mesh; left: LeftOut } {
  const none: LeftOut = { count: 0, volume: 0, at: null }
  const { shellOf, count } = shells(mesh)
  if (count <= 1) return { mesh, left: none }
  const bodies = Array.from({ length: count }, (_, s) =>
    keepFaces(
      mesh,
      Uint8Array.from(shellOf, (x) => (x === s ? 1 : 0)),
    ),
  )
  const boxes = bodies.map((b) => bounds(b))
  const tree = buildTree(mesh)
  const hit = closest()
  closestPoint(tree, ...place, hit)
  const kept = new Uint8Array(count)
  kept[shellOf[hit.face]!] = 1
  for (const todo = [shellOf[hit.face]!]; todo.length > 0;) {
    const s = todo.pop()!
    const own = buildTree(bodies[s]!)
    for (let o = 0; o < count; o++) {
      if (kept[o] || !meet(boxes[s]!, boxes[o]!)) continue
      const p = bodies[o]!.positions
      const inside = within(boxes[o]!, boxes[s]!)
      let touches = inside
      for (let i = 0; i < p.length && !touches; i += 3)
        touches = closestPoint(own, p[i]!, p[i + 1]!, p[i + 2]!, hit, NEAR) !== Infinity
      if (!touches) continue
      kept[o] = 1
      todo.push(o)
    }
  }
  const out = bodies.flatMap((b, s) => (kept[s] ? [] : [measure(b)])).sort((a, b) => b.volume - a.volume)
  if (out.length === 0) return { mesh, left: none }
  return {
    mesh: keepFaces(
      mesh,
      Uint8Array.from(shellOf, (s) => kept[s]!),
    ),
    left: {
      count: out.length,
      volume: out.reduce((sum, m) => sum + m.volume, 0),
      at: out[0]!.centre,
    },
  }
}

const meet = (a: Box, b: Box): boolean =>
  [0, 1, 2].every((k) => a.min[k]! - NEAR <= b.max[k]! && b.min[k]! - NEAR <= a.max[k]!)
const within = (a: Box, b: Box): boolean => [0, 1, 2].every((k) => a.min[k]! >= b.min[k]! && a.max[k]! <= b.max[k]!)
