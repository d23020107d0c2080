import { bounds, type Mesh } from '../mesh/mesh'
import { fromQuaternion, transformed } from '../mesh/transform'

/** Turns the body by the quaternion (x, y, z, w), sets it down on z = 0 and centres it on the plate. */
export function orient(mesh: Mesh, quaternion: readonly [number, number, number, number]): Mesh {
  const turned = transformed(mesh, fromQuaternion(quaternion), [0, 0, 0])
  const box = bounds(turned)
  return transformed(turned, [1, 0, 0, 0, 1, 0, 0, 0, 1], [
    -(box.min[0] + box.max[0]) / 2, -(box.min[1] + box.max[1]) / 2, -box.min[2],
  ])
}
