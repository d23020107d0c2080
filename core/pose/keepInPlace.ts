import {
  cross,
  dot,
  minus,
  apply3,
  fromQuaternion,
  multiplyQuaternions,
  quaternionBetween,
  type Vector3,
} from '../math/vectors'
import { motionsOf, type Joint, type Quaternion } from './skeleton'
import { jointAt } from './volume'

/** A joint that stays where it was while the rest moves: a foot on the ground, a hand on a rail. */
export interface Hold {
  joint: number
  /** mm, where it is to be */
  place: Vector3
  /** how it stood there, in the world */
  turn: Quaternion
}

/**
 * Turns the two joints above each held one so that this comes back to its place, and the held one so that it stands as it
 * stood: the triangle of upper limb, lower limb and the way to the place, bent in the plane in which the limb is bent now
 * (two-bone inverse kinematics). Out of reach the limb is stretched straight toward the place.
 *
 * @returns the joints, and mm by which each hold falls short
 */
export function keptInPlace<J extends Joint>(
  joints: readonly J[],
  holds: readonly Hold[],
): { joints: J[]; short: number[] } {
  let now = [...joints]
  const short = holds.map((hold) => {
    const end = now[hold.joint]!
    const middle = end.parent,
      root = middle >= 0 ? now[middle]!.parent : -1
    if (root < 0) return Infinity
    const motions = motionsOf(now)
    const at = (i: number): Vector3 => jointAt(now[i]!, motions[i]!)
    const a = minus(at(middle), at(root)),
      b = minus(at(hold.joint), at(middle)),
      way = minus(hold.place, at(root))
    const la = Math.hypot(...a),
      lb = Math.hypot(...b)
    const far = Math.hypot(...way)
    const d = Math.min(la + lb - 1e-9, Math.max(Math.abs(la - lb) + 1e-9, far))
    // Bend at the middle until the end is as far from the root as the place is: the law of cosines.
    const wanted = Math.PI - Math.acos(clamp((la * la + lb * lb - d * d) / (2 * la * lb)))
    const has = Math.atan2(Math.hypot(...cross(a, b)), dot(a, b))
    const axis = unit(cross(a, b)) ?? unit(cross(a, [1, 0, 0])) ?? unit(cross(a, [0, 1, 0]))!
    const bend = about(axis, wanted - has)
    const bent = apply3(fromQuaternion(bend), b)
    // Then aim the whole limb at the place.
    const toEnd = [0, 1, 2].map((k) => a[k]! + bent[k]!) as unknown as Vector3
    const aim = quaternionBetween(unit(toEnd) ?? [0, 0, 1], unit(way) ?? [0, 0, 1])
    const rootTurn = multiplyQuaternions(aim, motions[root]!.turn),
      middleTurn = multiplyQuaternions(aim, multiplyQuaternions(bend, motions[middle]!.turn))
    const above = now[root]!.parent >= 0 ? motions[now[root]!.parent]!.turn : ([0, 0, 0, 1] as const)
    const turns = new Map<number, Quaternion>([
      [root, multiplyQuaternions(inverse(above), rootTurn)],
      [middle, multiplyQuaternions(inverse(rootTurn), middleTurn)],
      [hold.joint, multiplyQuaternions(inverse(middleTurn), hold.turn)],
    ])
    now = now.map((j, i) => (turns.has(i) ? { ...j, turn: turns.get(i)! } : j))
    return Math.max(0, far - la - lb, Math.abs(la - lb) - far)
  })
  return { joints: now, short }
}

/** Where joints stand now, to be held there. */
export function holdsOf(joints: readonly Joint[], which: readonly number[]): Hold[] {
  const motions = motionsOf(joints)
  return which.map((joint) => ({
    joint,
    place: jointAt(joints[joint]!, motions[joint]!),
    turn: motions[joint]!.turn,
  }))
}

function unit(v: Vector3): Vector3 | null {
  const l = Math.hypot(...v)
  return l < 1e-9 ? null : [v[0] / l, v[1] / l, v[2] / l]
}
const clamp = (v: number): number => Math.min(1, Math.max(-1, v))
const inverse = ([x, y, z, w]: Quaternion): Quaternion => [-x, -y, -z, w]
const about = (axis: Vector3, angle: number): Quaternion => {
  const s = Math.sin(angle / 2)
  return [axis[0] * s, axis[1] * s, axis[2] * s, Math.cos(angle / 2)]
}
