import { ClosestWalk } from '../mesh/closest'
import type { Mesh } from '../mesh/mesh'
import { vertexNeighbours } from '../mesh/smooth'
import { treeOf } from '../mesh/tree'

/** How many times longer (or shorter) the edges round each vertex became, in the mean: 1 is as it came. */
export function stretchOf(rest: Mesh, posed: Mesh): Float32Array {
  const p = rest.positions,
    q = posed.positions
  const { starts, near } = vertexNeighbours(rest.triangles, p.length / 3)
  const long = (x: Float32Array, v: number, w: number): number =>
    Math.hypot(x[v * 3]! - x[w * 3]!, x[v * 3 + 1]! - x[w * 3 + 1]!, x[v * 3 + 2]! - x[w * 3 + 2]!)
  return Float32Array.from({ length: p.length / 3 }, (_, v) => {
    let before = 0,
      after = 0
    for (let k = starts[v]!; k < starts[v + 1]!; k++) {
      before += long(p, v, near[k]!)
      after += long(q, v, near[k]!)
    }
    return before > 0 ? after / before : 1
  })
}

/** The same on a copy of the posed sculpt for the screen; the posed and the resting mesh share their faces. */
export function stretchMap(copy: Mesh, posed: Mesh, rest: Mesh): Float32Array {
  const stretch = stretchOf(rest, posed)
  const walk = new ClosestWalk(treeOf(posed)),
    { hit } = walk
  const p = copy.positions
  return Float32Array.from({ length: p.length / 3 }, (_, v) => {
    walk.to(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)
    let sum = 0
    for (let k = 0; k < 3; k++) sum += stretch[posed.triangles[hit.face * 3 + k]!]! / 3
    return sum
  })
}
