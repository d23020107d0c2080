import { toLab, type Triple } from '../optics/colour'
import { UNSEEN, type Found } from './mixRank'
import { hiding, mix, opticsOf, type Optics } from '../optics/film'
import { hueOf, hueName } from '../optics/hue'
import { searchMixes } from './recipeSearch'

/** Pure pigments as they might be bought: name, CIELAB at full hiding, contrast ratio of a coat. */
const PIGMENTS: { name: string; lab: Triple; opacity: number }[] = [
  { name: 'a clean white', lab: [97, -0.5, 1], opacity: 0.9 },
  { name: 'a deep black', lab: [9, 0, 0], opacity: 0.97 },
  { name: 'a cool pink or magenta', lab: [36, 62, -8], opacity: 0.45 },
  { name: 'a warm bright red', lab: [44, 66, 48], opacity: 0.65 },
  { name: 'a bright orange', lab: [62, 52, 68], opacity: 0.6 },
  { name: 'a warm yellow', lab: [80, 18, 88], opacity: 0.55 },
  { name: 'a cool, lemon yellow', lab: [88, -10, 86], opacity: 0.5 },
  { name: 'a yellow-green', lab: [70, -42, 62], opacity: 0.5 },
  { name: 'a clean green', lab: [42, -58, 22], opacity: 0.5 },
  { name: 'a turquoise', lab: [46, -44, -22], opacity: 0.5 },
  { name: 'a clean light blue', lab: [44, -12, -48], opacity: 0.5 },
  { name: 'a deep, reddish blue', lab: [22, 32, -66], opacity: 0.5 },
  { name: 'a violet', lab: [24, 46, -46], opacity: 0.45 },
]

/**
 * Which pigment the stock lacks for a target, in words: each pure pigment is tried beside the paints of the closest
 * mix, a white and a black of the stock, and the one that brings the target nearest is named, with how near.
 */
export function missingPigment(target: Triple, best: Found, known: readonly Optics[]): string {
  const paints = best.shares.map(([i]) => known[i]!)
  const light = extreme(known, 1),
    dark = extreme(known, -1)
  for (const o of [light, dark]) if (!paints.includes(o)) paints.push(o)
  let found = { error: best.error, name: '' }
  for (const p of PIGMENTS) {
    const tried = searchMixes([...paints, opticsOf(p.lab, p.opacity)], target)
    if (tried && tried.closest.error < found.error - 0.2) found = { error: tried.closest.error, name: p.name }
  }
  const shares = best.shares
  const got = toLab(
    hiding(
      mix(
        shares.map(([i]) => known[i]!),
        shares.map(([, d]) => d),
      ),
    ),
  )
  const short = Math.hypot(target[1], target[2]) - Math.hypot(got[1], got[2])
  const says =
    short > 3
      ? `The closest ${hueName(hueOf(target))} stays ${short.toFixed(0)} units of chroma short.`
      : target[0] > got[0] + 2
        ? 'The closest stays too dark.'
        : target[0] < got[0] - 2
          ? 'The closest stays too light.'
          : 'The closest misses the hue.'
  if (found.name === '')
    return `${says} No pigment that can be bought brings it nearer: paint alone does not get there.`
  return found.error <= UNSEEN
    ? `${says} What is missing is ${found.name}: with it the stock comes within ${found.error.toFixed(1)}.`
    : `${says} ${found.name[0]!.toUpperCase()}${found.name.slice(1)} helps most, but leaves ${found.error.toFixed(1)}: no surface paint is that pure.`
}

/** The lightest paint of a stock, or the darkest. */
const extreme = (known: readonly Optics[], sign: 1 | -1): Optics =>
  known.reduce((a, b) => (sign * (toLab(hiding(b))[0] - toLab(hiding(a))[0]) > 0 ? b : a))
