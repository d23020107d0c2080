import { silent, type Report } from '../answer'
import { vertexNormals } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { thicknessAt } from './thinness'

/** mm of body under each vertex, by the rays that `thinness` sends; NaN where no ray tells. */
export function thicknessMap(mesh: Mesh, report: Report = silent): Float32Array {
  const p = mesh.positions
  const normals = vertexNormals(mesh)
  const tree = treeOf(mesh)
  const out = new Float32Array(p.length / 3)
  for (let v = 0; v < out.length; v++) {
    if ((v & 511) === 0) report(v / out.length)
    out[v] = thicknessAt(
      tree,
      [p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!],
      [-normals[v * 3]!, -normals[v * 3 + 1]!, -normals[v * 3 + 2]!],
    )
  }
  return out
}
