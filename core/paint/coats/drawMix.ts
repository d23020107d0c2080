import { toHex, toLab, toXyz, xyzToSrgb, type Triple } from '../optics/colour'
import { BLACK, coatsToHide, coatsToReach, filmOver, hiding, PAPER, thinned, type Optics } from '../optics/film'
import { UNSEEN } from '../recipes/mixRank'
import { FILM, type Tool } from './batch'

export interface Drawn {
  /** at full hiding */
  lab: Triple
  hex: string
  /** at the film asked for, over black, white and the undercoat; coats until it hides, and until it reaches the target */
  over: { ground: string; groundHex: string; hex: string; hides: number | null; reaches: number | null }[]
  /** over black and over white, from one coat to twelve, by way of laying; µm a coat */
  strips: { way: Way; black: string[]; white: string[]; film: number }[]
}
/** Ways of laying it: by brush, by airbrush, and thinned to one part in five. */
export type Way = 'brushed' | 'airbrushed' | 'glazed'
/** Coats of a drawdown. */
const STRIP = 12
const hexOf = (reflectance: ArrayLike<number>): string => toHex(xyzToSrgb(toXyz(reflectance)))

/** One brushed coat over black and over white. */
export const chipOf = (o: Optics): { black: string; white: string } => ({
  black: hexOf(filmOver(o, FILM.brush, BLACK)),
  white: hexOf(filmOver(o, FILM.brush, PAPER)),
})

/**
 * A mix as it looks: at full hiding, as a film over several grounds, and drawn down.
 *
 * @param film µm dry
 * @param own the ground that is looked at beside black and white
 * @param target CIELAB that it is to come to, or null
 */
export function drawMix(
  o: Optics,
  film: number,
  tool: Tool,
  own: { name: string; ground: Float64Array },
  target: Triple | null,
): Drawn {
  const full = hiding(o)
  const strip = (way: Way, share: number, step: number): Drawn['strips'][number] => {
    const t = thinned(o, share)
    const on = (g: Float64Array): string[] =>
      Array.from({ length: STRIP }, (_, i) => hexOf(filmOver(t, step * (i + 1), g)))
    return { way, black: on(BLACK), white: on(PAPER), film: step }
  }
  const grounds = [{ name: 'black', ground: BLACK }, { name: 'white', ground: PAPER }, own]
  return {
    lab: toLab(full),
    hex: hexOf(full),
    over: grounds.map(({ name, ground }) => ({
      ground: name,
      groundHex: hexOf(ground),
      hex: hexOf(filmOver(o, film, ground)),
      hides: coatsToHide(o, ground, FILM[tool]),
      reaches: target ? coatsToReach(o, ground, FILM[tool], target, UNSEEN) : null,
    })),
    strips: [
      strip('brushed', 1, FILM.brush),
      strip('airbrushed', 1, FILM.airbrush),
      strip('glazed', 0.2, FILM.airbrush),
    ],
  }
}
