import { faceCross, lengthOf } from './face'
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
  const ox = (box.min[0] + box.max[0]) / 2,
    oy = (box.min[1] + box.max[1]) / 2,
    oz = (box.min[2] + box.max[2]) / 2
  let volume6 = 0,
    area2 = 0,
    mx = 0,
    my = 0,
    mz = 0
  for (let i = 0; i < t.length; i += 3) {
    const a = t[i]! * 3,
      b = t[i + 1]! * 3,
      c = t[i + 2]! * 3
    const ax = p[a]! - ox,
      ay = p[a + 1]! - oy,
      az = p[a + 2]! - oz
    const bx = p[b]! - ox,
      by = p[b + 1]! - oy,
      bz = p[b + 2]! - oz
    const cx = p[c]! - ox,
      cy = p[c + 1]! - oy,
      cz = p[c + 2]! - oz
    const d = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
    volume6 += d
    mx += d * (ax + bx + cx)
    my += d * (ay + by + cy)
    mz += d * (az + bz + cz)
    const ux = bx - ax,
      uy = by - ay,
      uz = bz - az,
      vx = cx - ax,
      vy = cy - ay,
      vz = cz - az
    area2 += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx)
  }
  const k = volume6 === 0 ? 0 : 1 / (4 * volume6)
  return {
    volume: volume6 / 6,
    area: area2 / 2,
    box,
    size: boxSize(box),
    centre: [ox + mx * k, oy + my * k, oz + mz * k],
  }
}

/** Per-face unit normals (3 per face) and areas in mm²; a degenerate face has a zero normal. */
export function faceNormals(mesh: Mesh): { normals: Float32Array; areas: Float32Array } {
  const { positions: p, triangles: t } = mesh
  const normals = new Float32Array(t.length)
  const areas = new Float32Array(t.length / 3)
  const cross = new Float64Array(3)
  for (let i = 0, f = 0; i < t.length; i += 3, f++) {
    faceCross(p, t[i]! * 3, t[i + 1]! * 3, t[i + 2]! * 3, cross)
    const n = lengthOf(cross)
    areas[f] = n / 2
    if (n > 0) for (let k = 0; k < 3; k++) normals[i + k] = cross[k]! / n
  }
  return { normals, areas }
}

/** Per-vertex unit normals, area-weighted over the faces around each vertex. */
export function vertexNormals(mesh: Mesh): Float32Array {
  const { positions: p, triangles: t } = mesh
  const n = new Float32Array(p.length)
  const cross = new Float64Array(3)
  for (let i = 0; i < t.length; i += 3) {
    faceCross(p, t[i]! * 3, t[i + 1]! * 3, t[i + 2]! * 3, cross)
    for (let c = 0; c < 3; c++) for (let k = 0; k < 3; k++) n[t[i + c]! * 3 + k]! += cross[k]!
  }
  for (let v = 0; v < n.length; v += 3) {
    const l = Math.hypot(n[v]!, n[v + 1]!, n[v + 2]!) || 1
    for (let k = 0; k < 3; k++) n[v + k]! /= l
  }
  return n
}

/** Mean length of the faces' edges, mm; 0 of no faces. */
export function meanEdge(mesh: Mesh): number {
  const { positions: p, triangles: t } = mesh
  let sum = 0
  for (let i = 0; i < t.length; i++) {
    const a = t[i]! * 3,
      b = t[i % 3 === 2 ? i - 2 : i + 1]! * 3
    sum += Math.sqrt((p[a]! - p[b]!) ** 2 + (p[a + 1]! - p[b + 1]!) ** 2 + (p[a + 2]! - p[b + 2]!) ** 2)
  }
  return t.length === 0 ? 0 : sum / t.length
}
