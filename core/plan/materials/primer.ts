import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** µm of dry film a coat, from the can (craft.md, Materials). */
export const PRIMER_FILM = { plain: 15, filler: 40 } as const
/** µm of steps that a plain primer's film hides. */
const HIDDEN = 15
/** What sanding between coats takes off again, of what was sprayed. */
const SANDED_OFF = 0.4
/** ml sprayed for each ml that lands: a can's efficiency (methods.md 11). */
const CAN = 0.25
/** Share of solids by volume in what leaves the can. */
const SOLIDS = 0.3

export interface PrimerPlan {
  filler: number
  plain: number
  /** µm on the skin in the end, after sanding */
  film: number
  /** ml out of the can */
  ml: { filler: number; plain: number }
  why: Said
}

/**
 * Coats of primer for a skin: filler primer only where steps are left that plain primer shows, as few coats as level them,
 * for it buries detail as well; then plain coats for colour.
 *
 * @param step µm that are left after sanding
 * @param area mm², of all, and of what has such steps
 * @param plain coats of colour: a light one over a dark resin takes more
 */
export function primerFor(step: number, area: number, stepped: number, plain: number): PrimerPlan {
  const filler = step > HIDDEN ? Math.ceil((step - HIDDEN) / (PRIMER_FILM.filler * (1 - SANDED_OFF))) : 0
  const ml = (film: number, coats: number, over: number): number => (coats * film * 1e-3 * over) / 1000 / SOLIDS / CAN
  return {
    filler,
    plain,
    film: filler * PRIMER_FILM.filler * (1 - SANDED_OFF) + plain * PRIMER_FILM.plain,
    ml: { filler: ml(PRIMER_FILM.filler, filler, stepped), plain: ml(PRIMER_FILM.plain, plain, area) },
    why:
      filler > 0
        ? message('steps.primer.stepsOfMAreLeft', { step: Math.round(step), filler })
        : message('steps.primer.whatIsLeftIsUnder', { hidden: HIDDEN }),
  }
}
