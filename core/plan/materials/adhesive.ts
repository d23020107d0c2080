import { waitingIn, type Room } from './drying'
import { ADHESIVES, type BenchMaterial } from './materials'

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
  why: string
  /** the others, and what speaks against each */
  others: { material: BenchMaterial; against: string }[]
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
      ? `The strongest there is, but ${lower(best!.against)}`
      : `It bridges ${needs.gap.toFixed(2)} mm, leaves time to line up ${(needs.area / 100).toFixed(1)} cm², and is strong enough for what hangs on it${utilisation > 0.01 ? ` (${Math.round(100 * utilisation)} % of what it is trusted with)` : ''}.`,
    others: judged
      .filter((j) => j !== best)
      .map((j) => ({ material: j.material, against: j.against ?? 'Also suitable, but takes longer.' })),
  }
}

function against(m: BenchMaterial, n: JointNeeds, stress: number, waiting: number): string | null {
  if (n.gap > m.gap[1]) return `It bridges ${m.gap[1]} mm at most; the gap of the joint is ${n.gap.toFixed(2)} mm.`
  if (stress > m.strength)
    return `It holds ${m.strength} N/mm² in peel; the joint needs ${stress.toFixed(1)} N/mm². Pin it.`
  if ((m.working ?? Infinity) < placing(n.area))
    return `It grabs after ${m.working} s; lining up ${(n.area / 100).toFixed(1)} cm² takes ${placing(n.area)} s.`
  // Cyanoacrylate is glass between things that move against each other.
  if (n.mixed && m.id.startsWith('ca')) return 'It is brittle, and the two parts are of different materials.'
  if (waiting > n.hurry) return `It takes ${Math.round(waiting / 60)} min until it holds; there is no time for that.`
  return null
}
const lower = (s: string): string => s[0]!.toLowerCase() + s.slice(1)
