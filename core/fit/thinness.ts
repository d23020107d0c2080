import { silent, type Report } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { faceNormals } from '../mesh/measure'
import { rayFirst } from '../mesh/ray'
import type { Vector3 } from '../math/vectors'
import { treeOf, type Tree } from '../mesh/tree'
import { coneDirections } from '../math/directions'

export interface Thinness {
  /** mm; median of an inward cone at the thinnest spot; null where nowhere enough rays met a far skin */
  thinnest: number | null
  place: [number, number, number]
  /** mm² of skin whose body is thinner than the limit */
  thinArea: number
  samples: number
  /** thin spots, thinnest first, at most 40 */
  places: { point: [number, number, number]; thickness: number }[]
}

/**
 * Median depth of the body under a place of its skin, along rays in a cone; NaN when too few of them meet the far skin.
 *
 * @param inward unit
 */
export function thicknessAt(tree: Tree, c: Vector3, inward: Vector3): number {
  const lengths: number[] = []
  for (const ray of coneDirections(inward, CONE)) {
    const hit = rayFirst(
      tree,
      c[0] + inward[0] * 1e-4,
      c[1] + inward[1] * 1e-4,
      c[2] + inward[2] * 1e-4,
      ray[0],
      ray[1],
      ray[2],
      1e-4,
    )
    // Rays that meet the skin from outside have slipped through a crack; they say nothing of the body.
    // Slanted rays count by their depth along the axis, so that a plate has its true thickness.
    if (hit?.leaving) lengths.push(hit.t * (ray[0] * inward[0] + ray[1] * inward[1] + ray[2] * inward[2]))
  }
  if (lengths.length < 4) return NaN
  lengths.sort((a, b) => a - b)
  return lengths[lengths.length >> 1]!
}

const CONE = (30 * Math.PI) / 180

/**
 * Local thickness by the median length of rays in an inward cone (Shapira, Shamir and Cohen-Or 2008), from
 * area-weighted samples of the skin.
 *
 * @param limit mm; thinner than this is reported
 */
export function thinness(mesh: Mesh, limit: number, report: Report = silent, samples = 6000): Thinness {
  const tree = treeOf(mesh)
  const { positions: p, triangles: t } = mesh
  const { normals, areas } = faceNormals(mesh)
  const total = areas.reduce((a, b) => a + b, 0)
  const places: Thinness['places'] = []
  let due = 0,
    n = 0,
    thin = 0,
    thinnest = Infinity
  let place: [number, number, number] = [0, 0, 0]
  for (let f = 0; f < areas.length; f++) {
    due += (areas[f]! / total) * samples
    if (due < 1) continue
    due %= 1
    if ((n++ & 127) === 0) report(f / areas.length)
    const c = [0, 1, 2].map(
      (k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3,
    ) as [number, number, number]
    const d = [-normals[f * 3]!, -normals[f * 3 + 1]!, -normals[f * 3 + 2]!] as const
    const thickness = thicknessAt(tree, c, d)
    if (thickness !== thickness) continue
    if (thickness < thinnest) {
      thinnest = thickness
      place = c
    }
    if (thickness < limit) {
      thin++
      places.push({ point: c, thickness })
    }
  }
  places.sort((a, b) => a.thickness - b.thickness)
  return {
    thinnest: thinnest === Infinity ? null : thinnest,
    place,
    thinArea: (thin / Math.max(1, n)) * total,
    samples: n,
    places: places.slice(0, 40),
  }
}
