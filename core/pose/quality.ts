import { faceCross, lengthOf } from '../mesh/face'
import { measure } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { fromQuaternion } from '../math/vectors'
import type { Joint, Motion } from './skeleton'
import { jointAt, tetrahedron } from './volume'

export interface JointQuality {
  name: string
  /** degrees by which it is turned */
  turned: number
  /** share by which the volume about the joint changed */
  volumeChange: number
  /** 95th percentile of how much longer edges about it became */
  stretch: number
  /** faces about it whose skin turned over */
  flipped: number
  /** where it stands now, mm */
  at: [number, number, number]
}

export interface PoseReport {
  /** faces whose skin turned over */
  flipped: number
  /** share by which the whole volume changed */
  volumeChange: number
  /** per joint that was turned */
  joints: JointQuality[]
}

/** Skin counts to a joint when both sides of it pull at least this much. */
const SHARED = 0.06

/** What a pose did to the skin: faces turned over, volume and stretch, for the whole and about each turned joint. */
export function poseQuality(
  rest: Mesh,
  posed: Mesh,
  joints: readonly Joint[],
  motions: readonly Motion[],
  weights: Float32Array,
): PoseReport {
  const m = joints.length
  const { positions: p, triangles: t } = rest
  const q = posed.positions
  const turned = joints.flatMap((j, i) => {
    const angle = 2 * Math.acos(Math.min(1, Math.abs(j.turn[3]) / (Math.hypot(...j.turn) || 1)))
    return angle > 0.01 && j.parent >= 0 ? [{ i, angle }] : []
  })
  const facts = turned.map(({ i, angle }) => {
    const at = jointAt(joints[i]!, motions[i]!)
    return { i, angle, at, before: 0, after: 0, stretches: new Float64Array(BINS + 1), flipped: 0 }
  })
  const was = new Float64Array(3),
    is = new Float64Array(3)
  const matrices = motions.map((o) => fromQuaternion(o.turn))
  let flipped = 0
  for (let f = 0; f < t.length; f += 3) {
    const c = [t[f]!, t[f + 1]!, t[f + 2]!] as const
    faceCross(p, c[0] * 3, c[1] * 3, c[2] * 3, was)
    faceCross(q, c[0] * 3, c[1] * 3, c[2] * 3, is)
    // Turned over against what its strongest joint did with it.
    let most = 0
    for (let j = 1; j < m; j++) if (weights[c[0] * m + j]! > weights[c[0] * m + most]!) most = j
    const r = matrices[most]!
    const dot =
      (r[0] * was[0]! + r[1] * was[1]! + r[2] * was[2]!) * is[0]! +
      (r[3] * was[0]! + r[4] * was[1]! + r[5] * was[2]!) * is[1]! +
      (r[6] * was[0]! + r[7] * was[1]! + r[8] * was[2]!) * is[2]!
    const over = dot < -0.2 * lengthOf(was) * lengthOf(is)
    if (over) flipped++
    for (const fact of facts) {
      const mine = weights[c[0] * m + fact.i]!,
        above = weights[c[0] * m + joints[fact.i]!.parent]!
      if (Math.min(mine, above) < SHARED) continue
      if (over) fact.flipped++
      fact.before += tetrahedron(p, ...c, joints[fact.i]!.position)
      fact.after += tetrahedron(q, ...c, fact.at)
      for (let k = 0; k < 3; k++) {
        const a = c[k]! * 3,
          b = c[(k + 1) % 3]! * 3
        const l0 = apart(p, a, b),
          l1 = apart(q, a, b)
        if (l0 > 1e-6) fact.stretches[Math.min(BINS, Math.floor(l1 / l0 / BIN))]!++
      }
    }
  }
  const v0 = measure(rest).volume,
    v1 = measure(posed).volume
  return {
    flipped,
    volumeChange: v0 === 0 ? 0 : v1 / v0 - 1,
    joints: facts.map(({ i, angle, at, before, after, stretches, flipped: own }) => {
      return {
        name: joints[i]!.name,
        turned: (angle * 180) / Math.PI,
        volumeChange: before > 0 ? after / before - 1 : 0,
        stretch: percentile(stretches, 0.95),
        flipped: own,
        at,
      }
    }),
  }
}

/** Width of the bins in which stretches are counted, and how many there are: to a thousandth, up to fourfold. */
const BIN = 1e-3,
  BINS = 4000
function percentile(counts: Float64Array, q: number): number {
  const all = counts.reduce((a, b) => a + b, 0)
  if (all === 0) return 1
  let sum = 0
  for (let i = 0; i <= BINS; i++) if ((sum += counts[i]!) > q * all) return (i + 0.5) * BIN
  return BINS * BIN
}

function apart(p: Float32Array, a: number, b: number): number {
  const x = p[a]! - p[b]!,
    y = p[a + 1]! - p[b + 1]!,
    z = p[a + 2]! - p[b + 2]!
  return Math.sqrt(x * x + y * y + z * z)
}
