import { BANDS } from './colour'
import { opticsOf } from './film'
import type { Ground } from './coating'

export type Undercoat = 'grey' | 'white' | 'black' | 'zenithal'

const flat = (r: number): Float64Array => new Float64Array(BANDS).fill(r)
/** Reflectance of the primed skin; black sprayed white from above counts as half lit where one number must do. */
const GROUND: Record<Undercoat, Float64Array> = {
  grey: flat(0.32),
  white: flat(0.86),
  black: flat(0.04),
  zenithal: flat(0.25),
}
export const groundOf = (undercoat: Undercoat): Float64Array => GROUND[undercoat]

/** µm of white primer that the spray from above lays where it hits squarely */
const FROM_ABOVE = 14
const white = opticsOf('#f2f1ec', 0.8)

/** The primed skin, place by place. */
export const undercoated = (undercoat: Undercoat): Ground =>
  undercoat === 'zenithal'
    ? { reflectance: GROUND.black, sprayed: { optics: white, film: FROM_ABOVE } }
    : { reflectance: GROUND[undercoat], sprayed: null }

/** The skin that gets no primer: clear resin with light behind it, as one looks through it. */
export const unprimed: Ground = { reflectance: flat(0.7), sprayed: null }
