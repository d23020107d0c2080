import { GROWN, type EyeShares } from '../../defaults/paint'
import { bad, good, type Answer } from '../../answer'
import { unit, type Vector3 } from '../../math/vectors'
import { evenNumbers } from '../../math/random'
import { solved } from '../../math/solve'
import { fixed } from '../../words/format'
import { message } from '../../words/message'

/** A ball laid through places on its skin. */
export interface Ball {
  centre: Vector3
  radius: number
  /** mm; root mean square distance of the places from it */
  off: number
}

/**
 * The ball nearest to places on an eye, by linear least squares on |p|² = 2 c·p + (r² − |c|²) (Coope 1993).
 *
 * @param points four or more places, mm, not in one plane
 */
export function ballThrough(points: readonly Vector3[]): Answer<Ball> {
  if (points.length < 4) return bad('eye-few', message('problems.eyes.anEyeNeedsAtLeast'))
  const mean = [0, 1, 2].map((k) => points.reduce((s, p) => s + p[k]!, 0) / points.length)
  // Normal equations about the mean, for the centre's offset and the constant.
  const A = Array.from({ length: 4 }, () => new Float64Array(5))
  for (const p of points) {
    const q = [p[0] - mean[0]!, p[1] - mean[1]!, p[2] - mean[2]!, 1]
    const rhs = q[0]! * q[0]! + q[1]! * q[1]! + q[2]! * q[2]!
    for (let i = 0; i < 4; i++) {
      for (let j = 0; j < 4; j++) A[i]![j]! += q[i]! * q[j]!
      A[i]![4]! += q[i]! * rhs
    }
  }
  const scale = Math.max(...A.map((r) => Math.abs(r[0]!) + Math.abs(r[1]!) + Math.abs(r[2]!)))
  const { x, rank } = solved(A, 1e-9 * (scale + 1e-12))
  if (rank < 4) return bad('eye-flat', message('problems.eyes.thesePlacesAreInOne'))
  const c = [x[0]! / 2, x[1]! / 2, x[2]! / 2]
  const radius = Math.sqrt(Math.max(0, x[3]! + c[0]! ** 2 + c[1]! ** 2 + c[2]! ** 2))
  const centre = c.map((v, k) => v + mean[k]!) as unknown as Vector3
  const off = Math.sqrt(points.reduce((s, p) => s + (distance(p, centre) - radius) ** 2, 0) / points.length)
  return good({ centre, radius, off })
}

/** Trials of four places each: of skin half of which is the ball's, one in sixteen trials lies on it whole. */
const TRIALS = 400
/** Of the reach: how near to a ball a place counts as its own; of the radius it would be a plane's advantage. */
const NEAR = 0.035
/** Fewest of the places that must be the ball's; the rest may be a carved pupil, or the rim of a lid. */
const OWN = 0.4

/**
 * The ball that most of the places lie on (random sample consensus, Fischler and Bolles 1981), laid through those by
 * least squares; the same places give the same ball.
 *
 * @param outward which way the eye faces: its centre lies behind
 */
function agreedBall(places: readonly Vector3[], at: Vector3, outward: Vector3, reach: number): Answer<Ball> {
  const random = evenNumbers(places.length)
  const agree = (b: Ball): Vector3[] => places.filter((p) => Math.abs(distance(p, b.centre) - b.radius) < NEAR * reach)
  let best: Vector3[] = []
  for (let trial = 0; trial < TRIALS; trial++) {
    const ball = ballThrough(Array.from({ length: 4 }, () => places[Math.floor(random() * places.length)]!))
    if (!ball.ok) continue
    const { centre, radius } = ball.value
    const behind =
      (at[0] - centre[0]) * outward[0] + (at[1] - centre[1]) * outward[1] + (at[2] - centre[2]) * outward[2]
    // A ball smaller than what is looked at would be a wart on it, one that is far larger a plane.
    if (behind < 0.3 * radius || radius > FLAT * reach || radius < 0.6 * reach) continue
    const own = agree(ball.value)
    if (own.length > best.length) best = own
  }
  if (best.length < Math.max(4, OWN * places.length)) return ballThrough(places)
  return ballThrough(best)
}

/** Share of its radius by which the skin may be off an eyeball; and radius over the skin's reach above which it is flat. */
const ROUND = 0.06,
  FLAT = 8

/**
 * The eyeball about a place: the ball through its skin, refused where that is flat, hollow or no ball.
 *
 * @param places on the skin within `reach` mm of the place
 * @param normal outward there
 */
export function eyeballAt(places: readonly Vector3[], at: Vector3, normal: Vector3, reach: number): Answer<Ball> {
  if (places.length < 4) return bad('eye-few', message('problems.eyes.thereIsTooLittleSurface', { reach }))
  const ball = agreedBall(places, at, normal, reach)
  if (!ball.ok) return ball
  const { centre, radius, off } = ball.value
  const out = (at[0] - centre[0]) * normal[0] + (at[1] - centre[1]) * normal[1] + (at[2] - centre[2]) * normal[2]
  if (out < 0 || radius > FLAT * reach) return bad('eye-flat', message('problems.eyes.theSurfaceIsFlatOr'))
  if (off > ROUND * radius)
    return bad('eye-uneven', message('problems.eyes.withinMmOfThatPlace', { reach, off: fixed(off, 2) }))
  return ball
}

