/**
 * The triangle mesh that every room of core shares. Immutable once made: functions return new meshes, or the
 * very same object when there was nothing to change (callers compare by identity to learn that).
 */
export interface Mesh {
  /** Vertex coordinates in mm, x y z per vertex. World is right-handed, z up, plate at z = 0. */
  readonly positions: Float32Array
  /** Vertex indices, 3 per face, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array
}

export interface Box {
  min: [number, number, number]
  max: [number, number, number]
}

export const faceCount = (mesh: Mesh): number => mesh.triangles.length / 3
export const vertexCount = (mesh: Mesh): number => mesh.positions.length / 3

/** Axis-aligned bounds in mm of the vertices that faces use; an empty mesh gives a zero box. */
export function bounds(mesh: Mesh): Box {
  const { positions: p, triangles: t } = mesh
  let x0 = Infinity, y0 = Infinity, z0 = Infinity, x1 = -Infinity, y1 = -Infinity, z1 = -Infinity
  for (let i = 0; i < t.length; i++) {
    const v = t[i]! * 3
    const x = p[v]!, y = p[v + 1]!, z = p[v + 2]!
    if (x < x0) x0 = x
    if (x > x1) x1 = x
    if (y < y0) y0 = y
    if (y > y1) y1 = y
    if (z < z0) z0 = z
    if (z > z1) z1 = z
  }
  return t.length === 0 ? { min: [0, 0, 0], max: [0, 0, 0] } : { min: [x0, y0, z0], max: [x1, y1, z1] }
}

export const boxSize = (b: Box): [number, number, number] => [
  b.max[0] - b.min[0], b.max[1] - b.min[1], b.max[2] - b.min[2],
]
export const boxDiagonal = (b: Box): number => Math.hypot(...boxSize(b))

/** One mesh holding all faces of the given ones, as separate shells. */
export function concatenate(meshes: readonly Mesh[]): Mesh {
  let vertices = 0, indices = 0
  for (const m of meshes) { vertices += m.positions.length; indices += m.triangles.length }
  const positions = new Float32Array(vertices)
  const triangles = new Uint32Array(indices)
  let v = 0, t = 0
  for (const m of meshes) {
    positions.set(m.positions, v)
    const base = v / 3
    for (let i = 0; i < m.triangles.length; i++) triangles[t + i] = m.triangles[i]! + base
    v += m.positions.length
    t += m.triangles.length
  }
  return { positions, triangles }
}

/** Keeps the faces whose flag is set and drops the vertices that no face then uses; order is kept. */
export function keepFaces(mesh: Mesh, keep: Uint8Array): Mesh {
  const { positions, triangles } = mesh
  const map = new Int32Array(positions.length / 3).fill(-1)
  let faces = 0
  for (let f = 0; f < keep.length; f++) if (keep[f]) faces++
  const out = new Uint32Array(faces * 3)
  const order: number[] = []
  let o = 0
  for (let f = 0; f < keep.length; f++) {
    if (!keep[f]) continue
    for (let k = 0; k < 3; k++) {
      const v = triangles[f * 3 + k]!
      if (map[v] === -1) { map[v] = order.length; order.push(v) }
      out[o++] = map[v]!
    }
  }
  const pos = new Float32Array(order.length * 3)
  for (let i = 0; i < order.length; i++) {
    const v = order[i]! * 3
    pos[i * 3] = positions[v]!
    pos[i * 3 + 1] = positions[v + 1]!
    pos[i * 3 + 2] = positions[v + 2]!
  }
  return { positions: pos, triangles: out }
}

/** The same faces turned inside out. */
export function reversed(mesh: Mesh): Mesh {
  const triangles = mesh.triangles.slice()
  for (let i = 0; i < triangles.length; i += 3) {
    const a = triangles[i + 1]!
    triangles[i + 1] = triangles[i + 2]!
    triangles[i + 2] = a
  }
  return { positions: mesh.positions, triangles }
}
