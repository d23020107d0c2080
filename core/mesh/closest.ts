import type { Tree } from './tree'

/** Where a closest-point query landed. Owned by the caller and overwritten by each query. */
export interface Closest {
  x: number
  y: number
  z: number
  /** face index in the mesh, −1 when nothing lies within the limit */
  face: number
  /** mm */
  distance: number
}
export const closest = (): Closest => ({ x: 0, y: 0, z: 0, face: -1, distance: Infinity })

const stack = new Int32Array(128)
const stackD = new Float64Array(128)
let qx = 0,
  qy = 0,
  qz = 0

/**
 * Closest point of the mesh to (x, y, z), no farther than `limit` mm. Fills `out` and returns the distance
 * (Infinity when there is none). Best-first by box distance with an explicit stack; no allocation.
 */
export function closestPoint(tree: Tree, x: number, y: number, z: number, out: Closest, limit = Infinity): number {
  const { boxes, right, first, count, order, corners } = tree
  out.face = -1
  out.distance = Infinity
  if (tree.nodes === 0) return Infinity
  let best = limit * limit
  let top = 0
  stack[0] = 0
  stackD[0] = boxDistance(boxes, 0, x, y, z)
  while (top >= 0) {
    const node = stack[top]!
    if (stackD[top--]! >= best) continue
    const faces = count[node]!
    if (faces > 0) {
      const from = first[node]!
      for (let i = from; i < from + faces; i++) {
        const d = trianglePoint(corners, i * 9, x, y, z)
        if (d < best) {
          best = d
          out.x = qx
          out.y = qy
          out.z = qz
          out.face = order[i]!
        }
      }
      continue
    }
    const l = node + 1,
      r = right[node]!
    const dl = boxDistance(boxes, l * 6, x, y, z),
      dr = boxDistance(boxes, r * 6, x, y, z)
    if (dl < dr) {
      if (dr < best) {
        stack[++top] = r
        stackD[top] = dr
      }
      if (dl < best) {
        stack[++top] = l
        stackD[top] = dl
      }
    } else {
      if (dl < best) {
        stack[++top] = l
        stackD[top] = dl
      }
      if (dr < best) {
        stack[++top] = r
        stackD[top] = dr
      }
    }
  }
  if (out.face < 0) return Infinity
  return (out.distance = Math.sqrt(best))
}

function boxDistance(b: Float32Array, o: number, x: number, y: number, z: number): number {
  const x0 = b[o]! - x,
    x1 = x - b[o + 3]!
  const y0 = b[o + 1]! - y,
    y1 = y - b[o + 4]!
  const z0 = b[o + 2]! - z,
    z1 = z - b[o + 5]!
  const dx = x0 > 0 ? x0 : x1 > 0 ? x1 : 0
  const dy = y0 > 0 ? y0 : y1 > 0 ? y1 : 0
  const dz = z0 > 0 ? z0 : z1 > 0 ? z1 : 0
  return dx * dx + dy * dy + dz * dz
}

/** Squared distance to one triangle, by Voronoi region (Ericson 2005, 5.1.5); the point goes to qx, qy, qz. */
function trianglePoint(c: Float32Array, o: number, x: number, y: number, z: number): number {
  const ax = c[o]!,
    ay = c[o + 1]!,
    az = c[o + 2]!
  const ux = c[o + 3]! - ax,
    uy = c[o + 4]! - ay,
    uz = c[o + 5]! - az
  const vx = c[o + 6]! - ax,
    vy = c[o + 7]! - ay,
    vz = c[o + 8]! - az
  const px = x - ax,
    py = y - ay,
    pz = z - az
  const d1 = ux * px + uy * py + uz * pz
  const d2 = vx * px + vy * py + vz * pz
  let s = 0,
    t = 0
  if (!(d1 <= 0 && d2 <= 0)) {
    const uu = ux * ux + uy * uy + uz * uz,
      uv = ux * vx + uy * vy + uz * vz,
      vv = vx * vx + vy * vy + vz * vz
    const d3 = d1 - uu,
      d4 = d2 - uv
    if (d3 >= 0 && d4 <= d3) s = 1
    else {
      const d5 = d1 - uv,
        d6 = d2 - vv
      if (d6 >= 0 && d5 <= d6) t = 1
      else {
        const vc = d1 * d4 - d3 * d2
        if (vc <= 0 && d1 >= 0 && d3 <= 0) s = d1 === d3 ? 0 : d1 / (d1 - d3)
        else {
          const vb = d5 * d2 - d1 * d6
          if (vb <= 0 && d2 >= 0 && d6 <= 0) t = d2 === d6 ? 0 : d2 / (d2 - d6)
          else {
            const va = d3 * d6 - d5 * d4
            const e = d4 - d3,
              g = d5 - d6
            if (va <= 0 && e >= 0 && g >= 0) {
              t = e + g === 0 ? 0 : e / (e + g)
              s = 1 - t
            } else {
              const k = 1 / (va + vb + vc)
              s = vb * k
              t = vc * k
            }
          }
        }
      }
    }
  }
  qx = ax + ux * s + vx * t
  qy = ay + uy * s + vy * t
  qz = az + uz * s + vz * t
  const dx = x - qx,
    dy = y - qy,
    dz = z - qz
  return dx * dx + dy * dy + dz * dz
}

/**
 * Closest points of places that follow each other: the last answer is still on the mesh, so the next cannot be farther
 * than that, and the search begins with that limit.
 */
export class ClosestWalk {
  readonly hit: Closest = closest()
  constructor(private readonly tree: Tree) {}

  /** The distance, mm; the place is in `hit`. */
  to(x: number, y: number, z: number): number {
    const { hit } = this
    const limit = hit.face < 0 ? Infinity : Math.hypot(x - hit.x, y - hit.y, z - hit.z) * 1.00001 + 1e-5
    const d = closestPoint(this.tree, x, y, z, hit, limit)
    return d === Infinity ? closestPoint(this.tree, x, y, z, hit) : d
  }
}
