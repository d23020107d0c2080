import type { Mesh } from '../../mesh/mesh'
import { topology } from '../../mesh/topology'
import { Factor } from '../../math/sparseFactor'
import type { Sparse } from '../../math/sparse'
import { farthest, openVertices, pathsTo } from './cutOpen'

export interface Flat {
  /** mm, 2 per vertex */
  at: Float64Array
  /** per face: most and least stretch, 1 is true to size */
  most: Float32Array
  least: Float32Array
  /** as-rigid-as-possible energy over the area: mean square of how far faces are from rigid */
  energy: number
  /** faces that came to lie upside down */
  flipped: number
}

/** Share by which a face is stretched or pressed at worst. */
export const offOf = ({ most, least }: Pick<Flat, 'most' | 'least'>, face: number): number =>
  Math.max(most[face]! - 1, 1 / Math.max(1e-6, least[face]!) - 1)

const ROUNDS = 300
/** A round that lowers the energy by less than this share of it is the last, or one that finds next to none. */
const SETTLED = 2e-3,
  NONE = 1e-13

/**
 * A disc of flattened skin with least distortion: conformal at first (least squares, Lévy et al. 2002), then as rigid as
 * possible (Liu et al. 2008): every face turned to fit best, then all of them brought together by one linear system,
 * again and again. What can be unrolled comes out exact.
 *
 * @param mesh connected, a topological disc
 */
export function flatten(mesh: Mesh): Flat {
  const faces = localFaces(mesh)
  const at = conformal(mesh, faces)
  toSize(mesh, faces, at)
  return asRigidAsPossible(mesh, faces, at)
}

/** Angles alone leave the size open: the area is the skin's. */
function toSize({ triangles: t }: Mesh, faces: Float64Array, at: Float64Array): void {
  let skin = 0,
    sheet = 0
  for (let f = 0; f < t.length; f += 3) {
    const [i, j, k] = [2 * t[f]!, 2 * t[f + 1]!, 2 * t[f + 2]!]
    skin += faces[f]! * faces[f + 2]!
    sheet += (at[j]! - at[i]!) * (at[k + 1]! - at[i + 1]!) - (at[k]! - at[i]!) * (at[j + 1]! - at[i + 1]!)
  }
  const scale = sheet > 0 ? Math.sqrt(skin / sheet) : 1
  for (let i = 0; i < at.length; i++) at[i]! *= scale
}

/** Per face its corners in its own plane, mm: (0, 0), (x1, 0), (x2, y2), as 3 numbers. */
function localFaces({ positions: p, triangles: t }: Mesh): Float64Array {
  const out = new Float64Array(t.length)
  for (let f = 0; f < t.length; f += 3) {
    const [a, b, c] = [3 * t[f]!, 3 * t[f + 1]!, 3 * t[f + 2]!]
    const u = [0, 1, 2].map((k) => p[b + k]! - p[a + k]!),
      v = [0, 1, 2].map((k) => p[c + k]! - p[a + k]!)
    const l = Math.hypot(...u) || 1e-9
    const x2 = (u[0]! * v[0]! + u[1]! * v[1]! + u[2]! * v[2]!) / l
    out[f] = l
    out[f + 1] = x2
    // No face is so thin that its own shape is lost.
    out[f + 2] = Math.max(1e-7 * l, Math.sqrt(Math.max(0, v[0]! ** 2 + v[1]! ** 2 + v[2]! ** 2 - x2 * x2)))
  }
  return out
}
const corner = (faces: Float64Array, f: number, k: number): [number, number] =>
  k === 0 ? [0, 0] : k === 1 ? [faces[f]!, 0] : [faces[f + 1]!, faces[f + 2]!]

/** Rows of a symmetric matrix under construction. */
class Rows {
  readonly rows: Map<number, number>[]
  constructor(n: number) {
    this.rows = Array.from({ length: n }, () => new Map<number, number>())
  }
  add(i: number, j: number, v: number): void {
    const row = this.rows[i]!
    row.set(j, (row.get(j) ?? 0) + v)
  }
  /** Without the rows and columns that are held; their numbers in what is left, or −1. */
  without(held: ReadonlySet<number>): { matrix: Sparse; place: Int32Array } {
    const n = this.rows.length
    const place = new Int32Array(n).fill(-1)
    let m = 0
    for (let i = 0; i < n; i++) if (!held.has(i)) place[i] = m++
    const diagonal = new Float64Array(m),
      starts = new Uint32Array(m + 1)
    const columns: number[] = [],
      values: number[] = []
    for (let i = 0; i < n; i++) {
      const r = place[i]!
      if (r < 0) continue
      for (const [j, v] of this.rows[i]!) {
        if (j === i) diagonal[r] = v
        else if (place[j]! >= 0) {
          columns.push(place[j]!)
          values.push(v)
        }
      }
      starts[r + 1] = columns.length
    }
    return {
      matrix: { diagonal, starts, columns: new Uint32Array(columns), values: new Float64Array(values) },
      place,
    }
  }
}

