import { silent, type Report } from '../../answer'
import type { Mesh } from '../../mesh/mesh'
import { faceNormals } from '../../mesh/measure'
import { topology } from '../../mesh/topology'
import { frame, fromQuaternion, quaternionBetween, type Vector3 } from '../../math/vectors'
import { sphereDirections } from '../../math/directions'
import type { Importance } from './importance'
import { paretoFront } from '../../math/pareto'

/** What one way up costs. `up` is the direction of the body, in its own frame, that points away from the plate. */
export interface OrientationScore {
  up: Vector3
  /** rotation (x, y, z, w) that takes `up` to +z */
  quaternion: [number, number, number, number]
  /** mm; decides the printing time */
  height: number
  /** mm²; down-facing area below the overhang limit, weighted by importance: what supports will scar */
  scar: number
  /** mm²; the same, unweighted */
  overhang: number
  /** mm² of it on focal areas */
  focal: number
  /** mm³ of supports, about: a stem under every patch of a spacing squared */
  resin: number
  /** lowest points that begin in mid air */
  starts: number
  /** mm²; greatest layer: the hardest peel */
  peak: number
  /** mm²; largest suction cup in one layer, about; 0 until it was looked for */
  cup: number
  fits: boolean
  /** no other way up beats it in every respect */
  front: boolean
  score: number
}

export interface OrientationWish {
  /** overhang limit from the plate, degrees */
  limit: number
  /** build volume, mm */
  volume: [number, number, number]
  /** weight of scars per face, default 1, and which faces are focal areas */
  importance?: Importance
  directions?: number
  /** a direction of the body that is to look up, within so many degrees */
  keep?: { direction: Vector3; within: number } | null
  /** mm² of the largest suction cup with that way up, where it can be told */
  cups?: (up: Vector3) => number
}
/** mm between tips, mm² of a stem's section, mm from the raft to the lowest point: for the guess of supports. */
const SPACING = 3.5,
  STEM = Math.PI * 0.55 ** 2,
  LIFT = 6
/** Ways up whose cups are looked at: the front and the best, no more. */
const LOOKED_AT = 90

const BINS = 192
const AXES: readonly Vector3[] = [
  [0, 0, 1],
  [0, 0, -1],
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
]

/**
 * Scores a lattice of directions, then refines around the best (methods.md 4). The greatest layer comes from
 * the divergence theorem: the section at height h of a closed body equals minus the flux of the up vector
 * through the surface below h, so one histogram of signed face areas gives all sections at once.
 *
 * @param mesh closed; a simplified copy is enough (10,000 to 60,000 faces)
 */
export function scoreOrientations(mesh: Mesh, wish: OrientationWish, report: Report = silent): OrientationScore[] {
  const scorer = new Scorer(mesh, wish)
  const { keep } = wish
  const least = keep ? Math.cos((keep.within * Math.PI) / 180) - 1e-9 : -2
  const allowed = (up: Vector3): boolean =>
    !keep || up[0] * keep.direction[0] + up[1] * keep.direction[1] + up[2] * keep.direction[2] >= least
  // The ways the body came in stand beside the lattice: artists model bases flat, and flat is often right.
  const directions = [
    ...AXES,
    ...sphereDirections(wish.directions ?? 642),
    ...(keep ? capDirections(keep.direction, keep.within) : []),
  ].filter(allowed)
  const scores = directions.map((d, i) => {
    if ((i & 15) === 0) report((0.7 * i) / directions.length)
    return scorer.score(d)
  })
  rank(scores)
  // Refine: a small ring around each of the best few.
  const spread = Math.sqrt((4 * Math.PI) / (wish.directions ?? 642))
  for (const seed of scores.slice(0, 6)) {
    for (const [r, n] of [
      [spread / 2, 6],
      [spread / 4, 6],
    ] as const)
      for (let k = 0; k < n; k++) {
        const up = tilt(seed.up, r, (2 * Math.PI * (k + 0.5 * (r < spread / 3 ? 1 : 0))) / n)
        if (allowed(up)) scores.push(scorer.score(up))
      }
  }
  rank(scores)
  if (wish.cups) {
    const upright = scores.filter((s) => s.up[2] > 1 - 1e-6)
    const worth = [...upright, ...scores.filter((s) => s.front), ...scores].slice(0, LOOKED_AT)
    worth.forEach((s, i) => {
      report(0.75 + (0.25 * i) / worth.length)
      s.cup = wish.cups!(s.up)
    })
    // What was not looked at is not offered: its cups are not known.
    scores.splice(0, scores.length, ...new Set(worth))
    rank(scores)
  }
  report(1)
  return scores
}

