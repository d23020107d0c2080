import { toLab, type Triple } from '../optics/colour'
import { UNSEEN, type Found } from './mixRank'
import { hiding, mix, opticsOf, type Optics } from '../optics/film'
import { hueOf, hueName } from '../optics/hue'
import { searchMixes } from './recipeSearch'
import { fixed } from '../../words/format'
import { message, type Message } from '../../words/message'

/** Pure pigments as they might be bought: name, CIELAB at full hiding, contrast ratio of a coat. */
const PIGMENTS: { name: Message; lab: Triple; opacity: number }[] = [
  { name: message('painting.pigment.white'), lab: [97, -0.5, 1], opacity: 0.9 },
  { name: message('painting.pigment.black'), lab: [9, 0, 0], opacity: 0.97 },
  { name: message('painting.pigment.magenta'), lab: [36, 62, -8], opacity: 0.45 },
  { name: message('painting.pigment.red'), lab: [44, 66, 48], opacity: 0.65 },
  { name: message('painting.pigment.orange'), lab: [62, 52, 68], opacity: 0.6 },
  { name: message('painting.pigment.yellow'), lab: [80, 18, 88], opacity: 0.55 },
  { name: message('painting.pigment.lemon'), lab: [88, -10, 86], opacity: 0.5 },
  { name: message('painting.pigment.yellowGreen'), lab: [70, -42, 62], opacity: 0.5 },
  { name: message('painting.pigment.green'), lab: [42, -58, 22], opacity: 0.5 },
  { name: message('painting.pigment.turquoise'), lab: [46, -44, -22], opacity: 0.5 },
  { name: message('painting.pigment.lightBlue'), lab: [44, -12, -48], opacity: 0.5 },
  { name: message('painting.pigment.blue'), lab: [22, 32, -66], opacity: 0.5 },
  { name: message('painting.pigment.violet'), lab: [24, 46, -46], opacity: 0.45 },
]

/**
 * Which pigment the stock lacks for a target, in words: each pure pigment is tried beside the paints of the closest
 * mix, a white and a black of the stock, and the one that brings the target nearest is named, with how near.
 */
export function missingPigment(target: Triple, best: Found, known: readonly Optics[]): Message {
  const paints = best.shares.map(([i]) => known[i]!)
  const light = extreme(known, 1),
    dark = extreme(known, -1)
  for (const o of [light, dark]) if (!paints.includes(o)) paints.push(o)
  let found: { error: number; name: Message | null } = { error: best.error, name: null }
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
      ? message('painting.missing.chroma', { hue: hueName(hueOf(target)), short: Math.round(short) })
      : target[0] > got[0] + 2
        ? message('painting.missing.tooDark')
        : target[0] < got[0] - 2
          ? message('painting.missing.tooLight')
          : message('painting.missing.hue')
  if (found.name === null) return message('painting.missing.nothingHelps', { says })
  const error = fixed(found.error, 1)
  return found.error <= UNSEEN
    ? message('painting.missing.reached', { says, pigment: found.name, error })
    : message('painting.missing.nearer', { says, pigment: found.name, error })
}

/** The lightest paint of a stock, or the darkest. */
const extreme = (known: readonly Optics[], sign: 1 | -1): Optics =>
  known.reduce((a, b) => (sign * (toLab(hiding(b))[0] - toLab(hiding(a))[0]) > 0 ? b : a))
