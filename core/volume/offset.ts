import type { Box, Mesh } from '../mesh/mesh'
import { bounds } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { isClosed } from '../mesh/topology'
import { part, silent, type Report } from '../answer'
import { BAND_FROM, offsetField, openedField, skinBand } from './band'
import { extractSurface, projectOnto } from './extract'
import { FieldDistance, sampleField, type SparseField } from './field'
import { MeshDistance } from './source'

/**
 * The surface at signed distance `offset` (mm, negative inward) from a mesh, sampled at `voxel` mm and then
 * projected back onto the distance. Empty when nothing lies that deep. The input may be dirty: its solid is
 * where the winding number says so, and each sample is then searched for itself.
 */
export function offsetSurface(mesh: Mesh, offset: number, voxel: number, report: Report = silent): Mesh {
  const around = grown(bounds(mesh), Math.max(0, offset))
  if (Math.abs(offset) >= BAND_FROM * voxel && isClosed(mesh))
    return surfaceOf(
      offsetField(skinBand(treeOf(mesh), around, voxel, offset, part(report, 0, 0.7)), offset),
      part(report, 0.7, 1),
    )
  const source = new MeshDistance(treeOf(mesh))
  const surface = extractSurface(sampleField(source, around, voxel, offset, part(report, 0, 0.75)))
  projectOnto(surface, source, offset, voxel, part(report, 0.8, 1))
  return surface
}

/**
 * The body eroded by `depth` mm and opened by a ball of `opening` mm: no point of it is nearer to the skin than
 * `depth`, and no part of it is narrower than the ball.
 */
export function erodedAndOpened(
  mesh: Mesh,
  depth: number,
  opening: number,
  voxel: number,
  report: Report = silent,
): Mesh {
  if (depth + opening >= BAND_FROM * voxel && isClosed(mesh)) {
    const band = skinBand(treeOf(mesh), bounds(mesh), voxel, -(depth + opening), part(report, 0, 0.6))
    return surfaceOf(openedField(band, depth, opening), part(report, 0.6, 1))
  }
  const deep = offsetSurface(mesh, -(depth + opening), voxel, part(report, 0, 0.6))
  return deep.triangles.length === 0 ? deep : offsetSurface(deep, opening, voxel, part(report, 0.6, 1))
}

function surfaceOf(field: SparseField, report: Report): Mesh {
  const surface = extractSurface(field, part(report, 0, 0.7))
  projectOnto(surface, new FieldDistance(field), 0, field.voxel, part(report, 0.7, 1))
  return surface
}

const grown = (box: Box, by: number): Box => ({
  min: [box.min[0] - by, box.min[1] - by, box.min[2] - by],
  max: [box.max[0] + by, box.max[1] + by, box.max[2] + by],
})