/** How the lids lie over the iris; heights are shares of the iris' diameter that the upper and the lower lid cover. */
export const LIDS = {
  awake: { upper: 0.12, lower: 0 },
  calm: { upper: 0.2, lower: 0.04 },
  weary: { upper: 0.36, lower: 0.04 },
  wide: { upper: 0, lower: 0 },
} as const
export type Lid = keyof typeof LIDS | 'as sculpted'
/** What stands where the sculpt has no lids to be seen. */
const UNSCULPTED = 'calm'

const CATCH = 0.07
export interface EyePlan {
  /** on the ball's skin, mm, as set down */
  iris: Vector3
  /** radii along the skin's plane, mm */
  irisRadius: number
  pupilRadius: number
  catchLight: Vector3
  catchRadius: number
  /** mm from the iris' upper edge, and from its lower, that the lids cover */
  upperCut: number
  lowerCut: number
  /** degrees between the axis as set down and the line to the target */
  gazeOff: number
  /** mm to which places are set down */
  step: number
  /** mm; the widest tip that can set the smallest spot */
  tip: number
}

/** Degrees by which an eye may miss its target unseen. */
export const GAZE = 1
const STEPS = [0.1, 0.05, 0.02, 0.01]

/**
 * Both eyes for one target: where iris, pupil and catch-light come on each ball so that both look at it. Places are set
 * down in tenths of a millimetre; where a tenth would turn an eye by more than a degree, in what keeps it within.
 *
 * @param target mm, outside of both balls
 * @param light unit; where the light comes from, for the catch-light, which lies on the same side in both eyes
 * @param viewer unit; from where the piece is looked at
 * @param shares of the ball that iris and pupil are
 * @param openings what the sculpt leaves open of each ball, for lids as sculpted; null where it shows no lids
 */
export function planEyes(
  balls: readonly Ball[],
  target: Vector3,
  lid: Lid,
  light: Vector3,
  viewer: Vector3,
  openings: readonly (LidOpening | null)[] = [],
  shares: EyeShares = GROWN,
): Answer<EyePlan[]> {
  if (balls.some((b) => distance(b.centre, target) < 1.5 * b.radius))
    return bad('gaze-near', message('problems.eyes.theTargetIsInOr'))
  const half = unit([light[0] + viewer[0], light[1] + viewer[1], light[2] + viewer[2]])
  return good(balls.map((b, i) => planEye(b, target, lid, half, openings[i] ?? null, shares)))
}

/**
 * How much of an iris the sculpt's own lids cover, mm from its upper and from its lower edge: along the ball they leave it
 * open so far up and down, whatever it looks at.
 */
function sculptedCut(radius: number, axis: Vector3, irisRadius: number, { up, down }: LidOpening) {
  const at = Math.atan2(axis[2], -axis[1]) * radius,
    half = Math.asin(irisRadius / radius) * radius
  const cut = (beyond: number): number => Math.max(0, Math.min(2, beyond / half)) * irisRadius
  return { upper: cut(at + half - up), lower: cut(half - at - down) }
}

function planEye(
  { centre, radius }: Ball,
  target: Vector3,
  lid: Lid,
  half: Vector3,
  opening: LidOpening | null,
  shares: EyeShares,
): EyePlan {
  const axis = unit([target[0] - centre[0], target[1] - centre[1], target[2] - centre[2]])
  const exact = along(centre, axis, radius)
  let step = STEPS[0]!,
    iris = exact,
    gazeOff = 0
  for (step of STEPS) {
    iris = exact.map((v) => Math.round(v / step) * step) as unknown as Vector3
    gazeOff = degreesBetween([iris[0] - centre[0], iris[1] - centre[1], iris[2] - centre[2]], axis)
    if (gazeOff <= GAZE) break
  }
  const irisRadius = shares.iris * radius
  // A mirror on the ball stands where its normal halves light and view; it is kept on the iris' edge where that is off it.
  const most = Math.asin(Math.min(1, shares.iris * 0.72)),
    turn = (degreesBetween(half, axis) * Math.PI) / 180
  const spot = turn <= most ? half : between(axis, half, most / turn)
  const covers = LIDS[lid === 'as sculpted' ? UNSCULPTED : lid]
  const cut =
    lid === 'as sculpted' && opening
      ? sculptedCut(radius, axis, irisRadius, opening)
      : { upper: covers.upper * 2 * irisRadius, lower: covers.lower * 2 * irisRadius }
  const catchRadius = CATCH * radius
  return {
    iris,
    irisRadius,
    pupilRadius: shares.pupil * radius,
    catchLight: along(centre, spot, radius),
    catchRadius,
    upperCut: cut.upper,
    lowerCut: cut.lower,
    gazeOff,
    step,
    // A tip sets a spot about as wide as itself.
    tip: 2 * catchRadius,
  }
}

