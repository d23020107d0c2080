import { apply3, fromQuaternion, multiplyQuaternions, type Vector3 } from '../math/vectors'

export type Quaternion = readonly [number, number, number, number]
export interface Joint {
  name: string
  /** index of the joint it hangs on; −1 for a root */
  parent: number
  /** mm, inside the sculpt as it came */
  position: Vector3
  /** how it is turned against its parent, x y z w */
  turn: Quaternion
}

/** A rigid motion: turn by the quaternion, then shift. */
export interface Motion {
  turn: Quaternion
  shift: Vector3
}

/** Stretch of the sculpt that moves with one joint: from it to each joint that hangs on it. */
export interface Bone {
  joint: number
  from: Vector3
  to: Vector3
}

/** A joint on which nothing hangs only marks the end of its parent's bone. */
export function bonesOf(joints: readonly Joint[]): Bone[] {
  return joints.flatMap((j) =>
    j.parent < 0 ? [] : [{ joint: j.parent, from: joints[j.parent]!.position, to: j.position }],
  )
}

/**
 * How each joint carries what hangs on it, by forward kinematics from the roots. Parents stand before their children.
 *
 * @throws RangeError when a parent comes after its child
 */
export function motionsOf(joints: readonly Joint[]): Motion[] {
  const global: Quaternion[] = [],
    placed: Vector3[] = []
  return joints.map((j, i) => {
    if (j.parent >= i) throw new RangeError('Parents must stand before their children.')
    const above = j.parent < 0 ? ([0, 0, 0, 1] as const) : global[j.parent]!
    const q = multiplyQuaternions(above, j.turn)
    const p: Vector3 =
      j.parent < 0
        ? j.position
        : (apply3(fromQuaternion(above), j.position.map((v, k) => v - joints[j.parent]!.position[k]!) as never).map(
            (v, k) => v + placed[j.parent]![k]!,
          ) as never)
    global.push(q)
    placed.push(p)
    const turned = apply3(fromQuaternion(q), j.position)
    return { turn: q, shift: p.map((v, k) => v - turned[k]!) as never }
  })
}
