import type { Mesh } from '../mesh/mesh'
import { fromQuaternion, type Matrix3 } from '../math/vectors'
import { transformed } from '../mesh/transform'

export interface Placement {
  /** x, y, z, w; turns about the world's origin */
  quaternion: readonly [number, number, number, number]
  /** mm, after the turn */
  shift: readonly [number, number, number]
  /** mirrored left to right (x ↦ −x) before anything else */
  mirror: boolean
}

/** The body mirrored, turned and shifted into its place in the piece. */
export function place(mesh: Mesh, { quaternion, shift, mirror }: Placement): Mesh {
  const r = fromQuaternion(quaternion)
  const m: Matrix3 = mirror ? [-r[0], r[1], r[2], -r[3], r[4], r[5], -r[6], r[7], r[8]] : r
  return transformed(mesh, m, shift)
}
