import { faceNormals } from '../../mesh/measure'
import type { Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'

/**
 * How high the steps of the layers stand on the skin, mm per vertex: layer height × |n·up| (the cusp of a stair whose treads
 * lie square to `up`), by the area-weighted mean over the faces round each vertex. A face that lies flat is one layer and
 * has no steps; the steepest stair is the one just off flat (methods.md 9).
 *
 * @param up unit, in the body's frame
 * @param flat faces within this cosine of flat are treads themselves
 */
export function stepsMap(mesh: Mesh, up: Vector3, layerHeight: number, flat = 0.9998): Float32Array {
  const { positions, triangles: t } = mesh
  const { normals, areas } = faceNormals(mesh)
  const out = new Float32Array(positions.length / 3),
    weight = new Float32Array(out.length)
  for (let f = 0; f < areas.length; f++) {
    const c = Math.abs(normals[f * 3]! * up[0] + normals[f * 3 + 1]! * up[1] + normals[f * 3 + 2]! * up[2])
    const cusp = c > flat ? 0 : layerHeight * c
    for (let k = 0; k < 3; k++) {
      out[t[f * 3 + k]!]! += cusp * areas[f]!
      weight[t[f * 3 + k]!]! += areas[f]!
    }
  }
  for (let v = 0; v < out.length; v++) out[v] = weight[v]! > 0 ? out[v]! / weight[v]! : 0
  return out
}
