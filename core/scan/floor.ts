import { evenNumbers } from '../math/random'
import { unit, type Vector3 } from '../math/vectors'

export interface Floor {
  point: [number, number, number]
  /** unit, up from the floor to the object */
  normal: [number, number, number]
  /** of the points, how many lie on it */
  share: number
  /** mm; how far the points on it scatter */
  scatter: number
}

/** A plane with fewer of the points than this is not taken for the floor. */
const LEAST_SHARE = 0.06
const TRIES = 400

/**
 * The flat that the object stands on, stuck to a scan: the plane on which most points lie while nearly all others lie
 * on one side of it (RANSAC, Fischler and Bolles 1981, then a least-squares fit). Null when there is none.
 *
 * @param positions 3 per point
 */
export function findFloor(positions: Float32Array): Floor | null {
  const n = positions.length / 3
  if (n < 50) return null
  const even = evenNumbers(n)
  const step = Math.max(1, Math.floor(n / 20_000))
  const sample: number[] = []
  for (let i = 0; i < n; i += step) sample.push(i * 3)
  const slack = extent(positions) * 0.004
  let best: { plane: [number, number, number, number]; on: number } | null = null
  for (let t = 0; t < TRIES; t++) {
    const pick = (): number => sample[Math.floor(even() * sample.length)]!
    const plane = through(positions, pick(), pick(), pick())
    if (!plane) continue
    const count = sides(positions, sample, plane, slack)
    if (count.on < LEAST_SHARE * sample.length || Math.min(count.above, count.below) > 0.02 * sample.length) continue
    if (!best || count.on > best.on) best = { plane, on: count.on }
  }
  if (!best) return null
  // Points on it, fitted again: three picked ones carry their own noise.
  let plane = best.plane
  for (let round = 0; round < 3; round++) plane = fitted(positions, sample, plane, slack) ?? plane
  const count = sides(positions, sample, plane, slack)
  if (count.below > count.above) plane = [-plane[0], -plane[1], -plane[2], -plane[3]]
  let squares = 0,
    on = 0
  const middle = [0, 0, 0]
  for (const i of sample) {
    const d = height(positions, i, plane)
    if (Math.abs(d) > slack) continue
    squares += d * d
    on++
    for (let k = 0; k < 3; k++) middle[k]! += positions[i + k]!
  }
  return {
    point: middle.map((v) => v / on) as [number, number, number],
    normal: [plane[0], plane[1], plane[2]],
    share: on / sample.length,
    scatter: Math.sqrt(squares / on),
  }
}

/** Which points lie more than `margin` mm above the plane. */
export function above(positions: Float32Array, point: Vector3, normal: Vector3, margin: number): Uint8Array {
  const out = new Uint8Array(positions.length / 3)
  const d = -(normal[0] * point[0] + normal[1] * point[1] + normal[2] * point[2])
  for (let i = 0; i < out.length; i++)
    out[i] = height(positions, i * 3, [normal[0], normal[1], normal[2], d]) > margin ? 1 : 0
  return out
}

type Plane = [number, number, number, number]
const height = (p: Float32Array, i: number, [a, b, c, d]: Plane): number =>
  a * p[i]! + b * p[i + 1]! + c * p[i + 2]! + d

function extent(p: Float32Array): number {
  let most = 0
  for (let k = 0; k < 3; k++) {
    let lo = Infinity,
      hi = -Infinity
    for (let i = k; i < p.length; i += 3) {
      lo = Math.min(lo, p[i]!)
      hi = Math.max(hi, p[i]!)
    }
    most = Math.max(most, hi - lo)
  }
  return most
}

function through(p: Float32Array, a: number, b: number, c: number): Plane | null {
  const ux = p[b]! - p[a]!,
    uy = p[b + 1]! - p[a + 1]!,
    uz = p[b + 2]! - p[a + 2]!
  const vx = p[c]! - p[a]!,
    vy = p[c + 1]! - p[a + 1]!,
    vz = p[c + 2]! - p[a + 2]!
  const x = uy * vz - uz * vy,
    y = uz * vx - ux * vz,
    z = ux * vy - uy * vx
  const l = Math.hypot(x, y, z)
  if (l < 1e-9) return null
  return [x / l, y / l, z / l, -(x * p[a]! + y * p[a + 1]! + z * p[a + 2]!) / l]
}

function sides(
  p: Float32Array,
  sample: readonly number[],
  plane: Plane,
  slack: number,
): Record<'on' | 'above' | 'below', number> {
  const count = { on: 0, above: 0, below: 0 }
  for (const i of sample) {
    const d = height(p, i, plane)
    count[Math.abs(d) <= slack ? 'on' : d > 0 ? 'above' : 'below']++
  }
  return count
}

/** Least squares along the plane's normal, over the points within the slack. */
function fitted(p: Float32Array, sample: readonly number[], plane: Plane, slack: number): Plane | null {
  // Heights over the old plane as a linear function of two coordinates in it.
  const [a, b, c] = plane
  const u: Vector3 = Math.abs(a) < 0.8 ? unit([0, c, -b]) : unit([-c, 0, a])
  const v: Vector3 = [b * u[2] - c * u[1], c * u[0] - a * u[2], a * u[1] - b * u[0]]
  let n = 0,
    sx = 0,
    sy = 0,
    sh = 0,
    xx = 0,
    xy = 0,
    yy = 0,
    xh = 0,
    yh = 0
  for (const i of sample) {
    const h = height(p, i, plane)
    if (Math.abs(h) > slack) continue
    const x = u[0] * p[i]! + u[1] * p[i + 1]! + u[2] * p[i + 2]!,
      y = v[0] * p[i]! + v[1] * p[i + 1]! + v[2] * p[i + 2]!
    n++
    sx += x
    sy += y
    sh += h
    xx += x * x
    xy += x * y
    yy += y * y
    xh += x * h
    yh += y * h
  }
  const cxx = xx - (sx * sx) / n,
    cxy = xy - (sx * sy) / n,
    cyy = yy - (sy * sy) / n,
    cxh = xh - (sx * sh) / n,
    cyh = yh - (sy * sh) / n
  const det = cxx * cyy - cxy * cxy
  if (n < 10 || !(det > 1e-9)) return null
  const gx = (cxh * cyy - cyh * cxy) / det,
    gy = (cyh * cxx - cxh * cxy) / det
  const h0 = (sh - gx * sx - gy * sy) / n
  const m: Vector3 = [0, 1, 2].map((k) => plane[k]! - gx * u[k]! - gy * v[k]!) as never
  const l = Math.hypot(...m)
  return [m[0] / l, m[1] / l, m[2] / l, (plane[3] - h0) / l]
}