/** Two vertices are held at their distance along the rim's edges; the angles of all faces are kept as well as can be. */
function conformal(mesh: Mesh, faces: Float64Array): Float64Array {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const rim = openVertices(mesh, topology(mesh).twin)
  const one = rim.values().next().value ?? 0
  const far = pathsTo(mesh, [one]).far
  let other = farthest(far)
  for (const v of rim) if (!rim.has(other) || far[v]! > far[other]!) other = v
  const rows = new Rows(2 * n)
  for (let f = 0; f < t.length; f += 3) {
    const double = faces[f]! * faces[f + 2]!
    // W of each corner: the side opposite to it, as a complex number.
    const w = [0, 1, 2].map((k) => {
      const a = corner(faces, f, (k + 1) % 3),
        b = corner(faces, f, (k + 2) % 3)
      return [b[0] - a[0], b[1] - a[1]] as const
    })
    for (let j = 0; j < 3; j++)
      for (let k = 0; k < 3; k++) {
        const re = (w[j]![0] * w[k]![0] + w[j]![1] * w[k]![1]) / double,
          im = (w[j]![0] * w[k]![1] - w[j]![1] * w[k]![0]) / double
        const a = t[f + j]!,
          b = t[f + k]!
        rows.add(2 * a, 2 * b, re)
        rows.add(2 * a + 1, 2 * b + 1, re)
        if (j === k) continue
        rows.add(2 * a, 2 * b + 1, -im)
        rows.add(2 * a + 1, 2 * b, im)
      }
  }
  const held = new Map([
    [2 * one, 0],
    [2 * one + 1, 0],
    [2 * other, far[other]! || 1],
    [2 * other + 1, 0],
  ])
  const { matrix, place } = rows.without(new Set(held.keys()))
  const b = new Float64Array(matrix.diagonal.length),
    x = new Float64Array(b.length)
  for (const [j, value] of held)
    if (value !== 0) for (const [i, v] of rows.rows[j]!) if (place[i]! >= 0) b[place[i]!]! -= v * value
  new Factor(matrix).solve(b, x)
  return Float64Array.from({ length: 2 * n }, (_, i) => held.get(i) ?? x[place[i]!]!)
}

/** Per half-edge its vector in its face's own plane, from its end back to its start: 2 numbers. */
function restEdges(faces: Float64Array): Float64Array {
  const out = new Float64Array(2 * faces.length)
  for (let f = 0; f < faces.length; f += 3)
    for (let k = 0; k < 3; k++) {
      const p = corner(faces, f, k),
        q = corner(faces, f, (k + 1) % 3)
      out[2 * (f + k)] = p[0] - q[0]
      out[2 * (f + k) + 1] = p[1] - q[1]
    }
  return out
}

