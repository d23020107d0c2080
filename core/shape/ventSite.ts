import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { rayAll } from '../mesh/ray'
import { apply3, fromQuaternion, type Vector3 } from '../math/vectors'
import { treeOf } from '../mesh/tree'
import { sphereDirections } from '../math/directions'
import { probe, type DrilledHole } from './drill'
import { turnedToPlate } from './orient'
import { message } from '../words/message'

export interface VentWish {
  /** in the closed end of the cup, on the body as it stands with its supports, mm */
  point: Vector3
  /** how the body was turned, and how its supports then moved it */
  quaternion: readonly [number, number, number, number]
  shift: Vector3
  diameter: number
}

/**
 * A hole that opens a suction cup at its closed end: the shortest way from there through the wall that can be drilled.
 *
 * @param mesh the hollow body before it was turned, which is the frame the hole is given in
 */
export function ventSite(mesh: Mesh, wish: VentWish): Answer<DrilledHole> {
  const [x, y, z, w] = wish.quaternion
  const { offset } = turnedToPlate(mesh, wish.quaternion)
  const turned = [0, 1, 2].map((k) => wish.point[k]! - wish.shift[k]! - offset[k]!) as unknown as Vector3
  const from = apply3(fromQuaternion([-x, -y, -z, w]), turned)
  const tree = treeOf(mesh)
  let best: DrilledHole | null = null
  const at = (d: Vector3, t: number): Vector3 => [from[0] + d[0] * t, from[1] + d[1] * t, from[2] + d[2] * t]
  for (const d of sphereDirections(300)) {
    // Through one wall: out of the cavity, or from a pocket of the outer skin into the cavity behind it.
    const hits = rayAll(tree, from[0], from[1], from[2], d[0], d[1], d[2], 0, 60)
    if (hits.length < 2 || hits[0]!.leaving || !hits[1]!.leaving || hits[1]!.t > 25) continue
    const outward = probe(tree, {
      point: at(d, hits[1]!.t),
      direction: [-d[0], -d[1], -d[2]],
      diameter: wish.diameter,
    })
    const hole = outward.ok ? outward : probe(tree, { point: at(d, hits[0]!.t), direction: d, diameter: wish.diameter })
    if (hole.ok && (!best || cost(hole.value, from) < cost(best, from))) best = hole.value
  }
  return best ? good(best) : bad('no-vent', message('problems.ventSite.noDrillGetsFromThere'))
}

const cost = (h: DrilledHole, from: Vector3): number =>
  h.depth + 0.3 * Math.hypot(h.point[0] - from[0], h.point[1] - from[1], h.point[2] - from[2])
