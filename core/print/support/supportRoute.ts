import vocabulary from '../../words/en/vocabulary.json' with { type: 'json' }
import { closest, closestPoint } from '../../mesh/closest'
import { faceCross, lengthOf } from '../../mesh/face'
import { rayFirst } from '../../mesh/ray'
import type { Tree } from '../../mesh/tree'
import { Clearance } from '../../volume/clearance'
import { bounds, boxDiagonal, type Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import type { Contact } from './supportNeed'

/** Sizes of a support, mm. */
export interface Grade {
  tip: number
  neck: number
  stem: number
}
/** Names in stored records: they are shown as fine, medium and strong. */
export type GradeName = 'whisker' | 'strut' | 'post'
/** What a size is called: fine holds detail, medium is the usual one, strong carries load. */
export const gradeWords: Record<GradeName, string> = vocabulary.tipSize
export const GRADE_NAMES: readonly GradeName[] = ['whisker', 'strut', 'post']
export const gradeDefaults: Record<GradeName, Grade> = {
  whisker: { tip: 0.3, neck: 1.6, stem: 0.9 },
  strut: { tip: 0.5, neck: 2.0, stem: 1.2 },
  post: { tip: 0.8, neck: 2.5, stem: 1.8 },
}

export interface Route {
  /** from the tip on the skin down to the foot */
  path: Vector3[]
  landsOn: 'plate' | 'body'
}

/** How far the tip's end goes into the skin so that it holds, mm. */
export const BITE = 0.12

/**
 * A way for one support: a neck along the skin's normal, within a cone around straight down, then down to
 * `floor`; when the body is in the way, by a slanted reach to the side; when no side is free, down onto the body.
 * Every stretch below the neck keeps `clearance` plus its own radius from the body, proved by sphere tracing on
 * the exact distance.
 *
 * @param scarAt what a scar counts at a place of the skin with that normal: a foot on the body goes where it is least
 */
export function route(
  body: Obstacle,
  contact: Contact,
  grade: Grade,
  floor: number,
  clearance: number,
  scarAt: (p: Vector3, n: Vector3) => number = () => 1,
): Route | null {
  const keep = grade.stem / 2 + clearance
  const { point: p, normal: n } = contact
  for (const lean of [1, 0.6, 0.3, 0]) {
    for (const stretch of [1, 1.8, 0.6]) {
      const d = neckDirection(n, lean)
      const length = grade.neck * stretch
      const joint: Vector3 = [p[0] + d[0] * length, p[1] + d[1] * length, p[2] + d[2] * length]
      if (joint[2] <= floor + 0.2) continue
      if (!clear(body, along(p, d, length * 0.55), joint, grade.tip / 2 + clearance * 0.4)) continue
      const foot: Vector3 = [joint[0], joint[1], floor]
      if (clear(body, joint, foot, keep)) return { path: [p, joint, foot], landsOn: 'plate' }
      const aside = sidestep(body, joint, floor, keep)
      if (aside) return { path: [p, joint, aside, [aside[0], aside[1], floor]], landsOn: 'plate' }
    }
  }
  return landOnBody(body, contact, grade, clearance, scarAt)
}

/** The skin's normal turned toward straight down, never flatter than 30° below the horizon. */
function neckDirection(n: Vector3, lean: number): Vector3 {
  const x = n[0] * lean,
    y = n[1] * lean
  const z = Math.min(n[2] * lean - (1 - lean), -0.577 * Math.hypot(x, y) - 1e-3)
  const l = Math.hypot(x, y, z)
  return [x / l, y / l, z / l]
}

const along = (p: Vector3, d: Vector3, t: number): Vector3 => [p[0] + d[0] * t, p[1] + d[1] * t, p[2] + d[2] * t]

/** Nearest place from which the way down is free, reached at no more than 45° from the vertical. */
function sidestep(body: Obstacle, joint: Vector3, floor: number, keep: number): Vector3 | null {
  for (const out of [1.5, 3, 5, 8, 12, 17, 24, 32]) {
    const drop = out * 1.05
    if (joint[2] - drop <= floor + 0.3) break
    for (let k = 0; k < 16; k++) {
      const a = (k * Math.PI) / 8
      const to: Vector3 = [joint[0] + Math.cos(a) * out, joint[1] + Math.sin(a) * out, joint[2] - drop]
      if (clear(body, to, [to[0], to[1], floor], keep) && clear(body, joint, to, keep)) return to
    }
  }
  return null
}

/** A foot on skin that counts less than this is not moved for something better. */
const SMALL_SCAR = 0.3
/** What a mm of stem counts against a scar's weight of 1: only equals are told apart by it. */
const PER_MM = 0.004

/**
 * Onto the body below, where a scar counts least: straight down, or off to the side no flatter than 45°. The foot bites into
 * the skin, so only the stretch between two short necks must be clear.
 */
function landOnBody(
  body: Obstacle,
  contact: Contact,
  grade: Grade,
  clearance: number,
  scarAt: (p: Vector3, n: Vector3) => number,
): Route | null {
  const { point: p } = contact
  let best: { way: Route; cost: number } | null = null
  const thin = grade.tip / 2 + clearance * 0.4
  const down = (from: Vector3, neck: number): { path: Vector3[]; scar: number; drop: number } | null => {
    const hit = rayFirst(body.tree, from[0], from[1], from[2], 0, 0, -1, 0.05)
    if (!hit || hit.leaving) return null
    const foot: Vector3 = [from[0], from[1], from[2] - hit.t]
    const neckEnd: Vector3 = [from[0], from[1], foot[2] + Math.min(neck, hit.t / 2)]
    if (!clear(body, from, neckEnd, Math.min(thin, Math.max(0.1, hit.t * 0.3)))) return null
    return { path: [neckEnd, foot], scar: scarAt(foot, normalAt(body.tree.mesh, hit.face)), drop: hit.t }
  }
  const consider = (path: Vector3[], end: ReturnType<typeof down>, aside: number): void => {
    if (!end) return
    const cost = end.scar + PER_MM * (end.drop + aside)
    if (!best || cost < best.cost) best = { way: { path: [...path, ...end.path], landsOn: 'body' }, cost }
  }
  for (const lean of [0.5, 0, 1])
    for (const stretch of [1, 0.5, 0.25]) {
      const neck = grade.neck * stretch
      const joint = along(p, neckDirection(contact.normal, lean), neck)
      consider([p, joint], down(joint, neck), 0)
      if (best && (best as { cost: number }).cost < SMALL_SCAR) return (best as { way: Route }).way
      for (const out of [2, 4, 7])
        for (let k = 0; k < 12; k++) {
          const a = (k * Math.PI) / 6
          const to: Vector3 = [joint[0] + Math.cos(a) * out, joint[1] + Math.sin(a) * out, joint[2] - 1.05 * out]
          if (clear(body, joint, to, grade.stem / 2 + clearance / 2))
            consider([p, joint, to], down(to, neck), 1.45 * out)
        }
      if (best) return (best as { way: Route }).way
    }
  return null
}

const out = new Float64Array(3)
function normalAt({ positions: p, triangles: t }: Mesh, face: number): Vector3 {
  faceCross(p, t[face * 3]! * 3, t[face * 3 + 1]! * 3, t[face * 3 + 2]! * 3, out)
  const l = lengthOf(out) || 1
  return [out[0]! / l, out[1]! / l, out[2]! / l]
}

/** The body that supports must keep off, with a coarse map of the free space around it. */
export interface Obstacle {
  readonly tree: Tree
  readonly free: Clearance
}
export const obstacle = (tree: Tree): Obstacle => ({
  tree,
  free: new Clearance(tree, Math.min(1.6, Math.max(0.4, boxDiagonal(bounds(tree.mesh)) / 140)), 8),
})

const hit = closest()
/** Whether a capsule of radius `keep` around the segment stays off the body: sphere tracing from a to b. */
export function clear({ tree, free }: Obstacle, a: Vector3, b: Vector3, keep: number): boolean {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2])
  if (length === 0) return closestPoint(tree, a[0], a[1], a[2], hit, keep) === Infinity
  const ux = (b[0] - a[0]) / length,
    uy = (b[1] - a[1]) / length,
    uz = (b[2] - a[2]) / length
  for (let t = 0; ;) {
    const x = a[0] + ux * t,
      y = a[1] + uy * t,
      z = a[2] + uz * t
    let room = free.atLeast(x, y, z)
    if (room < keep + 0.3) {
      // Only where it is narrow is the exact distance searched for, and no farther than needed.
      const reach = keep + 1
      room = Math.min(reach, closestPoint(tree, x, y, z, hit, reach))
      if (room < keep) return false
    }
    if (t >= length) return true
    t = Math.min(length, t + Math.max(0.04, room - keep))
  }
}

/** mm up to which a stem's distance from the body is measured */
const LOOKED = 12

/**
 * mm that a support's stem keeps from the body: from its joint, below the neck, down to its foot, or to the neck above a
 * foot that stands on the body. `LOOKED` where it is farther.
 */
export function stemClearance({ tree, free }: Obstacle, r: Route, radius: number): number {
  const last = r.landsOn === 'body' ? r.path.length - 1 : r.path.length
  let least = LOOKED
  for (let i = 1; i + 1 < last; i++) {
    const [a, b] = [r.path[i]!, r.path[i + 1]!]
    const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2])
    const n = Math.max(1, Math.ceil(length / 0.5))
    // The joint itself is the neck's end, where the skin is near.
    for (let k = i === 1 ? 1 : 0; k <= n; k++) {
      const [x, y, z] = [0, 1, 2].map((c) => a[c]! + ((b[c]! - a[c]!) * k) / n) as [number, number, number]
      if (free.atLeast(x, y, z) - radius > least) continue
      const d = closestPoint(tree, x, y, z, hit, least + radius)
      if (d !== Infinity) least = Math.min(least, d - radius)
    }
  }
  return Math.max(0, least)
}
