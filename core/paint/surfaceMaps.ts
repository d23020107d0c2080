import { part, silent, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { bounds, boxDiagonal, type Mesh } from '../mesh/mesh'
import { vertexNormals } from '../mesh/measure'
import { rayBlocked } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import type { Vector3 } from '../mesh/transform'
import { frame } from '../shape/cylinder'
import { sphereDirections } from '../shape/directions'
import { offsetSurface } from '../volume/offset'

/** Maps per vertex, interleaved: spray light, recess, ridge, exposure; each 0 to 1. */
export const MAPS = 4
export const MAP = { spray: 0, recess: 1, ridge: 2, exposure: 3 } as const

export interface MapWish {
  /** mm; radius of the brush: what a ball of this size cannot reach is recess, what it rides on is ridge */
  brush: number
  /** unit; where the spray comes from */
  direction: Vector3
}

/**
 * Surface maps of methods.md 12. Recess is the residue of closing the body with a ball of the brush's radius,
 * ridge the residue of opening it: with O the surface offset outward by r, a vertex v has closing residue
 * d(v, O) − r, which is 0 wherever the ball can touch it; inward likewise.
 *
 * @param mesh the display copy, up to a few hundred thousand vertices
 */
export function surfaceMaps(mesh: Mesh, wish: MapWish, report: Report = silent): { data: Float32Array; vertices: number } {
  const p = mesh.positions
  const n = p.length / 3
  const data = new Float32Array(n * MAPS)
  const normals = vertexNormals(mesh)
  const voxel = Math.max(wish.brush / 2, boxDiagonal(bounds(mesh)) / 400)
  const outer = offsetSurface(mesh, wish.brush, voxel, part(report, 0, 0.25))
  const inner = offsetSurface(mesh, -wish.brush * 0.6, voxel, part(report, 0.25, 0.45))
  residue(p, outer, wish.brush, wish.brush, data, MAP.recess, part(report, 0.45, 0.55))
  residue(p, inner, wish.brush * 0.6, wish.brush * 0.6, data, MAP.ridge, part(report, 0.55, 0.65))

  const tree = treeOf(mesh)
  const reach = boxDiagonal(bounds(mesh))
  const [u, v] = frame(wish.direction)
  const cone = Array.from({ length: 9 }, (_, k) => {
    const a = k === 0 ? 0 : (14 * Math.PI) / 180 * (k < 5 ? 0.5 : 1), r = (k * Math.PI) / 2 + (k < 5 ? 0 : 0.785)
    return [0, 1, 2].map((i) => wish.direction[i]! * Math.cos(a) + (u[i]! * Math.cos(r) + v[i]! * Math.sin(r)) * Math.sin(a)) as unknown as Vector3
  })
  const sky = sphereDirections(32)
  for (let i = 0; i < n; i++) {
    if ((i & 1023) === 0) report(0.65 + (0.35 * i) / n)
    const nx = normals[i * 3]!, ny = normals[i * 3 + 1]!, nz = normals[i * 3 + 2]!
    // Start a little off the skin, so that a face does not shadow its own corner.
    const x = p[i * 3]! + nx * 0.08, y = p[i * 3 + 1]! + ny * 0.08, z = p[i * 3 + 2]! + nz * 0.08
    let lit = 0
    for (const d of cone) {
      const c = d[0] * nx + d[1] * ny + d[2] * nz
      if (c > 0.02 && !rayBlocked(tree, x, y, z, d[0], d[1], d[2], 0.02, reach)) lit += c
    }
    data[i * MAPS + MAP.spray] = lit / cone.length
    let open = 0, all = 0
    for (const d of sky) {
      const c = d[0] * nx + d[1] * ny + d[2] * nz
      if (c <= 0.05) continue
      all += c
      if (!rayBlocked(tree, x, y, z, d[0], d[1], d[2], 0.02, reach * 0.35)) open += c
    }
    data[i * MAPS + MAP.exposure] = all > 0 ? open / all : 1
  }
  return { data, vertices: n }
}

function residue(p: Float32Array, offset: Mesh, radius: number, full: number, data: Float32Array, map: number, report: Report): void {
  if (offset.triangles.length === 0) { for (let i = 0; i < p.length / 3; i++) data[i * MAPS + map] = 1; return }
  const tree = treeOf(offset)
  const hit = closest()
  for (let i = 0; i < p.length / 3; i++) {
    if ((i & 2047) === 0) report(i / (p.length / 3))
    const d = closestPoint(tree, p[i * 3]!, p[i * 3 + 1]!, p[i * 3 + 2]!, hit)
    data[i * MAPS + map] = Math.min(1, Math.max(0, (d - radius) / (0.35 * full)))
  }
}
