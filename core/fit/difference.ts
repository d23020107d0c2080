import { silent, type Report } from '../answer'
import { ClosestWalk } from '../mesh/closest'
import type { Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'

export interface Difference {
  /** mm per vertex of the first mesh to the other's skin */
  map: Float32Array
  /** mm */
  most: number
  mean: number
  where: [number, number, number]
}

/** How far a mesh has moved away from another, at its vertices: what a repair or smoothing has changed. */
export function difference(mesh: Mesh, other: Mesh, report: Report = silent): Difference {
  const p = mesh.positions
  const map = new Float32Array(p.length / 3)
  const walk = new ClosestWalk(treeOf(other))
  let most = 0,
    sum = 0,
    at = 0
  for (let v = 0; v < map.length; v++) {
    if ((v & 1023) === 0) report(v / map.length)
    const d = walk.to(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)
    map[v] = d
    sum += d
    if (d > most) {
      most = d
      at = v
    }
  }
  return {
    map,
    most,
    mean: map.length > 0 ? sum / map.length : 0,
    where: [p[at * 3] ?? 0, p[at * 3 + 1] ?? 0, p[at * 3 + 2] ?? 0],
  }
}
