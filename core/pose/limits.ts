import { cross, dot, minus, type Vector3 } from '../math/vectors'
import { motionsOf, type Joint, type Quaternion } from './skeleton'
import { jointAt } from './volume'

/** Degrees that a healthy adult's joint allows; starting values, as a sculptor checks a pose by eye. */
interface Range {
  /** between the limb before the joint and the one after it; 0 is straight on */
  bend: readonly [number, number]
  /** about the limb after it, either way */
  twist: number
}
const RANGES: Record<string, Range> = {
  chest: { bend: [0, 60], twist: 45 },
  neck: { bend: [0, 65], twist: 80 },
  elbow: { bend: [0, 150], twist: 90 },
  wrist: { bend: [0, 85], twist: 30 },
  knee: { bend: [0, 150], twist: 30 },
  ankle: { bend: [30, 125], twist: 30 },
}

export interface Strain {
  joint: number
  name: string
  way: 'bend' | 'twist' | 'backward'
  /** degrees it has, and may have */
  has: number
  may: number
}

const plain = (name: string): string => name.replace(/^(left|right) /, '')
/** A knee is straight to the eye within this, degrees. */
const STRAIGHT = 10

/**
 * Joints of a figure that are bent or twisted farther than a body can: by the angle between the limbs, not by that of the
 * turn, so that it holds whatever pose the sculpt came in. Joints without a known name are free.
 */
export function strains(joints: readonly Joint[]): Strain[] {
  const motions = motionsOf(joints)
  const places = joints.map((j, i) => jointAt(j, motions[i]!))
  const index = (name: string): number => joints.findIndex((j) => j.name === name)
  const left = index('left hip'),
    right = index('right hip')
  const out: Strain[] = []
  for (const [i, j] of joints.entries()) {
    const range = RANGES[plain(j.name)]
    const child = joints.findIndex((c) => c.parent === i)
    if (!range || j.parent < 0 || child < 0) continue
    const before = minus(places[i]!, places[j.parent]!),
      after = minus(places[child]!, places[i]!)
    const bend = degrees(angle(before, after))
    const [least, most] = range.bend
    if (bend > most + 1e-6) out.push({ joint: i, name: j.name, way: 'bend', has: bend, may: most })
    else if (bend < least - 1e-6) out.push({ joint: i, name: j.name, way: 'bend', has: bend, may: least })
    // A limb's own axis before the pose is what it twists about.
    const twist = Math.abs(degrees(twistAbout(j.turn, minus(joints[child]!.position, j.position))))
    if (twist > range.twist + 1e-6) out.push({ joint: i, name: j.name, way: 'twist', has: twist, may: range.twist })
    if (plain(j.name) !== 'knee' || left < 0 || right < 0 || bend < STRAIGHT) continue
    // A shin goes back from its thigh: turned about the line from the right hip to the left.
    const across = minus(places[left]!, places[right]!)
    if (dot(cross(before, after), across) < 0)
      out.push({ joint: i, name: j.name, way: 'backward', has: bend, may: STRAIGHT })
  }
  return out
}

/**
 * The joints with that one turned only as far as it may: its turn taken back toward what it was, by halving, until it
 * strains no more than it did.
 */
export function withinLimits<J extends Joint>(joints: readonly J[], joint: number, was: Quaternion): J[] {
  const strained = (turn: Quaternion): number =>
    strains(joints.map((j, i) => (i === joint ? { ...j, turn } : j)))
      .filter((s) => s.joint === joint || joints[s.joint]?.parent === joint)
      .reduce((sum, s) => sum + Math.abs(s.has - s.may), 0)
  const before = strained(was),
    wish = joints[joint]!.turn
  if (strained(wish) <= before + 1e-9) return [...joints]
  let least = 0,
    most = 1
  for (let k = 0; k < 12; k++) {
    const middle = (least + most) / 2
    if (strained(slerp(was, wish, middle)) <= before + 1e-9) least = middle
    else most = middle
  }
  return joints.map((j, i) => (i === joint ? { ...j, turn: slerp(was, wish, least) } : j))
}

/** The short way from one turn to another. */
export function slerp(a: Quaternion, b: Quaternion, t: number): Quaternion {
  let d = a.reduce((s, v, k) => s + v * b[k]!, 0)
  const sign = d < 0 ? -1 : 1
  d = Math.min(1, Math.abs(d))
  const angle = Math.acos(d)
  const [u, v] =
    angle < 1e-6 ? [1 - t, t] : [Math.sin((1 - t) * angle) / Math.sin(angle), Math.sin(t * angle) / Math.sin(angle)]
  const q = a.map((x, k) => u * x + v * sign * b[k]!)
  const l = Math.hypot(...q) || 1
  return q.map((x) => x / l) as unknown as Quaternion
}

/** Radians of a turn about an axis: the twist of its swing and twist. */
export function twistAbout([x, y, z, w]: Quaternion, axis: Vector3): number {
  const l = Math.hypot(...axis) || 1
  const along = (x * axis[0] + y * axis[1] + z * axis[2]) / l
  const a = 2 * Math.atan2(along, w)
  return a > Math.PI ? a - 2 * Math.PI : a < -Math.PI ? a + 2 * Math.PI : a
}

const angle = (a: Vector3, b: Vector3): number => Math.atan2(Math.hypot(...cross(a, b)), dot(a, b))
const degrees = (r: number): number => (r * 180) / Math.PI
