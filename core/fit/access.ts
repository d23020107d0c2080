import { silent, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { concatenate, type Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { treeOf, type Tree } from '../mesh/tree'
import { sphereDirections } from '../shape/directions'

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
  const { normals, areas } = faceNormals(part)
  const total = areas.reduce((s, a) => s + a, 0),
    each = total / PLACES
  const out: AccessReport = { area: 0, brush: 0, airbrush: 0, brushLost: 0, airbrushLost: 0 }
  const hit = closest()
  let due = each / 2,
    n = 0
  const { positions: p, triangles: t } = part
  for (let f = 0; f < areas.length; f++) {
    for (; due < areas[f]!; due += each) {
      if ((n++ & 63) === 0) report(n / PLACES)
      const [u, v] = inTriangle(n)
      const at = [0, 1, 2].map(
        (c) =>
          p[t[f * 3]! * 3 + c]! * (1 - u - v) +
          p[t[f * 3 + 1]! * 3 + c]! * u +
          p[t[f * 3 + 2]! * 3 + c]! * v +
          OFF * normals[f * 3 + c]!,
      ) as [number, number, number]
      if (around && closestPoint(around, ...at, hit, JOINT) !== Infinity) continue
      out.area += each
      const look = [normals[f * 3]!, normals[f * 3 + 1]!, normals[f * 3 + 2]!] as const
      for (const [tool, reached, lost] of [
        [BRUSH, 'brush', 'brushLost'],
        [AIRBRUSH, 'airbrush', 'airbrushLost'],
      ] as const) {
        if (!reaches(tool, at, look, own, null)) continue
        out[reached] += each
        if (around && !reaches(tool, at, look, own, around)) out[lost] += each
      }
    }
    due -= areas[f]!
  }
  return out
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
