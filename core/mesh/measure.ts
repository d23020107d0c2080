import { bounds, boxSize, type Box, type Mesh } from './mesh'

export interface Measures {
  /** Signed volume in mm³; negative when the faces point inward. Only meaningful for a closed mesh. */
  volume: number
  /** mm² */
  area: number
  /** Centre of mass in mm for uniform density. */
  centre: [number, number, number]
  box: Box
  size: [number, number, number]
}

/**
 * Volume and centre of mass by signed tetrahedra from the box centre (which keeps the terms small, so that a
 * body far from the origin loses no digits); area by cross products.
 */
export function measure(mesh: Mesh): Measures {
  const { positions: p, triangles: t } = mesh
  const box = bounds(mesh)
  const ox = (box.min[0] + box.max[0]) / 2, oy = (box.min[1] + box.max[1]) / 2, oz = (box.min[2] + box.max[2]) / 2
  let volume6 = 0, area2 = 0, mx = 0, my = 0, mz = 0
  for (let i = 0; i < t.length; i += 3) {
    const a = t[i]! * 3, b = t[i + 1]! * 3, c = t[i + 2]! * 3
    const ax = p[a]! - ox, ay = p[a + 1]! - oy, az = p[a + 2]! - oz
    const bx = p[b]! - ox, by = p[b + 1]! - oy, bz = p[b + 2]! - oz
    const cx = p[c]! - ox, cy = p[c + 1]! - oy, cz = p[c + 2]! - oz
    const d = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
    volume6 += d
    mx += d * (ax + bx + cx)
    my += d * (ay + by + cy)
    mz += d * (az + bz + cz)
    const ux = bx - ax, uy = by - ay, uz = bz - az, vx = cx - ax, vy = cy - ay, vz = cz - az
    area2 += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx)
  }
  const k = volume6 === 0 ? 0 : 1 / (4 * volume6)
  return {
    volume: volume6 / 6, area: area2 / 2, box, size: boxSize(box),
    centre: [ox + mx * k, oy + my * k, oz + mz * k],
  }
}

/** Per-face unit normals (3 per face) and areas in mm²; a degenerate face has a zero normal. */
export function faceNormals(mesh: Mesh): { normals: Float32Array; areas: Float32Array } {
  const { positions: p, triangles: t } = mesh
  const normals = new Float32Array(t.length)
  const areas = new Float32Array(t.length / 3)
  for (let i = 0, f = 0; i < t.length; i += 3, f++) {
    const a = t[i]! * 3, b = t[i + 1]! * 3, c = t[i + 2]! * 3
    const ux = p[b]! - p[a]!, uy = p[b + 1]! - p[a + 1]!, uz = p[b + 2]! - p[a + 2]!
    const vx = p[c]! - p[a]!, vy = p[c + 1]! - p[a + 1]!, vz = p[c + 2]! - p[a + 2]!
    const nx = uy * vz - uz * vy, ny = uz * vx - ux * vz, nz = ux * vy - uy * vx
    const n = Math.sqrt(nx * nx + ny * ny + nz * nz)
    areas[f] = n / 2
    if (n > 0) { normals[i] = nx / n; normals[i + 1] = ny / n; normals[i + 2] = nz / n }
  }
  return { normals, areas }
}

/** Per-vertex unit normals, area-weighted over the faces around each vertex. */
export function vertexNormals(mesh: Mesh): Float32Array {
  const { positions: p, triangles: t } = mesh
  const n = new Float32Array(p.length)
  for (let i = 0; i < t.length; i += 3) {
    const a = t[i]! * 3, b = t[i + 1]! * 3, c = t[i + 2]! * 3
    const ux = p[b]! - p[a]!, uy = p[b + 1]! - p[a + 1]!, uz = p[b + 2]! - p[a + 2]!
    const vx = p[c]! - p[a]!, vy = p[c + 1]! - p[a + 1]!, vz = p[c + 2]! - p[a + 2]!
    const nx = uy * vz - uz * vy, ny = uz * vx - ux * vz, nz = ux * vy - uy * vx
    for (const v of [a, b, c]) { n[v] = n[v]! + nx; n[v + 1] = n[v + 1]! + ny; n[v + 2] = n[v + 2]! + nz }
  }
  for (let v = 0; v < n.length; v += 3) {
    const l = Math.hypot(n[v]!, n[v + 1]!, n[v + 2]!) || 1
    n[v] = n[v]! / l; n[v + 1] = n[v + 1]! / l; n[v + 2] = n[v + 2]! / l
  }
  return n
}
