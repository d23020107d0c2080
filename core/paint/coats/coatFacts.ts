import { toHex, toXyz, weightsOf, xyzToSrgb } from '../optics/colour'
import { evenFilm, laidOn, NO_FILM } from '../optics/filmTable'
import { coatsToHide, filmOver, type Optics } from '../optics/film'
import { blackBody } from '../optics/lamp'
import { isEven } from './technique'
import type { Technique } from '../../defaults/paint'
import { lightLeft } from '../optics/through'

/** A coat as its facts need it. */
export interface Asked {
  id: string
  regionId: number
  technique: Technique
  /** as thinned; null where no paint is chosen */
  optics: Optics | null
  /** µm dry; and that of one coat by its tool */
  film: number
  once: number
}
export interface CoatFact {
  id: string
  /** coats of that tool to hide what lies below it; null: more than twelve, or nothing is to be hidden */
  toHide: number | null
  /** the colour it ends at where it lies fully */
  hex: string
  /** of the light from behind a clear region, the share that it and what lies below it let through; null elsewhere */
  through: number | null
}
/** What coats of a region lie on; `lamp`, K, of what shines from behind it when it is clear. */
export interface Below {
  reflectance: Float64Array
  lamp: number | null
}

/** What each coat does over those before it, where all of them lie fully. */
export function coatFacts(coats: readonly Asked[], below: (regionId: number) => Below): CoatFact[] {
  const grounds = new Map<number, Float64Array>(),
    films = new Map<number, Float32Array>()
  /** All films of its region up to a coat, as one; varnish lets all light through. */
  const filmsTo = ({ regionId, technique, optics, film }: Asked & { optics: Optics }): Float32Array => {
    const under = films.get(regionId) ?? NO_FILM
    const all = technique === 'varnish' ? under : laidOn(evenFilm(optics, film), under)
    films.set(regionId, all)
    return all
  }
  return coats.map((c) => {
    const { reflectance, lamp } = below(c.regionId)
    const ground = grounds.get(c.regionId) ?? reflectance
    if (!c.optics) return { id: c.id, toHide: null, hex: '#888888', through: null }
    const over = filmOver(c.optics, c.film, ground)
    if (isEven({ technique: c.technique, tool: 'brush' }) && c.technique !== 'varnish') grounds.set(c.regionId, over)
    return {
      id: c.id,
      toHide: c.technique === 'base' ? coatsToHide(c.optics, ground, c.once) : null,
      hex: toHex(xyzToSrgb(toXyz(over))),
      through:
        lamp === null
          ? null
          : lightLeft(filmsTo({ ...c, optics: c.optics }), reflectance, weightsOf(blackBody(lamp)).WY),
    }
  })
}
