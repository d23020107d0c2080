import { bad, good, type Answer } from '../answer'
import { closest, closestPoint } from './closest'
import { symmetricEigen } from '../math/eigen'
import { faceCross } from './face'
import { faceNormals } from './measure'
import { bounds, boxDiagonal, type Mesh } from './mesh'
import { topology } from './topology'
import { cross, type Vector3 } from '../math/vectors'
import { treeOf } from './tree'
import { message } from '../words/message'

export interface Axis {
  /** mm, on the axis beside the pressed place */
  point: [number, number, number]
  /** unit, upward where that says anything */
  direction: [number, number, number]
  /** mm, about the pressed place */
  radius: number
}

/** Faces that turn by more than this from one to the next are another surface. */
const CREASE = Math.cos((35 * Math.PI) / 180)
/** Share of the body's diagonal within which skin counts. */
const REACH = 0.25
const MAX_FACES = 40_000
/** Normals may miss the axis by this share of the radius, in the mean, and the skin still be round. */
const OUT_OF_ROUND = 0.15
/** Skin whose mean normal is shorter than a unit by less than this is flat. */
const FLAT = 0.01

/**
 * The axis about which the skin round a pressed place is turned: of a peg, a hole, a neck, a socle. The skin without
 * creases round the place is taken. The normals of a turned body all meet its axis, so the axis is the line whose linear
 * complex fits theirs best (Pottmann and Wallner 2001, chapter 3; Pottmann, Lee and Randrup 1998).
 */
export function axisAt(mesh: Mesh, place: Vector3): Answer<Axis> {
  const hit = closest()
  closestPoint(treeOf(mesh), place[0], place[1], place[2], hit)
  const patch = smoothPatch(mesh, hit.face, place)
  const { positions: p } = mesh
  // Sums of outer products of (place × normal, normal): Plücker coordinates of the normals' lines about the pressed place.
  const n11 = new Float64Array(9),
    n12 = new Float64Array(9),
    n22 = new Float64Array(9)
  const mean = [0, 0, 0]
  let sum = 0
  const line = new Float64Array(6)
  for (const [v, [x, y, z]] of cornerNormals(mesh, patch)) {
    const w = Math.hypot(x, y, z)
    if (w === 0) continue
    sum += w
    const m = [0, 1, 2].map((k) => p[v * 3 + k]! - place[k]!) as unknown as Vector3
    const n: Vector3 = [x / w, y / w, z / w]
    line.set([...cross(m, n), ...n])
    for (let i = 0; i < 3; i++) {
      mean[i]! += w * n[i]!
      for (let j = 0; j < 3; j++) {
        n11[i * 3 + j]! += w * line[i]! * line[j]!
        n12[i * 3 + j]! += w * line[i]! * line[j + 3]!
        n22[i * 3 + j]! += w * line[i + 3]! * line[j + 3]!
      }
    }
  }
  const none = (): ReturnType<typeof bad> => bad('no-axis', message('problems.roundness.theSurfaceThereIsNot'))
  // A flat place is turned about any axis across it.
  if (1 - Math.hypot(...mean) / sum < FLAT) return none()
  const inverse = pseudoInverse(n22)
  const reduced = minus(n11, times(times(n12, inverse), transpose(n12)))
  const { values, vectors } = symmetricEigen(upper(reduced))
  let d = vectors[0]
  // The moment that goes with the direction; what of it lies along the axis would be a screw's pitch.
  const moment = apply(times(inverse, transpose(n12)), d).map((v) => -v) as unknown as Vector3
  const point = cross(d, moment)
  const radius = Math.hypot(...cross(d, point))
  const off = Math.sqrt(Math.max(0, values[0]) / sum)
  // A ball is turned about any axis through its middle: then the second best is as good as the best.
  if (
    !(radius > 1e-6) ||
    off > OUT_OF_ROUND * radius ||
    values[1] < 4 * Math.max(0, values[0]) + 1e-4 * radius * radius * sum
  )
    return none()
  if (d[2] < -1e-6 || (Math.abs(d[2]) <= 1e-6 && d[0] + d[1] < 0)) d = [-d[0], -d[1], -d[2]]
  return good({ point: point.map((v, k) => v + place[k]!) as [number, number, number], direction: [...d], radius })
}