function asRigidAsPossible(mesh: Mesh, faces: Float64Array, start: Float64Array): Flat {
  const { triangles: t } = mesh
  const n = start.length / 2
  const rest = restEdges(faces)
  // cot of the angle opposite to each side, by half-edge from its first corner.
  const cot = new Float64Array(t.length)
  for (let f = 0; f < t.length; f += 3)
    for (let k = 0; k < 3; k++) {
      const o = corner(faces, f, (k + 2) % 3),
        a = corner(faces, f, k),
        b = corner(faces, f, (k + 1) % 3)
      const [ux, uy, vx, vy] = [a[0] - o[0], a[1] - o[1], b[0] - o[0], b[1] - o[1]]
      const area2 = faces[f]! * faces[f + 2]!
      cot[f + k] = (ux * vx + uy * vy) / area2
    }
  const rows = new Rows(n)
  for (let f = 0; f < t.length; f += 3)
    for (let k = 0; k < 3; k++) {
      const a = t[f + k]!,
        b = t[f + ((k + 1) % 3)]!,
        c = cot[f + k]!
      rows.add(a, a, c)
      rows.add(b, b, c)
      rows.add(a, b, -c)
      rows.add(b, a, -c)
    }
  // One vertex stays; the rest follows from it.
  const hold = t[0]!
  const { matrix, place } = rows.without(new Set([hold]))
  const factor = new Factor(matrix)
  const m = matrix.diagonal.length
  const at = start.slice()
  const bx = new Float64Array(m),
    by = new Float64Array(m),
    x = new Float64Array(m),
    y = new Float64Array(m)
  const rotation = new Float64Array((t.length / 3) * 2)
  let area = 0
  for (let f = 0; f < t.length; f += 3) area += (faces[f]! * faces[f + 2]!) / 2
  let before = Infinity
  for (let round = 0; round < ROUNDS; round++) {
    const energy = turnFaces(t, rest, cot, at, rotation)
    if (before - energy < SETTLED * energy || energy < NONE * area) break
    before = energy
    bx.fill(0)
    by.fill(0)
    for (let f = 0; f < t.length; f += 3) {
      const c = rotation[(f / 3) * 2]!,
        s = rotation[(f / 3) * 2 + 1]!
      for (let k = 0; k < 3; k++) {
        const dx = rest[2 * (f + k)]!,
          dy = rest[2 * (f + k) + 1]!,
          w = cot[f + k]!
        const gx = w * (c * dx - s * dy),
          gy = w * (s * dx + c * dy)
        const a = place[t[f + k]!]!,
          b = place[t[f + ((k + 1) % 3)]!]!
        if (a >= 0) {
          bx[a]! += gx
          by[a]! += gy
        }
        if (b >= 0) {
          bx[b]! -= gx
          by[b]! -= gy
        }
      }
    }
    // What is held pulls on its neighbours.
    const hx = at[2 * hold]!,
      hy = at[2 * hold + 1]!
    for (const [i, v] of rows.rows[hold]!)
      if (place[i]! >= 0) {
        bx[place[i]!]! -= v * hx
        by[place[i]!]! -= v * hy
      }
    for (let v = 0; v < n; v++)
      if (place[v]! >= 0) {
        x[place[v]!] = at[2 * v]!
        y[place[v]!] = at[2 * v + 1]!
      }
    factor.solve(bx, x)
    factor.solve(by, y)
    for (let v = 0; v < n; v++)
      if (place[v]! >= 0) {
        at[2 * v] = x[place[v]!]!
        at[2 * v + 1] = y[place[v]!]!
      }
  }
  return { at, ...stretchOf(t, faces, at), energy: before / Math.max(1e-12, area) }
}

/** The rotation that fits each face best (closest in the plane); returns the energy that is left. */
function turnFaces(
  t: Uint32Array,
  rest: Float64Array,
  cot: Float64Array,
  at: Float64Array,
  rotation: Float64Array,
): number {
  let energy = 0
  for (let f = 0; f < t.length; f += 3) {
    let a = 0,
      b = 0
    for (let k = 0; k < 3; k++) {
      const dx = rest[2 * (f + k)]!,
        dy = rest[2 * (f + k) + 1]!
      const i = 2 * t[f + k]!,
        j = 2 * t[f + ((k + 1) % 3)]!
      const ux = at[i]! - at[j]!,
        uy = at[i + 1]! - at[j + 1]!
      a += cot[f + k]! * (ux * dx + uy * dy)
      b += cot[f + k]! * (uy * dx - ux * dy)
    }
    const l = Math.hypot(a, b) || 1
    const c = (rotation[(f / 3) * 2] = a / l),
      s = (rotation[(f / 3) * 2 + 1] = b / l)
    for (let k = 0; k < 3; k++) {
      const dx = rest[2 * (f + k)]!,
        dy = rest[2 * (f + k) + 1]!
      const i = 2 * t[f + k]!,
        j = 2 * t[f + ((k + 1) % 3)]!
      const ex = at[i]! - at[j]! - (c * dx - s * dy),
        ey = at[i + 1]! - at[j + 1]! - (s * dx + c * dy)
      energy += (cot[f + k]! * (ex * ex + ey * ey)) / 2
    }
  }
  return energy
}

/** Singular values of the map of each face from its own plane to the sheet. */
function stretchOf(
  t: Uint32Array,
  faces: Float64Array,
  at: Float64Array,
): { most: Float32Array; least: Float32Array; flipped: number } {
  const most = new Float32Array(t.length / 3),
    least = new Float32Array(t.length / 3)
  let flipped = 0
  for (let f = 0; f < t.length; f += 3) {
    const [i, j, k] = [2 * t[f]!, 2 * t[f + 1]!, 2 * t[f + 2]!]
    const x1 = faces[f]!,
      x2 = faces[f + 1]!,
      y2 = faces[f + 2]!
    const a = (at[j]! - at[i]!) / x1,
      c = (at[j + 1]! - at[i + 1]!) / x1
    const b = (at[k]! - at[i]! - a * x2) / y2,
      d = (at[k + 1]! - at[i + 1]! - c * x2) / y2
    const det = a * d - b * c
    if (det < 0) flipped++
    const sum = a * a + b * b + c * c + d * d
    const root = Math.sqrt(Math.max(0, sum * sum - 4 * det * det))
    most[f / 3] = Math.sqrt(Math.max(0, (sum + root) / 2))
    least[f / 3] = Math.sqrt(Math.max(0, (sum - root) / 2))
  }
  return { most, least, flipped }
}
