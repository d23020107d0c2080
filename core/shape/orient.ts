import { bounds, type Mesh } from '../mesh/mesh'
import { apply3, fromQuaternion, identity3, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import type { BrushSpot } from './brushSpots'

/** The body turned by the quaternion, and the way from there to the middle of the plate. */
export function turnedToPlate(
  mesh: Mesh,
  quaternion: readonly [number, number, number, number],
): { turned: Mesh; offset: Vector3 } {
  const turned = transformed(mesh, fromQuaternion(quaternion), [0, 0, 0])
  const box = bounds(turned)
  return {
    turned,
    offset: [-(box.min[0] + box.max[0]) / 2, -(box.min[1] + box.max[1]) / 2, -box.min[2]],
  }
}

/** Turns the body by the quaternion (x, y, z, w), sets it down on z = 0 and centres it on the plate. */
export function orient(
  mesh: Mesh,
  quaternion: readonly [number, number, number, number],
): { mesh: Mesh; offset: Vector3 } {
  const { turned, offset } = turnedToPlate(mesh, quaternion)
  return { mesh: transformed(turned, identity3, offset), offset }
}

/** Dabs brushed on a body before it was stood up, on it as it stands. `offset` is what `orient` moved it by after turning it. */
export function orientedDabs(
  dabs: readonly BrushSpot[],
  quaternion: readonly [number, number, number, number],
  offset: readonly number[],
): { point: [number, number, number]; radius: number }[] {
  const turn = fromQuaternion(quaternion)
  return dabs.map((d) => ({
    point: apply3(turn, [...d.point]).map((v, k) => v + offset[k]!) as [number, number, number],
    radius: d.radius,
  }))
}
