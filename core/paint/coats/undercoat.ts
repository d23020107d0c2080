import { PRIMERS, type Undercoat, type UndercoatChoice } from '../../defaults/paint'
import { BANDS } from '../optics/colour'
import { hiding, opticsOf } from '../optics/film'
import type { Ground } from './coating'

/** The undercoat by a school's choice; a tinted one is known by its colour, #rrggbb. */
export const undercoatBy = (choice: UndercoatChoice, tint: string): Undercoat =>
  choice === 'tinted' ? `#${tint.slice(1)}` : choice

export const choiceOf = (u: Undercoat): UndercoatChoice => (isTint(u) ? 'tinted' : u)
/** s of work that an undercoat takes besides priming: white sprayed from above; primer mixed and strained */
export const BESIDES: Readonly<Partial<Record<UndercoatChoice, number>>> = { zenithal: 6 * 60, tinted: 5 * 60 }

const flat = (r: number): Float64Array => new Float64Array(BANDS).fill(r)
/** Reflectance of the primed skin; black sprayed white from above counts as half lit where one number must do. */
const GROUND: Record<(typeof PRIMERS)[number], Float64Array> = {
  grey: flat(0.32),
  white: flat(0.86),
  black: flat(0.04),
  zenithal: flat(0.25),
}
function isTint(u: Undercoat): u is `#${string}` {
  return u.startsWith('#')
}
/** Of a tinted primer that covers: it is laid until it does, whatever its opacity. */
export const groundOf = (undercoat: Undercoat): Float64Array =>
  isTint(undercoat) ? hiding(opticsOf(undercoat, 0.9)) : GROUND[undercoat]

/** µm of white primer that the spray from above lays where it hits squarely */
const FROM_ABOVE = 14
const white = opticsOf('#f2f1ec', 0.8)

/** The primed skin, place by place. */
export const undercoated = (undercoat: Undercoat): Ground =>
  undercoat === 'zenithal'
    ? { reflectance: GROUND.black, sprayed: { optics: white, film: FROM_ABOVE } }
    : { reflectance: groundOf(undercoat), sprayed: null }

/** The skin that gets no primer: clear resin with light behind it, as one looks through it. */
export const unprimed: Ground = { reflectance: flat(0.7), sprayed: null }
