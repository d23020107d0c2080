import { silent, type Report } from '../../answer'
import { depthMap, seen } from '../../mesh/depthMap'
import type { Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { coneDirections, sphereDirections } from '../../math/directions'

/** mm; a shadow thinner than this is lost, and a face does not shadow itself */
const PITCH = 0.25
/** Directions for the light of a whole sky: the mean over them is within a few percent of the integral. */
const SKY = 96

/** Half angle of a nozzle's cone as it is usually held, degrees. */
export const NOZZLE = 14

/** Where a spray or a lamp stands, seen from the sculpt: degrees to its own left from the front, and upward. */
export function directionOf(turn: number, lift: number): Vector3 {
  const t = (turn * Math.PI) / 180,
    l = (lift * Math.PI) / 180
  return [Math.sin(t) * Math.cos(l), -Math.cos(t) * Math.cos(l), Math.sin(l)]
}

/**
 * Spray light: the share of the nozzle's cone that reaches each vertex unshadowed, times its cosine; 0 to 1.
 *
 * @param normals unit, 3 per vertex
 * @param direction unit, toward the nozzle
 * @param spread half angle of the cone, degrees
 */
export function sprayLight(
  mesh: Mesh,
  normals: Float32Array,
  direction: Vector3,
  spread: number,
  report: Report = silent,
): Float32Array {
  const beams = coneDirections(direction, (spread * Math.PI) / 180)
  const out = new Float32Array(mesh.positions.length / 3)
  beams.forEach((d, k) => {
    report(k / beams.length)
    addBeam(mesh, normals, d, PITCH, out)
  })
  for (let v = 0; v < out.length; v++) out[v]! /= beams.length
  return out
}

/**
 * Exposure: the share of the sky over each place, weighted by cosine, that the sculpt itself leaves open (ambient
 * occlusion without bounced light); 1 in the open, 0 where nothing reaches. The sky is all round: no side is above.
 */
export function exposure(mesh: Mesh, normals: Float32Array, report: Report = silent): Float32Array {
  const open = new Float32Array(mesh.positions.length / 3),
    whole = new Float32Array(open.length)
  // What matters is how much of the sky is hidden, not by how sharp an edge.
  sphereDirections(SKY).forEach((d, k) => {
    report(k / SKY)
    addBeam(mesh, normals, d, 2 * PITCH, open)
    for (let v = 0, o = 0; v < whole.length; v++, o += 3) {
      const c = d[0] * normals[o]! + d[1] * normals[o + 1]! + d[2] * normals[o + 2]!
      if (c > GRAZING) whole[v]! += c
    }
  })
  for (let v = 0; v < open.length; v++) open[v] = whole[v]! > 0 ? Math.min(1, open[v]! / whole[v]!) : 0
  return open
}

/** Cosines below this are of no account: so slanting a beam wets nothing, and its shadows are the raster's own. */
const GRAZING = 0.05

/** Adds the cosine where a vertex is seen from a direction, and nothing where it is not. */
function addBeam(mesh: Mesh, normals: Float32Array, d: Vector3, pitch: number, out: Float32Array): void {
  const p = mesh.positions
  const map = depthMap(mesh, d, pitch)
  for (let v = 0, o = 0; v < out.length; v++, o += 3) {
    const c = d[0] * normals[o]! + d[1] * normals[o + 1]! + d[2] * normals[o + 2]!
    if (c <= GRAZING) continue
    // Within a pixel a face rises by the tangent of its slant; beyond 80° that is left to the cosine.
    const slack = map.pitch * (0.3 + Math.min(5, Math.sqrt(1 - Math.min(1, c * c)) / c))
    out[v]! += c * seen(map, p[o]!, p[o + 1]!, p[o + 2]!, slack)
  }
}
