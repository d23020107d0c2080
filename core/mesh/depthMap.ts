import type { Mesh } from './mesh'
import { frame, type Vector3 } from '../math/vectors'

/**
 * What a parallel beam sees of a mesh, as an orthographic map of the heights nearest to its source: asking for every
 * vertex costs one pass over the faces, where rays would cost a search each.
 */
export interface DepthMap {
  readonly u: Vector3
  readonly v: Vector3
  /** unit, toward the source */
  readonly toward: Vector3
  readonly origin: readonly [number, number]
  /** mm */
  readonly pitch: number
  readonly width: number
  readonly height: number
  /** mm along `toward`; −Infinity where nothing is */
  readonly depth: Float32Array
}

const MAX_PIXELS = 4e6

/** @param pitch mm; made coarser when the map would exceed four million pixels */
export function depthMap(mesh: Mesh, toward: Vector3, pitch: number): DepthMap {
  const { positions: p, triangles: t } = mesh
  const [u, v] = frame(toward)
  const n = p.length / 3
  // Coordinates in the beam's frame.
  const a = new Float32Array(n),
    b = new Float32Array(n),
    c = new Float32Array(n)
  let a0 = Infinity,
    a1 = -Infinity,
    b0 = Infinity,
    b1 = -Infinity
  for (let i = 0, o = 0; i < n; i++, o += 3) {
    const x = p[o]!,
      y = p[o + 1]!,
      z = p[o + 2]!
    const s = (a[i] = x * u[0] + y * u[1] + z * u[2])
    const r = (b[i] = x * v[0] + y * v[1] + z * v[2])
    c[i] = x * toward[0] + y * toward[1] + z * toward[2]
    if (s < a0) a0 = s
    if (s > a1) a1 = s
    if (r < b0) b0 = r
    if (r > b1) b1 = r
  }
  const px = Math.max(pitch, Math.sqrt(((a1 - a0) * (b1 - b0)) / MAX_PIXELS))
  const ox = a0 - px / 2,
    oy = b0 - px / 2
  for (let i = 0; i < n; i++) {
    a[i] = (a[i]! - ox) / px
    b[i] = (b[i]! - oy) / px
  }
  const width = Math.ceil((a1 - a0) / px) + 2,
    height = Math.ceil((b1 - b0) / px) + 2
  const depth = new Float32Array(width * height).fill(-Infinity)
  for (let f = 0; f < t.length; f += 3) draw(t[f]!, t[f + 1]!, t[f + 2]!)
  return { u, v, toward, origin: [ox, oy], pitch: px, width, height, depth }

  /** Raises every pixel whose centre the face covers. */
  function draw(i: number, j: number, k: number): void {
    const ax = a[i]!,
      ay = b[i]!
    const ux = a[j]! - ax,
      uy = b[j]! - ay,
      vx = a[k]! - ax,
      vy = b[k]! - ay
    const area = ux * vy - uy * vx
    if (area === 0) return
    const x0 = Math.ceil(ax + Math.min(0, ux, vx) - 0.5),
      x1 = Math.floor(ax + Math.max(0, ux, vx) - 0.5)
    const y0 = Math.ceil(ay + Math.min(0, uy, vy) - 0.5),
      y1 = Math.floor(ay + Math.max(0, uy, vy) - 0.5)
    const cu = (c[j]! - c[i]!) / area,
      cv = (c[k]! - c[i]!) / area
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const qx = x + 0.5 - ax,
          qy = y + 0.5 - ay
        // Barycentric weights of j and k, times the area.
        const s = qx * vy - qy * vx,
          r = ux * qy - uy * qx
        if (area > 0 ? s < 0 || r < 0 || s + r > area : s > 0 || r > 0 || s + r < area) continue
        const d = c[i]! + s * cu + r * cv
        if (d > depth[y * width + x]!) depth[y * width + x] = d
      }
  }
}

/**
 * Share (0 to 1) of the four pixels around a point from which the source sees it.
 *
 * @param slack mm by which the map may stand above the point: what a slanted face rises within a pixel, and more
 */
export function seen(map: DepthMap, x: number, y: number, z: number, slack: number): number {
  const { u, v, toward, origin, pitch, width, height, depth } = map
  const a = (x * u[0] + y * u[1] + z * u[2] - origin[0]) / pitch - 0.5,
    b = (x * v[0] + y * v[1] + z * v[2] - origin[1]) / pitch - 0.5
  const d = x * toward[0] + y * toward[1] + z * toward[2] + slack
  const i = Math.floor(a),
    j = Math.floor(b)
  let sum = 0
  for (let k = 0; k < 4; k++) {
    const q = i + (k & 1),
      r = j + (k >> 1)
    const w = (1 - Math.abs(a - q)) * (1 - Math.abs(b - r))
    if (q < 0 || r < 0 || q >= width || r >= height || depth[r * width + q]! <= d) sum += w
  }
  return sum
}