/** Directions evenly over a cap about one, itself first. */
function capDirections(centre: Vector3, within: number): Vector3[] {
  const out: Vector3[] = [centre]
  const rings = 6
  for (let r = 1; r <= rings; r++) {
    const angle = ((within * r) / rings) * (Math.PI / 180)
    const n = Math.max(6, Math.round(6 * r))
    for (let k = 0; k < n; k++) out.push(tilt(centre, angle, (2 * Math.PI * k) / n))
  }
  return out
}

/** What counts, of which less is better, in the order of the weights by which the default is picked. */
export const COSTS: readonly ((s: OrientationScore) => number)[] = [
  (s) => s.scar,
  (s) => s.height,
  (s) => s.peak,
  (s) => s.starts,
  (s) => s.resin,
  (s) => s.cup,
]
const WEIGHTS = [1, 0.5, 0.35, 0.35, 0.25, 0.35]

/** Sorts best first and marks the front. Each cost counts relative to its median over all, so no unit dominates. */
function rank(scores: OrientationScore[]): void {
  const medians = COSTS.map((f) => {
    const v = scores.map(f).sort((a, b) => a - b)
    // Where half the ways cost nothing, what the others cost in the mean is the measure.
    return v[v.length >> 1]! || v.reduce((a, b) => a + b, 0) / v.length || 1
  })
  for (const s of scores)
    s.score = COSTS.reduce((sum, f, i) => sum + (WEIGHTS[i]! * f(s)) / medians[i]!, 0) + (s.fits ? 0 : 100)
  scores.sort((a, b) => a.score - b.score)
  // What does not fit is a choice only where nothing does.
  const choices = scores.some((s) => s.fits) ? scores.filter((s) => s.fits) : scores
  for (const s of scores) s.front = false
  for (const i of paretoFront(choices.map((s) => COSTS.map((f) => f(s))))) choices[i]!.front = true
}

function tilt(d: Vector3, angle: number, azimuth: number): Vector3 {
  const [u, v] = frame(d)
  const c = Math.cos(angle),
    x = Math.sin(angle) * Math.cos(azimuth),
    y = Math.sin(angle) * Math.sin(azimuth)
  return [0, 1, 2].map((k) => d[k]! * c + u[k]! * x + v[k]! * y) as unknown as Vector3
}

class Scorer {
  private readonly normals: Float32Array
  private readonly areas: Float32Array
  private readonly neighbourStart: Uint32Array
  private readonly neighbours: Uint32Array
  private readonly heights: Float32Array
  private readonly flux = new Float64Array(BINS)

  constructor(
    private readonly mesh: Mesh,
    private readonly wish: OrientationWish,
  ) {
    const f = faceNormals(mesh)
    this.normals = f.normals
    this.areas = f.areas
    const { triangles: t } = mesh
    const n = mesh.positions.length / 3
    this.heights = new Float32Array(n)
    const { twin } = topology(mesh)
    this.neighbourStart = new Uint32Array(n + 1)
    const once = (h: number): boolean => twin[h]! < 0 || twin[h]! > h
    for (let h = 0; h < t.length; h++)
      if (once(h)) {
        this.neighbourStart[t[h]! + 1]!++
        this.neighbourStart[t[h % 3 === 2 ? h - 2 : h + 1]! + 1]!++
      }
    for (let v = 0; v < n; v++) this.neighbourStart[v + 1]! += this.neighbourStart[v]!
    const fill = this.neighbourStart.slice()
    this.neighbours = new Uint32Array(this.neighbourStart[n]!)
    for (let h = 0; h < t.length; h++) {
      if (!once(h)) continue
      const a = t[h]!,
        b = t[h % 3 === 2 ? h - 2 : h + 1]!
      this.neighbours[fill[a]!++] = b
      this.neighbours[fill[b]!++] = a
    }
  }

