import { part, silent, type Report } from '../answer'
import { depthMap, seen } from '../mesh/depthMap'
import type { Mesh } from '../mesh/mesh'
import { vertexNormals } from '../mesh/measure'
import { isClosed } from '../mesh/topology'
import type { Vector3 } from '../mesh/transform'
import { coneDirections } from '../shape/directions'
import { ballResidue } from '../volume/residue'

/** Maps per vertex, interleaved: spray light, recess, ridge; each 0 to 1. */
export const MAPS = 3
export const MAP = { spray: 0, recess: 1, ridge: 2 } as const

export interface MapWish {
  /** mm; radius of the brush: what a ball of this size cannot reach is recess, what it rides on is ridge */
  brush: number
  /** unit; where the spray comes from */
  direction: Vector3
}

/**
 * Surface maps of methods.md 12. Recess is the residue of closing the body with a ball of the brush's radius,
 * ridge that of opening it with a smaller one. Spray light comes from depth maps, one for each direction of the nozzle's cone.
 *
 * @param mesh the display copy, up to a few hundred thousand vertices
 */
export function surfaceMaps(
  mesh: Mesh,
  wish: MapWish,
  report: Report = silent,
): { data: Float32Array; vertices: number } {
  const p = mesh.positions
  const n = p.length / 3
  const data = new Float32Array(n * MAPS)
  const normals = vertexNormals(mesh)
  const inward = wish.brush * 0.75
  const sound = isClosed(mesh)
  const roll = (radius: number, map: number, told: Report): void => {
    // An open skin has no inside for a ball to roll in: it gets no recess and no ridge rather than wrong ones.
    // A little less than half the ball, so that its offset clears the skin's own samples.
    const off = sound ? ballResidue(mesh, radius, Math.abs(radius) * 0.48, told) : new Float32Array(n)
    const full = 0.35 * Math.abs(radius)
    for (let i = 0; i < n; i++) data[i * MAPS + map] = Math.min(1, off[i]! / full)
  }
  roll(wish.brush, MAP.recess, part(report, 0, 0.4))
  roll(-inward, MAP.ridge, part(report, 0.4, 0.7))

  sprayLight(mesh, normals, coneDirections(wish.direction, NOZZLE), data, part(report, 0.7, 1))
  return { data, vertices: n }
}

/** Half angle of a nozzle's cone. */
const NOZZLE = (14 * Math.PI) / 180
/** mm; a shadow thinner than this is lost, and a face does not shadow itself */
const PITCH = 0.25

/** Mean over the directions of the cosine where the vertex is seen from there, and nothing where it is not. */
function sprayLight(
  mesh: Mesh,
  normals: Float32Array,
  directions: readonly Vector3[],
  data: Float32Array,
  report: Report,
): void {
  const p = mesh.positions
  directions.forEach((d, k) => {
    report(k / directions.length)
    const map = depthMap(mesh, d, PITCH)
    for (let o = 0, to = MAP.spray; o < p.length; o += 3, to += MAPS) {
      const c = d[0] * normals[o]! + d[1] * normals[o + 1]! + d[2] * normals[o + 2]!
      if (c <= 0.05) continue
      // Within a pixel a face rises by the tangent of its slant; beyond 80° that is left to the cosine.
      const slack = map.pitch * (0.3 + Math.min(5, Math.sqrt(1 - Math.min(1, c * c)) / c))
      data[to]! += (c * seen(map, p[o]!, p[o + 1]!, p[o + 2]!, slack)) / directions.length
    }
  })
}
