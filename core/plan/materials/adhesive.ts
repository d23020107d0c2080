import { waitingIn, type Room } from './drying'
import { ADHESIVES, type BenchMaterial } from './materials'
import { fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** What a joint asks of its glue. */
export interface JointNeeds {
  /** N·mm of bending, handling counted; what a pin bears is not the glue's */
  moment: number
  /** mm² of the joint's face */
  area: number
  /** mm that 95 % of it gape at most */
  gap: number
  /** parts of different stuff, which swell and shrink differently */
  mixed: boolean
  /** s until it must be let go; Infinity without hurry */
  hurry: number
}
export interface AdhesiveAdvice {
  material: BenchMaterial
  /** share of what it is trusted with that the joint asks for; above 1 no glue does alone */
  utilisation: number
  /** s in this room until it can be let go */
  waiting: number
  why: Said
  /** the others, and what speaks against each */
  others: { material: BenchMaterial; against: Said }[]
}

/**
 * s to bring two parts together and line them up, whole ones: a face of 4 cm² takes as long as one's hands need, a larger one
 * longer.
 */
const placing = (area: number): number => Math.round(Math.max(4, Math.min(120, area / 20)))

/**
 * The adhesive for a joint: it must bridge the gap, leave time to line up, bear the bending in peel (σ = 32 M/(π d³) on a
 * round face of that area), and yield where the parts are of different stuff. Of those that do, the one that lets go soonest;
 * when none does, the strongest, and why it is not enough.
 */
export function adhesiveFor(
  needs: JointNeeds,
  room: Room,
  adhesives: readonly BenchMaterial[] = ADHESIVES,
): AdhesiveAdvice {
  const across = 2 * Math.sqrt(needs.area / Math.PI)
  const stress = needs.area > 0 ? (32 * needs.moment) / (Math.PI * across ** 3) : 0
  const judged = adhesives.map((material) => {
    const waiting = waitingIn(room, material.next, material.setting)
    return {
      material,
      waiting,
      utilisation: stress / material.strength,
      against: against(material, needs, stress, waiting),
    }
  })
  const fit = judged.filter((j) => j.against === null).sort((a, b) => a.waiting - b.waiting)
  const [best] = fit.length > 0 ? fit : [...judged].sort((a, b) => b.material.strength - a.material.strength)
  const { material, waiting, utilisation } = best!
  return {
    material,
    waiting,
    utilisation,
    why: best!.against
      ? message('steps.adhesive.theStrongestThereIsBut', { against: best!.against })
      : message('steps.adhesive.itBridgesMmLeavesTime', {
          gap: fixed(needs.gap, 2),
          needs: fixed(needs.area / 100, 1),
          utilisation: utilisation > 0.01,
          utilisation2: Math.round(100 * utilisation),
        }),
    others: judged
      .filter((j) => j !== best)
      .map((j) => ({
        material: j.material,
        against: j.against ?? message('steps.adhesive.alsoSuitableButTakesLonger'),
      })),
  }
}

function against(m: BenchMaterial, n: JointNeeds, stress: number, waiting: number): Said | null {
  if (n.gap > m.gap[1]) return message('steps.adhesive.itBridgesMmAtMost', { m: m.gap[1], gap: fixed(n.gap, 2) })
  if (stress > m.strength)
    return message('steps.adhesive.itHoldsNMmIn', { strength: m.strength, stress: fixed(stress, 1) })
  if ((m.working ?? Infinity) < placing(n.area))
    return message('steps.adhesive.itGrabsAfterSLining', {
      working: m.working,
      n: fixed(n.area / 100, 1),
      area: placing(n.area),
    })
  // Cyanoacrylate is glass between things that move against each other.
  if (n.mixed && m.id.startsWith('ca')) return message('steps.adhesive.itIsBrittleAndThe')
  if (waiting > n.hurry) return message('steps.adhesive.itTakesMinUntilIt', { n: Math.round(waiting / 60) })
  return null
}
