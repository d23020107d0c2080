import type { Mesh } from '../../mesh/mesh'
import { bad, good, type Answer } from '../../answer'
import { message } from '../../words/message'

/**
 * The body that is printed flat on the plate and measured with a caliper: a slab with a slot through it and a square post on
 * it. Two outer lengths in one direction tell shrinkage from the spreading of light, the slot checks both, the foot tells how
 * far the first layers bleed.
 */
export const GAUGE = { x: 40, y: 30, slab: 4, slot: 10, post: 10, height: 20 }

export function gauge(): Mesh {
  const { x, y, slab, slot, post, height } = GAUGE
  const from = -x / 2 + 4
  // Fields of one height each; slot and post touch neither the rim nor each other, so walls meet edge to edge.
  const xs = [-x / 2, from, from + slot, 4, 4 + post, x / 2],
    ys = [-y / 2, -slot / 2, slot / 2, y / 2]
  return fields(xs, ys, (i, j) => (j !== 1 ? slab : i === 1 ? 0 : i === 3 ? height : slab))
}

/** A body that stands on z = 0, of rectangular fields between grid lines, each as tall as said; 0 is no body. */
function fields(xs: readonly number[], ys: readonly number[], tall: (i: number, j: number) => number): Mesh {
  const positions: number[] = [],
    triangles: number[] = [],
    known = new Map<string, number>()
  const at = (x: number, y: number, z: number): number => {
    const key = `${x} ${y} ${z}`
    let v = known.get(key)
    if (v === undefined) {
      known.set(key, (v = positions.length / 3))
      positions.push(x, y, z)
    }
    return v
  }
  const quad = (a: number, b: number, c: number, d: number): void => {
    triangles.push(a, b, c, a, c, d)
  }
  const height = (i: number, j: number): number =>
    i < 0 || j < 0 || i >= xs.length - 1 || j >= ys.length - 1 ? 0 : tall(i, j)
  for (let i = 0; i < xs.length - 1; i++)
    for (let j = 0; j < ys.length - 1; j++) {
      const h = height(i, j)
      if (h === 0) continue
      const [x0, x1, y0, y1] = [xs[i]!, xs[i + 1]!, ys[j]!, ys[j + 1]!]
      quad(at(x0, y0, h), at(x1, y0, h), at(x1, y1, h), at(x0, y1, h))
      quad(at(x0, y0, 0), at(x0, y1, 0), at(x1, y1, 0), at(x1, y0, 0))
      // A wall down to whatever lower field is beside it.
      for (const [di, dj, ax, ay, bx, by] of [
        [0, -1, x0, y0, x1, y0],
        [1, 0, x1, y0, x1, y1],
        [0, 1, x1, y1, x0, y1],
        [-1, 0, x0, y1, x0, y0],
      ] as const) {
        const low = height(i + di, j + dj)
        if (low < h) quad(at(ax, ay, low), at(bx, by, low), at(bx, by, h), at(ax, ay, h))
      }
    }
  return { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }
}

/** What the caliper says, mm. The slab is measured above its foot, at half its thickness or higher. */
export interface Measured {
  slabX: number
  slabY: number
  postX: number
  postY: number
  slotX: number
  slotY: number
  /** thickness of the slab, and from the plate to the top of the post */
  slabZ: number
  height: number
  /** along x, at the very foot */
  footX: number
}
export const gaugeNominal: Measured = {
  slabX: GAUGE.x,
  slabY: GAUGE.y,
  postX: GAUGE.post,
  postY: GAUGE.post,
  slotX: GAUGE.slot,
  slotY: GAUGE.slot,
  slabZ: GAUGE.slab,
  height: GAUGE.height,
  footX: GAUGE.x,
}

export interface Corrections {
  /** printed over drawn */
  scale: [number, number, number]
  /** mm per side */
  growth: number
  bleed: number
  /** mm, root mean square by which the six lengths miss what scale and growth explain: the caliper's own error, or a warp */
  residual: number
}

/** How far a printed length may be from the drawn one; farther, it is a slip of the pen. */
const BELIEVED = 0.1

/**
 * Corrections from the measured gauge. An outer length L prints as L·s + 2g, the slot as L·s − 2g; s is each axis' scale and
 * g the growth, one for both, by least squares over three lengths an axis. Upward, two heights tell the scale from what the
 * first layers lose.
 *
 * The gauge is printed without compensation; errors name what cannot be.
 */
export function corrections(m: Measured): Answer<Corrections> {
  for (const key of Object.keys(gaugeNominal) as (keyof Measured)[]) {
    const drawn = gaugeNominal[key]
    if (!(Math.abs(m[key] - drawn) <= Math.max(1, BELIEVED * drawn)))
      return bad(
        'gauge-unlikely',
        message('problems.calibrationPrint.ofMmIsFarFrom', { what: key, measured: m[key], drawn }),
      )
  }
  // Unknowns sx, sy, g; one row a length.
  const rows: [number, number, number, number][] = [
    [GAUGE.x, 0, 2, m.slabX],
    [GAUGE.post, 0, 2, m.postX],
    [GAUGE.slot, 0, -2, m.slotX],
    [0, GAUGE.y, 2, m.slabY],
    [0, GAUGE.post, 2, m.postY],
    [0, GAUGE.slot, -2, m.slotY],
  ]
  const [sx, sy, g] = leastSquares(rows)
  const residual = Math.sqrt(rows.reduce((s, [a, b, c, v]) => s + (a * sx + b * sy + c * g - v) ** 2, 0) / rows.length)
  return good({
    scale: [sx, sy, (m.height - m.slabZ) / (GAUGE.height - GAUGE.slab)],
    growth: g,
    bleed: Math.max(0, (m.footX - m.slabX) / 2),
    residual,
  })
}

/** Normal equations of three unknowns, by Cramer's rule: the lengths are of one size, so they are well conditioned. */
function leastSquares(rows: readonly [number, number, number, number][]): [number, number, number] {
  const n = Array.from({ length: 3 }, (_, i) =>
    Array.from({ length: 4 }, (_, j) => rows.reduce((s, r) => s + r[i]! * r[j]!, 0)),
  )
  const det = (c: number[][]): number =>
    c[0]![0]! * (c[1]![1]! * c[2]![2]! - c[1]![2]! * c[2]![1]!) -
    c[0]![1]! * (c[1]![0]! * c[2]![2]! - c[1]![2]! * c[2]![0]!) +
    c[0]![2]! * (c[1]![0]! * c[2]![1]! - c[1]![1]! * c[2]![0]!)
  const whole = det(n)
  return [0, 1, 2].map((k) => det(n.map((row) => row.map((v, j) => (j === k ? row[3]! : v)))) / whole) as [
    number,
    number,
    number,
  ]
}
