import type { Vector3 } from '../math/vectors'

/** N/mm² that a pin of that wire may bear in bending. */
export const WIRE: Record<'brass' | 'steel', number> = { brass: 200, steel: 400 }
/** mm; what wire is sold as */
export const GAUGES = [0.8, 1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6]
/** A hand takes hold of an arm with several times its weight. */
const HANDLING = 5

export interface PinAdvice {
  /** N·mm at the joint, handling counted */
  moment: number
  /** mm; the next wire that bears it */
  wire: number
  /** mm into each part */
  depth: number
  /** mm of material round it */
  wall: number
  /** false when no wire on the list bears it alone: two pins, or a larger joint */
  enough: boolean
}

/**
 * Wire for a joint that carries a part: bending M = m·g·d with d the horizontal distance from joint to its centre of
 * mass, times a handling factor; d_wire from σ = 32 M/(π d³) (methods.md 8).
 *
 * @param mass g of everything outboard of the joint
 */
export function pinFor(joint: Vector3, mass: number, centre: Vector3, wire: keyof typeof WIRE): PinAdvice {
  const arm = Math.hypot(centre[0] - joint[0], centre[1] - joint[1])
  const moment = (mass / 1000) * 9.81 * arm * HANDLING
  const least = Math.cbrt((32 * moment) / (Math.PI * WIRE[wire]))
  const gauge = GAUGES.find((g) => g >= least)
  const d = gauge ?? GAUGES.at(-1)!
  return { moment, wire: d, depth: 4 * d, wall: d, enough: gauge !== undefined }
}
