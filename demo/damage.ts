import { concatenate, keepFaces, type Mesh } from '../core/mesh/mesh'

/** A sculpt as it may come from elsewhere: holes torn, a patch turned inside out, crumbs floating beside it. */
export function damaged(mesh: Mesh): Mesh {
  const { positions: p, triangles: t } = mesh
  const faces = t.length / 3
  const near = (f: number, x: number, y: number, z: number, r: number): boolean => {
    const v = t[f * 3]! * 3
    return Math.hypot(p[v]! - x, p[v + 1]! - y, p[v + 2]! - z) < r
  }
  const keep = new Uint8Array(faces).fill(1)
  for (let f = 0; f < faces; f++)
    if (near(f, 7, 2, 40, 2.2) || near(f, 0, -9, 10, 1.4) || near(f, -4, -12, 52, 0.9)) keep[f] = 0
  const torn = keepFaces(mesh, keep)
  const triangles = torn.triangles.slice()
  for (let f = 0; f < triangles.length; f += 3) {
    const v = triangles[f]! * 3
    if (Math.hypot(torn.positions[v]! + 7, torn.positions[v + 1]! - 1, torn.positions[v + 2]! - 39) >= 2.6) continue
    const b = triangles[f + 1]!
    triangles[f + 1] = triangles[f + 2]!
    triangles[f + 2] = b
  }
  const crumb = (x: number, y: number, z: number, s: number): Mesh => ({
    positions: new Float32Array([x, y, z, x + s, y, z, x, y + s, z, x, y, z + s]),
    triangles: new Uint32Array([0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3]),
  })
  return concatenate([
    { positions: torn.positions, triangles },
    crumb(13, -8, 30, 0.4),
    crumb(-12, 10, 45, 0.3),
    crumb(3, -20, 20, 0.5),
  ])
}
