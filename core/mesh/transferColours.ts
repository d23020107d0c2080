import { closest, closestPoint } from './closest'
import type { Mesh } from './mesh'
import { treeOf } from './tree'

/**
 * Gives a mesh made from a coloured one its colours: each vertex takes that of the nearest place of the old skin. The
 * same mesh when there is nothing to carry.
 */
export function transferColours(from: Mesh, to: Mesh): Mesh {
  const { colours, positions, triangles } = from
  if (!colours || to.colours || to.positions.length === 0 || triangles.length === 0) return to
  const tree = treeOf(from),
    hit = closest()
  const out = new Uint8Array(to.positions.length)
  const p = to.positions
  const w = new Float64Array(3)
  for (let v = 0; v < p.length; v += 3) {
    closestPoint(tree, p[v]!, p[v + 1]!, p[v + 2]!, hit)
    const [a, b, c] = [0, 1, 2].map((k) => triangles[hit.face * 3 + k]! * 3) as [number, number, number]
    weights(positions, a, b, c, hit.x, hit.y, hit.z, w)
    for (let k = 0; k < 3; k++)
      out[v + k] = Math.round(w[0]! * colours[a + k]! + w[1]! * colours[b + k]! + w[2]! * colours[c + k]!)
  }
  return { ...to, colours: out }
}

/** Barycentric weights of a point in a triangle, by areas; a triangle without area gives all to its first corner. */
export function weights(
  p: Float32Array,
  a: number,
  b: number,
  c: number,
  x: number,
  y: number,
  z: number,
  out: Float64Array,
): void {
  const ux = p[b]! - p[a]!,
    uy = p[b + 1]! - p[a + 1]!,
    uz = p[b + 2]! - p[a + 2]!
  const vx = p[c]! - p[a]!,
    vy = p[c + 1]! - p[a + 1]!,
    vz = p[c + 2]! - p[a + 2]!
  const wx = x - p[a]!,
    wy = y - p[a + 1]!,
    wz = z - p[a + 2]!
  const uu = ux * ux + uy * uy + uz * uz,
    uv = ux * vx + uy * vy + uz * vz,
    vv = vx * vx + vy * vy + vz * vz,
    wu = wx * ux + wy * uy + wz * uz,
    wv = wx * vx + wy * vy + wz * vz
  const det = uu * vv - uv * uv
  const s = det > 0 ? (vv * wu - uv * wv) / det : 0,
    t = det > 0 ? (uu * wv - uv * wu) / det : 0
  out[1] = Math.min(1, Math.max(0, s))
  out[2] = Math.min(1 - out[1], Math.max(0, t))
  out[0] = 1 - out[1] - out[2]
}
