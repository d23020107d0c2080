import { planeHull } from '../mesh/planeHull'
import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { message } from '../words/message'

/** One body of an assembly, placed. */
export interface Weight {
  mesh: Mesh
  /** g/cm³ of what it is printed of */
  density: number
  /** share of its inside that is filled, for filament; 1 is solid (a hollow body is hollow in its mesh) */
  infill: number
}
export interface BalanceReport {
  /** g */
  mass: number
  /** mm */
  centre: [number, number, number]
  /** mm, x y per corner: what it stands on, counter-clockwise */
  support: [number, number][]
  /** per direction all round (degrees from the front, which is −y, turning to the right of the viewer): how far it tips */
  tips: { direction: number; margin: number; angle: number }[]
  /** the weakest direction of all */
  weakest: { direction: number; margin: number; angle: number }
  /** J; work to topple it over its weakest edge */
  energy: number
  /** what makes it stand to the wished angle; null when it does already */
  remedy: { ballast: number | null; widen: number } | null
}

const GRAVITY = 9.81
/** mm above the lowest point within which skin counts as standing on the ground */
const CONTACT = 0.25
const DIRECTIONS = 72
/** mm of outer wall that filament bodies are printed with whatever their infill */
const FILAMENT_WALL = 1.2

/**
 * Whether the whole stands: centre of mass of all bodies with their own densities over the hull of what touches the
 * ground, and how far it can be tipped each way before it goes over: atan(margin / height) (methods.md 8).
 *
 * @param wish degrees that it should bear in every direction
 */
export function balance(weights: readonly Weight[], wish: number): Answer<BalanceReport> {
  let mass = 0
  const centre: [number, number, number] = [0, 0, 0]
  let ground = Infinity
  for (const w of weights) {
    const m = measure(w.mesh)
    const volume = Math.abs(m.volume)
    const wall = Math.min(volume, m.area * FILAMENT_WALL)
    const grams = ((w.infill >= 1 ? volume : wall + (volume - wall) * w.infill) / 1000) * w.density
    mass += grams
    for (let k = 0; k < 3; k++) centre[k]! += grams * m.centre[k]!
    ground = Math.min(ground, m.box.min[2])
  }
  if (!(mass > 0)) return bad('no-mass', message('problems.balance.theAssemblyHasNoMass'))
  for (let k = 0; k < 3; k++) centre[k]! /= mass
  const support = planeHull(
    weights.flatMap(({ mesh: { positions: p } }) => {
      const out: [number, number][] = []
      for (let i = 0; i < p.length; i += 3) if (p[i + 2]! < ground + CONTACT) out.push([p[i]!, p[i + 1]!])
      return out
    }),
  )
  if (support.length < 3) return bad('no-foot', message('problems.balance.itStandsOnAPoint'))
  const height = centre[2] - ground
  const tips = around(support, centre, height)
  const weakest = tips.reduce((a, b) => (b.angle < a.angle ? b : a))
  const r = Math.max(0, edgeMargin(support, centre))
  return good({
    mass,
    centre,
    support,
    tips,
    weakest,
    energy: (mass / 1000) * GRAVITY * ((Math.hypot(height, r) - height) / 1000),
    remedy: weakest.angle >= wish ? null : remedyFor(support, centre, height, mass, wish),
  })
}

type Flat = readonly [number, number]

function around(support: readonly Flat[], centre: readonly number[], height: number): BalanceReport['tips'] {
  return Array.from({ length: DIRECTIONS }, (_, i) => {
    const direction = (360 * i) / DIRECTIONS
    const a = (direction * Math.PI) / 180
    const margin = marginAlong(support, centre, [Math.sin(a), -Math.cos(a)])
    return { direction, margin, angle: (Math.atan2(margin, height) * 180) / Math.PI }
  })
}

/** mm from the centre's foot to the hull's edge in that direction; negative by how far it already lies outside. */
function marginAlong(support: readonly Flat[], c: readonly number[], d: Flat): number {
  let out = Infinity,
    outside = -Infinity
  for (let i = 0; i < support.length; i++) {
    const a = support[i]!,
      b = support[(i + 1) % support.length]!
    const l = Math.hypot(b[0] - a[0], b[1] - a[1])
    // Outward normal of a counter-clockwise hull.
    const nx = (b[1] - a[1]) / l,
      ny = (a[0] - b[0]) / l
    const away = nx * (c[0]! - a[0]) + ny * (c[1]! - a[1])
    if (away > 0) outside = Math.max(outside, away)
    const rate = nx * d[0] + ny * d[1]
    if (rate > 1e-12) out = Math.min(out, -away / rate)
  }
  return outside > 0 ? -outside : out
}

/** mm from the centre's foot to the nearest edge of the hull. */
const edgeMargin = (support: readonly Flat[], c: readonly number[]): number =>
  Math.min(
    ...support.map((a, i) => {
      const b = support[(i + 1) % support.length]!
      return ((b[0] - a[0]) * (c[1]! - a[1]) - (b[1] - a[1]) * (c[0]! - a[0])) / Math.hypot(b[0] - a[0], b[1] - a[1])
    }),
  )

/** Grams low in the middle of the foot, or the factor by which the foot must grow, until every direction bears it. */
function remedyFor(
  support: readonly Flat[],
  centre: readonly number[],
  height: number,
  mass: number,
  wish: number,
): { ballast: number | null; widen: number } {
  const middle: Flat = [
    support.reduce((s, p) => s + p[0], 0) / support.length,
    support.reduce((s, p) => s + p[1], 0) / support.length,
  ]
  const bears = (hullNow: readonly Flat[], c: readonly number[], h: number): boolean =>
    around(hullNow, c, h).every((t) => t.angle >= wish)
  // Ballast lies at a tenth of the present height: in the socle, not under it.
  const low = 0.1 * height
  const withBallast = (g: number): boolean =>
    bears(
      support,
      [(centre[0]! * mass + middle[0] * g) / (mass + g), (centre[1]! * mass + middle[1] * g) / (mass + g)],
      (height * mass + low * g) / (mass + g),
    )
  const widened = (k: number): boolean =>
    bears(
      support.map((p): Flat => [middle[0] + (p[0] - middle[0]) * k, middle[1] + (p[1] - middle[1]) * k]),
      centre,
      height,
    )
  const most = 20 * mass
  return { ballast: withBallast(most) ? least(0, most, withBallast) : null, widen: least(1, 20, widened) }
}

/** Smallest value in the range that satisfies a condition which, once true, stays true. */
function least(from: number, to: number, is: (v: number) => boolean): number {
  for (let i = 0; i < 60; i++) {
    const middle = (from + to) / 2
    if (is(middle)) to = middle
    else from = middle
  }
  return to
}