const distance = (a: Vector3, b: Vector3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
const along = (from: Vector3, way: Vector3, by: number): Vector3 => [
  from[0] + way[0] * by,
  from[1] + way[1] * by,
  from[2] + way[2] * by,
]
/** Unit vector that is the share `t` of the turn from one to another. */
function between(a: Vector3, b: Vector3, t: number): Vector3 {
  const w = (degreesBetween(a, b) * Math.PI) / 180
  if (w < 1e-9) return a
  const p = Math.sin((1 - t) * w) / Math.sin(w),
    q = Math.sin(t * w) / Math.sin(w)
  return unit([p * a[0] + q * b[0], p * a[1] + q * b[1], p * a[2] + q * b[2]])
}
export function degreesBetween(a: Vector3, b: Vector3): number {
  const cross = Math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])
  return (Math.atan2(cross, a[0] * b[0] + a[1] * b[1] + a[2] * b[2]) * 180) / Math.PI
}

/** Where a gaze goes: so many degrees to the piece's own left and up, so far from between the eyes; the front is −y. */
export function gazeTarget(balls: readonly Ball[], turn: number, lift: number, far: number): Vector3 {
  const from = [0, 1, 2].map((k) => balls.reduce((s, b) => s + b.centre[k]!, 0) / balls.length)
  const t = (turn * Math.PI) / 180,
    l = (lift * Math.PI) / 180
  return along(from as unknown as Vector3, [Math.sin(t) * Math.cos(l), -Math.cos(t) * Math.cos(l), Math.sin(l)], far)
}

/** Which gaze meets a place: the inverse of `gazeTarget`; turn and lift in whole degrees. */
export function gazeAt(balls: readonly Ball[], place: Vector3): { turn: number; lift: number; distance: number } {
  const d = [0, 1, 2].map((k) => place[k]! - balls.reduce((s, b) => s + b.centre[k]!, 0) / balls.length)
  const far = Math.hypot(...d)
  const deg = 180 / Math.PI
  return {
    turn: Math.round(Math.atan2(d[0]!, -d[1]!) * deg),
    lift: Math.round(Math.asin(Math.max(-1, Math.min(1, d[2]! / (far || 1)))) * deg),
    distance: far,
  }
}

/** Share of the ball by which the skin may be off it and still be the eye itself, not a lid. */
const ON_BALL = 0.08

/** mm along the ball from the straight-ahead axis. */
export interface LidOpening {
  up: number
  down: number
}

/**
 * The opening that the sculpt leaves between the lids: how far up and down from the straight-ahead axis the skin is
 * the ball's own, mm along it; null where the sculpt has no lids to be seen, or hides the middle.
 *
 * @param positions skin, 3 per vertex
 */
export function lidOpening(positions: Float32Array, ball: Ball): LidOpening | null {
  const { centre: c, radius: r } = ball
  // A meridian a quarter of the ball wide, from the front: the nearest skin beyond which it leaves the ball.
  const off: { angle: number; on: boolean }[] = []
  for (let o = 0; o < positions.length; o += 3) {
    const x = positions[o]! - c[0],
      y = positions[o + 1]! - c[1],
      z = positions[o + 2]! - c[2]
    if (y > 0 || Math.abs(x) > 0.25 * r) continue
    const d = Math.sqrt(x * x + y * y + z * z)
    if (d > 1.6 * r || d < 0.6 * r) continue
    off.push({ angle: Math.atan2(z, -y), on: Math.abs(d - r) < ON_BALL * r })
  }
  const reach = (sign: 1 | -1): number | null => {
    const side = off.filter((p) => p.angle * sign >= 0).sort((a, b) => a.angle * sign - b.angle * sign)
    if (side.length < 4 || !side[0]!.on) return null
    const left = side.find((p, i) => !p.on && (side[i + 1] === undefined || !side[i + 1]!.on))
    return left ? Math.abs(left.angle) * r : null
  }
  const up = reach(1),
    down = reach(-1)
  return up === null || down === null ? null : { up, down }
}

/** Places on the skin about a point that face as it does on the whole, and how it faces: what an eye is laid through. */
export function placesAbout(
  positions: Float32Array,
  normals: Float32Array,
  point: Vector3,
  normal: Vector3,
  reach: number,
): { places: Vector3[]; normal: Vector3 } {
  const near: number[] = []
  // A press in a carved pupil meets its wall: the eye faces as the skin about it does.
  const sum = [0, 0, 0]
  for (let o = 0; o < positions.length; o += 3) {
    if (distance([positions[o]!, positions[o + 1]!, positions[o + 2]!], point) > reach) continue
    if (normals[o]! * normal[0] + normals[o + 1]! * normal[1] + normals[o + 2]! * normal[2] < 0) continue
    near.push(o)
    for (let k = 0; k < 3; k++) sum[k]! += normals[o + k]!
  }
  const faces = near.length > 0 ? unit(sum as unknown as Vector3) : normal
  return {
    normal: faces,
    places: near
      .filter((o) => normals[o]! * faces[0] + normals[o + 1]! * faces[1] + normals[o + 2]! * faces[2] > 0.5)
      .map((o): Vector3 => [positions[o]!, positions[o + 1]!, positions[o + 2]!]),
  }
}
