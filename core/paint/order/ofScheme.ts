import { deltaE00, toLab, type Triple } from '../optics/colour'
import { coatTime, FILM, type Tool } from '../coats/batch'
import { coatsToHide, filmOver, thinned, MAX_COATS, type Optics } from '../optics/film'
import { groundOf } from '../coats/undercoat'
import type { Undercoat } from '../../defaults/paint'
import type { OrderCoat } from './types'
import { message } from '../../words/message'
import type { Said } from '../../words/say'
import type { Technique } from '../../defaults/paint'

export interface CoatFacts {
  id: string
  region: number
  technique: Technique
  tool: Tool
  /** of the paint or mix as it comes from the bottle; null where none is chosen */
  optics: Optics | null
  /** key of the paint or mix, and what it is called */
  paint: string
  name: Said
  /** µm of all its coats, and the volume share of paint in them */
  film: number
  pigment: number
  /** its sheen is a metal's, which a matt coat would kill */
  metallic: boolean
  varnish: OrderCoat['varnish']
  /** mm² */
  area: number
}

/** What lies in spots leaves the colour below it the region's. */
const SPOTS = new Set(['stipple', 'chips', 'powder'])
const MESSY = new Set(['wash', 'dry brush', 'powder', 'chips'])

/** Coats as the order of painting takes them: each over what lies below it in its own region. */
export function orderCoats(coats: readonly CoatFacts[], undercoat: Undercoat): OrderCoat[] {
  const ground = new Map<number, Float64Array>()
  return coats.map((c) => {
    const below = ground.get(c.region) ?? groundOf(undercoat)
    let seen = below,
      hides = 1
    if (c.optics && !c.varnish) {
      const o = thinned(c.optics, c.pigment)
      seen = filmOver(o, c.film, below)
      if (!SPOTS.has(c.technique)) {
        hides = coatsToHide(o, below, FILM[c.tool]) ?? MAX_COATS
        ground.set(c.region, seen)
      }
    }
    const lab: Triple = toLab(seen)
    const times = Math.max(1, Math.round(c.film / FILM[c.tool]))
    return {
      id: c.id,
      region: c.region,
      name: message('painting.order.coat', {
        technique: message(`vocabulary.technique.${c.technique}`),
        paint: c.name,
      }),
      paint: c.paint,
      spray: c.tool === 'airbrush',
      handsOn: times * coatTime(c.area, c.tool),
      lightness: lab[0],
      // A tint that hardly moves the colour is not meant to hide.
      hides: deltaE00(lab, toLab(below)) < 6 ? 1 : hides,
      messy: MESSY.has(c.technique),
      metallic: c.metallic,
      varnish: c.varnish,
    }
  })
}
