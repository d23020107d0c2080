import { MUTING, type Muting, type ToneSchool } from '../../defaults/paint'
import { deltaE00, toLab, type Triple } from '../optics/colour'
import { gcd, MAX_DROPS } from './mixRank'
import { filmOver, hiding, mix, thinned, AIRBRUSHED, type Optics } from '../optics/film'
import { chromaOf, fromLch, hueOf, hueTurn } from '../optics/hue'
import { message, type Message } from '../../words/message'

/** How the hue goes from light to shade; practitioners differ. */

const YELLOW = 92,
  BLUE = 275
/** Degrees by which a tone turns toward warm or cool, at most. */
const TURN = 14

/**
 * Shadow and light for one base colour. Lightness steps by what keeps both in range; shadow keeps most of its chroma,
 * light loses some; the hue turns toward yellow in one and toward blue in the other, by the school. Reds are turned
 * toward orange in the light whatever the school, for white alone makes them pink.
 */
export function threeTones(base: Triple, school: ToneSchool): { shadow: Triple; base: Triple; light: Triple } {
  const h = hueOf(base),
    c = chromaOf(base)
  const toward = (goal: number): number => {
    const turn = hueTurn(h, goal)
    return h + Math.sign(turn) * Math.min(Math.abs(turn), TURN)
  }
  const down = Math.min(17, base[0] * 0.4),
    up = Math.min(15, (98 - base[0]) * 0.5)
  const red = c > 20 && (h < 45 || h > 345)
  const warm = toward(YELLOW),
    cool = toward(BLUE)
  const lightHue = red || school === 'warmLight' ? warm : school === 'coolLight' ? cool : h
  const shadowHue = school === 'warmLight' ? cool : school === 'coolLight' ? warm : h
  // What is next to grey has no hue to turn: it takes on a little of the light's or the shade's.
  const tint = c < 4 && school !== 'sameHue' ? 4 : 0
  const first = (warmFirst: boolean): number => (warmFirst ? YELLOW : BLUE)
  return {
    shadow: fromLch(base[0] - down, 0.92 * c + tint, tint ? first(school === 'coolLight') : shadowHue),
    base,
    light: fromLch(base[0] + up, 0.85 * c + tint, tint ? first(school === 'warmLight') : lightHue),
  }
}

export interface Muted {
  by: Muting
  /** number of the paint that mutes; null where the stock has none of the kind */
  paint: number | null
  /** drops of it to so many of the base */
  drops: number
  ofBase: number
  lab: Triple
  /** what it did besides: lightness and hue (degrees) */
  darker: number
  turned: number
}

/** Whether a paint mutes in that way, by its colour where it hides. */
function serves(by: Muting, lab: Triple, base: Triple): boolean {
  const c = chromaOf(lab),
    h = hueOf(lab)
  if (by === 'black') return lab[0] < 32 && c < 10
  if (by === 'earth') return c > 8 && c < 52 && h > 35 && h < 85 && lab[0] > 15 && lab[0] < 62
  // Painters call green the complement of red, which measured hue puts at turquoise: the arc is wide.
  return c > 12 && Math.abs(hueTurn(h, hueOf(base) + 180)) < 80
}

/**
 * A base colour muted to a share of its chroma in each of three ways, from the paints there are: of those that serve,
 * and of all counts of drops, the one that comes nearest to the wanted chroma and moves hue and lightness least.
 *
 * @param keep share of the base's chroma that is wanted, 0 to 1
 */
