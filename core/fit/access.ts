import { silent, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { concatenate, type Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { treeOf, type Tree } from '../mesh/tree'
import { sphereDirections } from '../math/directions'

/** A painting tool, as the straight ways to the skin that it needs. */
interface Tool {
  /** cosine of the widest angle to the normal at which it still works */
  slant: number
  /** how many of the directions must be free: a nozzle is wider than a ray */
  free: number
}
const BRUSH: Tool = { slant: Math.cos((75 * Math.PI) / 180), free: 1 }
const AIRBRUSH: Tool = { slant: Math.cos((50 * Math.PI) / 180), free: 2 }
/** Of 128 directions each stands for a cone of some 10° to all sides. */
const DIRECTIONS = sphereDirections(128)
/** How many places are looked from. */
const PLACES = 1500
/** mm: skin that another part is nearer to is the joint's own face, and is not painted. */
const JOINT = 1
/** mm off the skin from where one looks */
const OFF = 0.05

export interface AccessReport {
  /** mm² that are painted: without the joints' faces */
  area: number
  /** mm² that each tool reaches while the part is by itself */
  brush: number
  airbrush: number
  /** mm² of those that it no longer reaches once the others are joined to it */
  brushLost: number
  airbrushLost: number
}

/**
 * What a brush and an airbrush reach of a part by itself, and what of that is lost when others are joined to it, by rays from
 * places spread evenly over its skin. Accuracy is that of the sampling, about 1 % of the area.
 *
 * @param others parts as they stand to it once joined
 */
export function accessOf(part: Mesh, others: readonly Mesh[], report: Report = silent): AccessReport {
  const own = treeOf(part),
    around = others.length > 0 ? treeOf(concatenate(others)) : null
  const out: AccessReport = { area: 0, brush: 0, airbrush: 0, brushLost: 0, airbrushLost: 0 }
  const hit = closest()
  for (const { at, look, each } of placesOn(part, report)) {
    if (around && closestPoint(around, ...at, hit, JOINT) !== Infinity) continue
    out.area += each
    for (const [tool, reached, lost] of [
      [BRUSH, 'brush', 'brushLost'],
      [AIRBRUSH, 'airbrush', 'airbrushLost'],
    ] as const) {
      if (!reaches(tool, at, look, own, null)) continue
      out[reached] += each
      if (around && !reaches(tool, at, look, own, around)) out[lost] += each
    }
  }
  return out
}

/** Share of a region, 0 to 1, that each tool reaches while the part is by itself, and how much was looked at. */
export interface RegionAccess {
  region: number
  /** mm² */
  area: number
  brush: number
  airbrush: number
}

/**
 * The same for each region of a part. A region is looked at from as many places as its share of the skin gives it: of one
 * that is a hundredth of it the shares are good to about a tenth.
 *
 * @param labels region of each vertex
 */
export function regionAccess(part: Mesh, labels: Uint8Array, report: Report = silent): RegionAccess[] {
  const own = treeOf(part)
  const by = new Map<number, RegionAccess>()
  for (const { at, look, each, vertex } of placesOn(part, report)) {
    const region = labels[vertex]!
    let r = by.get(region)
    if (!r) by.set(region, (r = { region, area: 0, brush: 0, airbrush: 0 }))
    r.area += each
    if (reaches(BRUSH, at, look, own, null)) r.brush += each
    if (reaches(AIRBRUSH, at, look, own, null)) r.airbrush += each
  }
  return [...by.values()]
    .map((r) => ({ ...r, brush: r.brush / r.area, airbrush: r.airbrush / r.area }))
    .sort((a, b) => a.region - b.region)
}

/** Regions that lie on several parts as one each. */
export function mergedAccess(list: readonly RegionAccess[]): RegionAccess[] {
  const by = new Map<number, RegionAccess>()
  for (const r of list) {
    const b = by.get(r.region)
    const area = r.area + (b?.area ?? 0)
    const mean = (of: 'brush' | 'airbrush'): number => (r[of] * r.area + (b ? b[of] * b.area : 0)) / area
    by.set(r.region, { region: r.region, area, brush: mean('brush'), airbrush: mean('airbrush') })
  }
  return [...by.values()]
}

interface Place {
  /** a little off the skin, and the skin's normal there */
  at: [number, number, number]
  look: [number, number, number]
  /** mm² that it stands for */
  each: number
  /** the nearest corner of its face */
  vertex: number
}

/** Places spread evenly over a skin by area. */
function* placesOn(part: Mesh, report: Report): Generator<Place> {
  const { positions: p, triangles: t } = part
  const { normals, areas } = faceNormals(part)
  const each = areas.reduce((s, a) => s + a, 0) / PLACES
  let due = each / 2,
    n = 0
  for (let f = 0; f < areas.length; f++) {
    for (; due < areas[f]!; due += each) {
      if ((n++ & 63) === 0) report(n / PLACES)
      const [u, v] = inTriangle(n),
        w = 1 - u - v
      const [a, b, c] = [t[f * 3]!, t[f * 3 + 1]!, t[f * 3 + 2]!]
      const look: Place['look'] = [normals[f * 3]!, normals[f * 3 + 1]!, normals[f * 3 + 2]!]
      const at = [0, 1, 2].map((k) => p[a * 3 + k]! * w + p[b * 3 + k]! * u + p[c * 3 + k]! * v + OFF * look[k]!)
      yield { at: at as Place['at'], look, each, vertex: w >= u && w >= v ? a : u >= v ? b : c }
    }
    due -= areas[f]!
  }
}

function reaches(
  { slant, free }: Tool,
  [x, y, z]: readonly [number, number, number],
  [nx, ny, nz]: readonly [number, number, number],
  own: Tree,
  around: Tree | null,
): boolean {
  let found = 0
  for (const [dx, dy, dz] of DIRECTIONS) {
    if (dx * nx + dy * ny + dz * nz < slant) continue
    if (rayBlocked(own, x, y, z, dx, dy, dz)) continue
    if (around && rayBlocked(around, x, y, z, dx, dy, dz)) continue
    if (++found >= free) return true
  }
  return false
}

/** The n-th place of an even sequence in a triangle (R2, folded over the diagonal). */
function inTriangle(n: number): [number, number] {
  const u = (0.5 + n * 0.7548776662466927) % 1,
    v = (0.5 + n * 0.5698402909980532) % 1
  return u + v <= 1 ? [u, v] : [1 - u, 1 - v]
}
