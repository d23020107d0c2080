import { rayAll } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import type { Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'

/**
 * Where a joint lies that is pointed at on the skin: half way through the body there, straight in. The place itself when
 * the way in meets nothing.
 */
export function inwardMiddle(mesh: Mesh, point: Vector3, normal: Vector3): [number, number, number] {
  const e = 0.02
  const from = point.map((v, k) => v + e * normal[k]!) as [number, number, number]
  const hits = rayAll(treeOf(mesh), ...from, -normal[0], -normal[1], -normal[2])
  const out = hits.find((h) => h.leaving && h.t > 4 * e)
  const depth = out ? (out.t - e) / 2 : 0
  return point.map((v, k) => v - depth * normal[k]!) as [number, number, number]
}
