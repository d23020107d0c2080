/**
 * The triangle mesh that every room of core shares. Immutable once made: functions return new meshes, or the
 * very same object when there was nothing to change (callers compare by identity to learn that).
 */
export interface Mesh {
  /** Vertex coordinates in mm, x y z per vertex. World is right-handed, z up, plate at z = 0. */
  readonly positions: Float32Array
  /** Vertex indices, 3 per face, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array
  /** sRGB bytes, 3 per vertex, where the sculpt came painted or scanned. Shown and exported, never measured. */
  readonly colours?: Uint8Array
  /** Unit normals, 3 per vertex, of a point cloud (a mesh without faces) whose scanner gave them. */
  readonly normals?: Float32Array
}

export interface Box {
  min: [number, number, number]
  max: [number, number, number]
}

export const faceCount = (mesh: Mesh): number => mesh.triangles.length / 3

/** Axis-aligned bounds in mm of the vertices that faces use, of a cloud all points; an empty mesh gives a zero box. */
export function bounds(mesh: Mesh): Box {
  const { positions: p, triangles: t } = mesh
  let x0 = Infinity,
    y0 = Infinity,
    z0 = Infinity,
    x1 = -Infinity,
    y1 = -Infinity,
    z1 = -Infinity
  const cloud = isCloud(mesh)
  const count = cloud ? p.length / 3 : t.length
  for (let i = 0; i < count; i++) {
    const v = (cloud ? i : t[i]!) * 3
    const x = p[v]!,
      y = p[v + 1]!,
      z = p[v + 2]!
    if (x < x0) x0 = x
    if (x > x1) x1 = x
    if (y < y0) y0 = y
    if (y > y1) y1 = y
    if (z < z0) z0 = z
    if (z > z1) z1 = z
  }
  return count === 0 ? { min: [0, 0, 0], max: [0, 0, 0] } : { min: [x0, y0, z0], max: [x1, y1, z1] }
}

export const boxSize = (b: Box): [number, number, number] => [
  b.max[0] - b.min[0],
  b.max[1] - b.min[1],
  b.max[2] - b.min[2],
]
export const boxDiagonal = (b: Box): number => Math.hypot(...boxSize(b))

/** Grey of what has no colour of its own beside what has. */
const BARE = 0xc0

/** One mesh holding all faces of the given ones, as separate shells. */
export function concatenate(meshes: readonly Mesh[]): Mesh {
  let vertices = 0,
    indices = 0
  for (const m of meshes) {
    vertices += m.positions.length
    indices += m.triangles.length
  }
  const positions = new Float32Array(vertices)
  const triangles = new Uint32Array(indices)
  const colours = meshes.some((m) => m.colours) ? new Uint8Array(vertices).fill(BARE) : null
  let v = 0,
    t = 0
  for (const m of meshes) {
    positions.set(m.positions, v)
    if (m.colours) colours!.set(m.colours, v)
    const base = v / 3
    for (let i = 0; i < m.triangles.length; i++) triangles[t + i] = m.triangles[i]! + base
    v += m.positions.length
    t += m.triangles.length
  }
  return { positions, triangles, ...(colours ? { colours } : {}) }
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
      if (map[v] === -1) {
        map[v] = order.length
        order.push(v)
      }
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

/** The first `count` faces, and the rest, each with its own vertices. */
export function splitFaces(mesh: Mesh, count: number): [Mesh, Mesh] {
  const first = Uint8Array.from({ length: mesh.triangles.length / 3 }, (_, f) => (f < count ? 1 : 0))
  return [
    keepFaces(mesh, first),
    keepFaces(
      mesh,
      first.map((k) => 1 - k),
    ),
  ]
}

export const isCloud = (mesh: Mesh): boolean => mesh.triangles.length === 0 && mesh.positions.length > 0

/** The same faces turned inside out. */
export function reversed(mesh: Mesh): Mesh {
  const triangles = mesh.triangles.slice()
  for (let i = 0; i < triangles.length; i += 3) {
    const a = triangles[i + 1]!
    triangles[i + 1] = triangles[i + 2]!
    triangles[i + 2] = a
  }
  return { ...mesh, triangles }
}
