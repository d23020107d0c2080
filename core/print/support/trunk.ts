import type { Vector3 } from '../../math/vectors'
import { clear, type Obstacle } from './supportRoute'

/** A support that stands on the plate: its way from the tip down, and the radius of its stem, mm. */
export interface Stem {
  path: Vector3[]
  radius: number
  /** mm, of its tip: what it can pull at most goes by that */
  tip: number
}
export interface Joined {
  /** per stem: the one whose trunk carries it, or −1 */
  on: Int32Array
  /** per stem: its way, which ends on the trunk where it is carried */
  paths: Vector3[][]
  /** per stem: radius below its joint, grown by what it carries */
  radii: number[]
}

/** mm from a stem to the trunk that takes it over, at most */
const REACH = 9
/** How steeply a branch falls: mm down a mm across. */
const FALL = 1.1
const MAX_RADIUS = 2.4
const MAX_BRANCHES = 10
/** mm³ that a join must save to be worth its branch */
const WORTH = 1.5
/** A trunk's section over that of all tips it carries: they let go long before it does. */
const STRONGER = 4

/**
 * Lets stems run into a taller neighbour's trunk where that saves volume: a branch falls from the stem's joint to the
 * trunk, and what stood below it is left out. A trunk has several times the section of all tips that it carries; every
 * branch and every thickened trunk keeps the clearance.
 *
 * @param stems in any order; only their last stretch, straight down to the plate, can become a trunk
 */
export function joinTrunks(body: Obstacle, stems: readonly Stem[], clearance: number): Joined {
  const on = new Int32Array(stems.length).fill(-1)
  const paths = stems.map((s) => [...s.path])
  const radii = stems.map((s) => s.radius)
  const branches = new Int32Array(stems.length)
  const tips = stems.map((s) => s.tip * s.tip)
  const upright = stems.map(({ path }) => {
    const [top, foot] = [path.at(-2)!, path.at(-1)!]
    return { x: foot[0], y: foot[1], high: top[2], low: foot[2] }
  })
  // The lower ones first: they have the least of their own to lose, and a trunk is then still free to be taller.
  const order = stems.map((_, i) => i).sort((a, b) => upright[a]!.high - upright[b]!.high)
  for (const i of order) {
    // What carries others already stays where it stands.
    if (branches[i]! > 0) continue
    const own = upright[i]!,
      r = stems[i]!.radius
    let best: { j: number; saved: number; at: Vector3 } | null = null
    for (let j = 0; j < stems.length; j++) {
      if (j === i || on[j]! >= 0 || branches[j]! >= MAX_BRANCHES) continue
      const trunk = upright[j]!
      const d = Math.hypot(trunk.x - own.x, trunk.y - own.y)
      if (d > REACH || d < 0.05) continue
      const z = own.high - FALL * d
      if (z > trunk.high - 0.2 || z < own.low + 1.5) continue
      const grown = Math.max(radii[j]!, Math.sqrt(STRONGER * (tips[j]! + tips[i]!)))
      if (grown > MAX_RADIUS) continue
      const saved =
        Math.PI *
        (r * r * (own.high - own.low - Math.hypot(d, FALL * d)) - (grown ** 2 - radii[j]! ** 2) * (z - own.low))
      if (saved < WORTH || (best && saved <= best.saved)) continue
      best = { j, saved, at: [trunk.x, trunk.y, z] }
    }
    if (!best) continue
    const { j, at } = best
    const joint: Vector3 = [own.x, own.y, own.high]
    const trunk = upright[j]!
    const grown = Math.max(radii[j]!, Math.sqrt(STRONGER * (tips[j]! + tips[i]!)))
    if (!clear(body, joint, at, r + clearance)) continue
    if (!clear(body, at, [trunk.x, trunk.y, trunk.low], grown + clearance)) continue
    on[i] = j
    branches[j]!++
    radii[j] = grown
    tips[j]! += tips[i]!
    paths[i] = [...stems[i]!.path.slice(0, -1), at]
  }
  return { on, paths, radii }
}
