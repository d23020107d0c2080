import type { Mesh } from '../mesh/mesh'
import { bounds } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { part, silent, type Report } from '../answer'
import { extractSurface, projectOnto } from './extract'
import { sampleField } from './field'
import { MeshDistance } from './source'

/**
 * The surface at signed distance `offset` (mm, negative inward) from a mesh, sampled at `voxel` mm and then
 * projected back onto the exact distance. Empty when nothing lies that deep. The input may be dirty: its
 * solid is where the winding number says so.
 */
export function offsetSurface(mesh: Mesh, offset: number, voxel: number, report: Report = silent): Mesh {
  const source = new MeshDistance(treeOf(mesh))
  const box = bounds(mesh)
  const grow = Math.max(0, offset)
  const around = {
    min: box.min.map((v) => v - grow) as [number, number, number],
    max: box.max.map((v) => v + grow) as [number, number, number],
  }
  const field = sampleField(source, around, voxel, offset, part(report, 0, 0.75))
  const surface = extractSurface(field, part(report, 0.75, 0.9))
  projectOnto(surface, new MeshDistance(treeOf(mesh)), offset, voxel, part(report, 0.9, 1))
  return surface
}
