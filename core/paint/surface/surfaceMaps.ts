import { part, silent, type Report } from '../../answer'
import type { Mesh } from '../../mesh/mesh'
import { vertexNormals } from '../../mesh/measure'
import { isClosed } from '../../mesh/topology'
import type { Vector3 } from '../../math/vectors'
import { ballResidue } from '../../volume/residue'
import { exposure, NOZZLE, sprayLight } from './sprayLight'

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
 * ridge that of opening it with a smaller one. Spray light and exposure come from depth maps, one for each direction.
 *
 * @param mesh the display copy, up to a few hundred thousand vertices
 */
export function surfaceMaps(
  mesh: Mesh,
  wish: MapWish,
  report: Report = silent,
): { data: Float32Array; vertices: number } {
  const n = mesh.positions.length / 3
  const data = new Float32Array(n * MAPS)
  const normals = vertexNormals(mesh)
  const inward = wish.brush * 0.75
  const sound = isClosed(mesh)
  const put = (map: number, values: Float32Array, full = 1): void => {
    for (let i = 0; i < n; i++) data[i * MAPS + map] = Math.min(1, values[i]! / full)
  }
  const roll = (radius: number, map: number, told: Report): void => {
    // An open skin has no inside for a ball to roll in: it gets no recess and no ridge rather than wrong ones.
    // A little less than half the ball, so that its offset clears the skin's own samples.
    if (sound) put(map, ballResidue(mesh, radius, Math.abs(radius) * 0.48, told), 0.35 * Math.abs(radius))
  }
  roll(wish.brush, MAP.recess, part(report, 0, 0.3))
  roll(-inward, MAP.ridge, part(report, 0.3, 0.5))
  put(MAP.spray, sprayLight(mesh, normals, wish.direction, NOZZLE, part(report, 0.5, 0.6)))
  put(MAP.exposure, exposure(mesh, normals, part(report, 0.6, 1)))
  return { data, vertices: n }
}