  score(up: Vector3): OrientationScore {
    const { positions: p, triangles: t } = this.mesh
    const [ux, uy, uz] = up
    const z = this.heights
    let lo = Infinity,
      hi = -Infinity
    for (let v = 0; v < z.length; v++) {
      const h = p[v * 3]! * ux + p[v * 3 + 1]! * uy + p[v * 3 + 2]! * uz
      z[v] = h
      if (h < lo) lo = h
      if (h > hi) hi = h
    }
    const height = hi - lo
    // Steeper than the limit from the plate supports itself: n·up < −cos(limit) does not.
    const hanging = -Math.cos((this.wish.limit * Math.PI) / 180)
    const { flux, normals, areas } = this
    flux.fill(0)
    const scale = (BINS - 1e-6) / (height || 1)
    let scar = 0,
      overhang = 0,
      focal = 0,
      reach = 0
    const { importance } = this.wish
    for (let f = 0; f < areas.length; f++) {
      const n = normals[f * 3]! * ux + normals[f * 3 + 1]! * uy + normals[f * 3 + 2]! * uz
      const middle = (z[t[f * 3]!]! + z[t[f * 3 + 1]!]! + z[t[f * 3 + 2]!]!) / 3 - lo
      flux[(middle * scale) | 0]! += n * areas[f]!
      // What lies on the raft itself needs no tips.
      if (n < hanging && middle > 0.3) {
        overhang += areas[f]!
        scar += areas[f]! * (importance?.weights[f] ?? 1)
        if (importance?.focal[f]) focal += areas[f]!
        reach += areas[f]! * (middle + LIFT)
      }
    }
    let section = 0,
      peak = 0
    for (let b = 0; b < BINS; b++) {
      section -= flux[b]!
      if (section > peak) peak = section
    }
    let starts = 0
    for (let v = 0; v < z.length; v++) {
      const from = this.neighbourStart[v]!,
        to = this.neighbourStart[v + 1]!
      let lowest = to > from
      for (let i = from; i < to && lowest; i++) lowest = z[this.neighbours[i]!]! > z[v]!
      if (lowest) starts++
    }
    const size = this.footprint(up)
    const [vx, vy, vz] = this.wish.volume
    const fits = height <= vz && ((size[0] <= vx && size[1] <= vy) || (size[0] <= vy && size[1] <= vx))
    return {
      up,
      quaternion: quaternionBetween(up, [0, 0, 1]),
      height,
      scar,
      overhang,
      focal,
      resin: (reach * STEM) / SPACING ** 2,
      starts,
      peak,
      cup: 0,
      fits,
      front: false,
      score: 0,
    }
  }

  private footprint(up: Vector3): [number, number] {
    const m = fromQuaternion(quaternionBetween(up, [0, 0, 1]))
    const p = this.mesh.positions
    let x0 = Infinity,
      x1 = -Infinity,
      y0 = Infinity,
      y1 = -Infinity
    for (let i = 0; i < p.length; i += 3) {
      const a = m[0] * p[i]! + m[1] * p[i + 1]! + m[2] * p[i + 2]!,
        b = m[3] * p[i]! + m[4] * p[i + 1]! + m[5] * p[i + 2]!
      if (a < x0) x0 = a
      if (a > x1) x1 = a
      if (b < y0) y0 = b
      if (b > y1) y1 = b
    }
    return [x1 - x0, y1 - y0]
  }
}
