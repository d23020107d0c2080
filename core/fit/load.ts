import type { Vector3 } from '../math/vectors'

export interface Standing {
  id: string
  /** g */
  mass: number
  /** mm */
  centre: Vector3
  /** mm, its lowest point */
  lowest: number
}

/** mm over the lowest of all within which a part stands on the ground itself */
const ON_GROUND = 0.5

/**
 * What hangs on each joint: all parts that would be loose from the ground without it, as one mass at one centre. Null
 * where nothing hangs on it alone, because the parts are held elsewhere too, or because none of them stands.
 *
 * @param joints pairs of part ids that are held to each other
 */
export function outboardOf(
  parts: readonly Standing[],
  joints: readonly { a: string; b: string }[],
): ({ ids: string[]; mass: number; centre: Vector3 } | null)[] {
  const ground = Math.min(...parts.map((p) => p.lowest))
  const grounded = parts.filter((p) => p.lowest < ground + ON_GROUND).map((p) => p.id)
  return joints.map((_, without) => {
    const held = new Set(grounded)
    for (let grew = true; grew;) {
      grew = false
      for (const [i, { a, b }] of joints.entries()) {
        if (i === without || held.has(a) === held.has(b)) continue
        held.add(a).add(b)
        grew = true
      }
    }
    const { a, b } = joints[without]!
    if (held.has(a) === held.has(b)) return null
    // Only what hangs together on the loose side.
    const loose = new Set([held.has(a) ? b : a])
    for (let grew = true; grew;) {
      grew = false
      for (const j of joints)
        if (!held.has(j.a) && !held.has(j.b) && loose.has(j.a) !== loose.has(j.b)) {
          loose.add(j.a).add(j.b)
          grew = true
        }
    }
    const list = parts.filter((p) => loose.has(p.id))
    const mass = list.reduce((s, p) => s + p.mass, 0)
    if (!(mass > 0)) return null
    const centre = [0, 1, 2].map((k) => list.reduce((s, p) => s + p.mass * p.centre[k]!, 0) / mass)
    return { ids: list.map((p) => p.id), mass, centre: centre as unknown as Vector3 }
  })
}