/** Normals of the patch's corners by its own faces only, as long as the area round each; a crease beside it bends none. */
function cornerNormals(
  { positions: p, triangles: t }: Mesh,
  patch: readonly number[],
): Map<number, [number, number, number]> {
  const out = new Map<number, [number, number, number]>()
  const c = new Float64Array(3)
  for (const f of patch) {
    faceCross(p, t[f * 3]! * 3, t[f * 3 + 1]! * 3, t[f * 3 + 2]! * 3, c)
    for (let k = 0; k < 3; k++) {
      const v = t[f * 3 + k]!
      const n = out.get(v) ?? [0, 0, 0]
      for (let i = 0; i < 3; i++) n[i]! += c[i]! / 6
      out.set(v, n)
    }
  }
  return out
}

type Square = Float64Array
const times = (a: Square, b: Square): Square =>
  Float64Array.from(a, (_, i) => {
    const r = Math.floor(i / 3) * 3,
      c = i % 3
    return a[r]! * b[c]! + a[r + 1]! * b[c + 3]! + a[r + 2]! * b[c + 6]!
  })
const transpose = (a: Square): Square => Float64Array.from(a, (_, i) => a[(i % 3) * 3 + Math.floor(i / 3)]!)
const minus = (a: Square, b: Square): Square => a.map((v, i) => v - b[i]!)
const apply = (a: Square, v: Vector3): Vector3 =>
  [0, 3, 6].map((r) => a[r]! * v[0] + a[r + 1]! * v[1] + a[r + 2]! * v[2]) as unknown as Vector3
const upper = (a: Square): [number, number, number, number, number, number] => [
  a[0]!,
  a[1]!,
  a[2]!,
  a[4]!,
  a[5]!,
  a[8]!,
]

/** Along a cylinder the normals span a plane only, and their sum of products has no inverse. */
function pseudoInverse(a: Square): Square {
  const { values, vectors } = symmetricEigen(upper(a))
  const out = new Float64Array(9)
  values.forEach((v, k) => {
    if (v < 1e-3 * values[2]) return
    for (let i = 0; i < 9; i++) out[i]! += (vectors[k]![Math.floor(i / 3)]! * vectors[k]![i % 3]!) / v
  })
  return out
}

/** Faces reached from one without crossing a crease, no farther than the reach. */
function smoothPatch(mesh: Mesh, seed: number, place: Vector3): number[] {
  const { twin } = topology(mesh)
  const { positions: p, triangles: t } = mesh
  const { normals } = faceNormals(mesh)
  const reach = REACH * boxDiagonal(bounds(mesh))
  const seen = new Uint8Array(t.length / 3)
  seen[seed] = 1
  const out = [seed]
  for (let i = 0; i < out.length && out.length < MAX_FACES; i++) {
    const f = out[i]!
    for (let k = 0; k < 3; k++) {
      const h = twin[f * 3 + k]!
      if (h < 0) continue
      const g = (h / 3) | 0
      if (seen[g]) continue
      const turn =
        normals[f * 3]! * normals[g * 3]! +
        normals[f * 3 + 1]! * normals[g * 3 + 1]! +
        normals[f * 3 + 2]! * normals[g * 3 + 2]!
      if (turn < CREASE) continue
      const v = t[g * 3]! * 3
      if (Math.hypot(p[v]! - place[0], p[v + 1]! - place[1], p[v + 2]! - place[2]) > reach) continue
      seen[g] = 1
      out.push(g)
    }
  }
  return out
}