export function mutings(base: Optics, paints: readonly Optics[], keep: number): Muted[] {
  const from = toLab(hiding(base))
  const goal = keep * chromaOf(from)
  const labs = paints.map((p) => toLab(hiding(p)))
  return MUTING.map((by) => {
    let best: Muted = { by, paint: null, drops: 0, ofBase: 0, lab: from, darker: 0, turned: 0 }
    let least = Infinity
    paints.forEach((p, i) => {
      if (!serves(by, labs[i]!, from)) return
      for (let drops = 1; drops <= 6; drops++)
        for (let ofBase = 1; ofBase + drops <= MAX_DROPS; ofBase++) {
          if (gcd(drops, ofBase) !== 1) continue
          const lab = toLab(hiding(mix([base, p], [ofBase, drops])))
          const turned = hueTurn(hueOf(from), hueOf(lab)),
            darker = from[0] - lab[0]
          const miss =
            Math.abs(chromaOf(lab) - goal) * 2 + (Math.abs(turned) * goal) / 60 + Math.abs(darker) / 2 + drops / 20
          if (miss < least) {
            least = miss
            best = { by, paint: i, drops, ofBase, lab, darker, turned }
          }
        }
    })
    return best
  })
}

export interface SkinZone {
  zone: 'red' | 'cool' | 'yellow' | 'base'
  where: Message
  /** number of the tint; null: the base itself, thinned */
  paint: number | null
  /** volume share of paint in the glaze */
  pigment: number
  /** airbrushed or thin brushed coats of 8 µm */
  coats: number
  lab: Triple
  /** ΔE00 from what lay below */
  shift: number
}

const ZONES: { zone: SkinZone['zone']; where: Message; hue: number; shift: number }[] = [
  { zone: 'red', where: message('painting.skin.red'), hue: 28, shift: 6 },
  { zone: 'cool', where: message('painting.skin.cool'), hue: 265, shift: 4 },
  { zone: 'yellow', where: message('painting.skin.yellow'), hue: 85, shift: 3 },
]
const GLAZE = 0.15

/**
 * Skin as thin tints over a base, returning to it: for each zone the tint of the stock whose hue lies nearest is
 * glazed until it moves the base by what can just be seen, and a thinned coat of the base brings it half way back.
 *
 * @returns the zones in painting order, each with what it ends at; zones for which the stock has no tint are left out
 */
export function skinZones(base: Optics, paints: readonly Optics[]): SkinZone[] {
  const skin = hiding(base),
    skinLab = toLab(skin)
  const out: SkinZone[] = []
  for (const z of ZONES) {
    let best: { i: number; off: number } | null = null
    paints.forEach((p, i) => {
      const lab = toLab(hiding(p))
      if (chromaOf(lab) < 22) return
      const off = Math.abs(hueTurn(hueOf(lab), z.hue)) + 30 / chromaOf(lab)
      if (off < 40 && off < (best?.off ?? Infinity)) best = { i, off }
    })
    if (best === null) continue
    const paint = (best as { i: number }).i,
      tint = paints[paint]!
    const over = coatsFor(tint, skin, z.shift)
    const seen = filmOver(thinned(tint, over.pigment), AIRBRUSHED * over.coats, skin)
    const lab = toLab(seen)
    out.push({ zone: z.zone, where: z.where, paint, ...over, lab, shift: deltaE00(lab, skinLab) })
    // Back toward the base: half of the way.
    const back = coatsFor(base, seen, deltaE00(lab, skinLab) / 2)
    const after = toLab(filmOver(thinned(base, back.pigment), AIRBRUSHED * back.coats, seen))
    out.push({
      zone: 'base',
      where: message('painting.skin.base', { zone: z.zone }),
      paint: null,
      ...back,
      lab: after,
      shift: deltaE00(after, lab),
    })
  }
  return out
}

/** Thin coats whose shift comes nearest to a wish: the share of paint is lowered until at least two coats do it. */
function coatsFor(o: Optics, ground: Float64Array, shift: number): { pigment: number; coats: number } {
  const from = toLab(ground)
  let best = { pigment: GLAZE, coats: 1 },
    least = Infinity
  for (const pigment of [GLAZE, 0.1, 0.06, 0.03])
    for (let coats = 1; coats <= 6; coats++) {
      const got = deltaE00(toLab(filmOver(thinned(o, pigment), AIRBRUSHED * coats, ground)), from)
      const miss = Math.abs(got - shift) + (coats < 2 ? 0.4 : 0) + coats * 0.1
      if (miss < least) {
        least = miss
        best = { pigment, coats }
      }
    }
  return best
}
