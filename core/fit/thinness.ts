import { silent, type Report } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { faceNormals } from '../mesh/measure'
import { rayFirst } from '../mesh/ray'
import { SpacedPoints } from '../math/spacedPoints'
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
  /** points on all thin skin that was found, `SPACING` apart: what a brush has to go over */
  spots: Vector3[]
}
/** Thinness as it was measured, or as it would be at another size, where how much is thin is not known. */
export type ThinnessAt = Omit<Thinness, 'thinArea'> & { thinArea: number | null }
/** mm between spots of thin skin */
export const SPACING = 0.75
/** Places of the skin that are looked at round what the samples found: a large mesh is thin in few of them. */
const MOST_LOOKS = 20_000
/** Sub-triangles along an edge of a large face. */
const MOST_ALONG = 24

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
  const places: Thinness['places'] = [],
    seeds: number[] = []
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
      seeds.push(f)
      places.push({ point: c, thickness })
    }
  }
  const all = thinSkin(mesh, tree, { normals, areas }, seeds, limit)
  places.sort((a, b) => a.thickness - b.thickness)
  return {
    thinnest: thinnest === Infinity ? null : thinnest,
    place,
    thinArea: all.isWhole ? all.area : Math.max(all.area, (thin / Math.max(1, n)) * total),
    samples: n,
    places: places.slice(0, 40),
    spots: all.spots,
  }
}

/**
 * All thin skin that hangs together with the faces that samples found, looked at in steps of `SPACING`, from face to face
 * over their corners. `isWhole`: it was followed to its ends.
 */
function thinSkin(
  { positions: p, triangles: t }: Mesh,
  tree: Tree,
  { normals, areas }: ReturnType<typeof faceNormals>,
  seeds: readonly number[],
  limit: number,
): { area: number; spots: Vector3[]; isWhole: boolean } {
  const spots = new SpacedPoints(SPACING)
  if (seeds.length === 0) return { area: 0, spots: [], isWhole: true }
  const { first, faces } = facesOfVertices(t, p.length / 3)
  const seen = new Set(seeds),
    queue = [...seeds]
  let area = 0,
    looks = 0
  for (let q = 0; q < queue.length; q++) {
    const f = queue[q]!
    const inward: Vector3 = [-normals[f * 3]!, -normals[f * 3 + 1]!, -normals[f * 3 + 2]!]
    const points = pointsOn(p, t, f)
    looks += points.length
    if (looks > MOST_LOOKS) return { area, spots: spots.points, isWhole: false }
    const thin = points.filter((c) => thicknessAt(tree, c, inward) < limit)
    if (thin.length === 0) continue
    area += (areas[f]! * thin.length) / points.length
    for (const c of thin) spots.add(...c)
    for (let k = 0; k < 3; k++) {
      const v = t[f * 3 + k]!
      for (let i = first[v]!; i < first[v + 1]!; i++) {
        const g = faces[i]!
        if (seen.has(g)) continue
        seen.add(g)
        queue.push(g)
      }
    }
  }
  return { area, spots: spots.points, isWhole: true }
}

/** Middles of the equal sub-triangles of a face, whose sides are `SPACING` at most. */
function pointsOn(p: Float32Array, t: Uint32Array, f: number): Vector3[] {
  const at = (k: number): Vector3 => {
    const v = t[f * 3 + k]! * 3
    return [p[v]!, p[v + 1]!, p[v + 2]!]
  }
  const [a, b, c] = [at(0), at(1), at(2)]
  const side = (u: Vector3, v: Vector3): number => Math.hypot(u[0] - v[0], u[1] - v[1], u[2] - v[2])
  const n = Math.min(MOST_ALONG, Math.max(1, Math.ceil(Math.max(side(a, b), side(b, c), side(c, a)) / SPACING)))
  const out: Vector3[] = []
  const add = (u: number, v: number): void => {
    const along = (k: 0 | 1 | 2): number => a[k] + (b[k] - a[k]) * u + (c[k] - a[k]) * v
    out.push([along(0), along(1), along(2)])
  }
  for (let i = 0; i < n; i++)
    for (let j = 0; i + j < n; j++) {
      add((i + 1 / 3) / n, (j + 1 / 3) / n)
      if (i + j < n - 1) add((i + 2 / 3) / n, (j + 2 / 3) / n)
    }
  return out
}

/** Faces round each vertex, one after the other: those of `v` from `first[v]` to `first[v + 1]`. */
function facesOfVertices(t: Uint32Array, vertices: number): { first: Uint32Array; faces: Uint32Array } {
  const first = new Uint32Array(vertices + 1),
    faces = new Uint32Array(t.length)
  for (const v of t) first[v + 1]!++
  for (let v = 0; v < vertices; v++) first[v + 1]! += first[v]!
  const next = first.slice()
  for (let h = 0; h < t.length; h++) faces[next[t[h]!]!++] = (h - (h % 3)) / 3
  return { first, faces }
}
