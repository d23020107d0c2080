import { coatDries, coatTime, FILM, paintFor, type Tool } from './batch'
import { coatsToHide, coatsToReach, MAX_COATS, type Optics } from '../optics/film'
import { UNSEEN } from '../recipes/mixRank'
import { BESIDES, choiceOf, groundOf } from './undercoat'
import { PRIMERS, type Undercoat } from '../../defaults/paint'
import type { Triple } from '../optics/colour'

export interface BaseOf {
  /** mm² */
  area: number
  /** of the base coat, thinned as it is laid */
  optics: Optics
  tool: Tool
  /** the region's own colour, where one is wished; null: until it hides */
  goal: Triple | null
}

export interface UndercoatCost {
  undercoat: Undercoat
  /** coats of each region's base; null where twelve are not enough */
  coats: (number | null)[]
  /** of all regions; one that cannot be reached counts as twelve */
  total: number
  /** at the bench, and until all is dry, each region after the other, s */
  handsOn: number
  dry: number
  ml: number
}

/**
 * What each undercoat costs over the whole scheme: coats of every base until it hides, or until the wished colour is
 * reached where full hiding would come within reach of it, with the time and paint that go with them.
 *
 * @param undercoats the usual ones if none are named
 */
export function compareUndercoats(
  bases: readonly BaseOf[],
  undercoats: readonly Undercoat[] = PRIMERS,
): UndercoatCost[] {
  return undercoats.map((undercoat) => {
    const ground = groundOf(undercoat)
    const coats = bases.map(({ optics, tool, goal }) => {
      const hides = coatsToHide(optics, ground, FILM[tool])
      // A coat that is never to hide, or that hides only later, may still reach the wished colour by what shows through.
      const reach = goal && coatsToReach(optics, ground, FILM[tool], goal, UNSEEN)
      return reach !== null && (hides === null || reach < hides) ? reach : hides
    })
    let handsOn = BESIDES[choiceOf(undercoat)] ?? 0,
      dry = handsOn,
      ml = 0
    bases.forEach((b, i) => {
      const n = coats[i] ?? MAX_COATS
      handsOn += n * coatTime(b.area, b.tool)
      dry += n * coatDries(b.tool)
      ml += paintFor(b.area, n, b.tool)
    })
    return { undercoat, coats, total: coats.reduce<number>((s, n) => s + (n ?? MAX_COATS), 0), handsOn, dry, ml }
  })
}
