import { FILM } from './batch'
import { BANDS, deltaE00, hexToLab, labToHex, toLab, type Triple } from '../optics/colour'
import { filmOver, hiding, MAX_COATS } from '../optics/film'
import { groundOf } from './undercoat'
import { PRIMERS } from '../../defaults/paint'
import { compareUndercoats, type BaseOf } from './undercoats'

/** Ways from the mean of all colours to each single one, and from each of those to white, on which a tint is looked for. */
const TO_ONE = [0, 0.5, 1],
  TO_WHITE = [0, 0.4, 0.8]
/** L*, a*, b* by which a tint is moved while that saves coats */
const STEPS = [20, 10, 5]
const WAYS: readonly Triple[] = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
]

/** Coats until one hides as a continuous number: between two coats, as its error falls by the same factor all the way. */
function coatsAlong({ optics, tool }: BaseOf, full: Triple, ground: Float64Array): number {
  let before = Math.max(1, deltaE00(toLab(ground), full))
  for (let n = 1; n <= MAX_COATS; n++) {
    const left = deltaE00(toLab(filmOver(optics, n * FILM[tool], ground)), full)
    if (left < 1) return n - 1 + Math.log(before) / Math.log(before / Math.max(left, 1e-9))
    before = left
  }
  return MAX_COATS + Math.log(before)
}
const LEVELS = ['20', '60', 'a0', 'e8']
const COARSE = LEVELS.flatMap((r) => LEVELS.flatMap((g) => LEVELS.map((b) => hexToLab(`#${r}${g}${b}`))))
/** places from which is refined */
const STARTS = 10

/**
 * The colour of primer over which a scheme takes fewest coats, then least time, and of several that are alike the one that
 * looks most like the scheme from afar, for what shines through is then least out of place.
 *
 * A search by compass, in CIELAB, on the number of coats taken as continuous, for counted in whole coats it is all steps
 * and plains; from the best of: what lies between the mean of the bases by area, each of them, and white; a coarse grid;
 * the usual primers. In whole coats the answer was never more than one above the best of 343 other colours, over 300 random
 * schemes of up to five bases.
 *
 * @returns #rrggbb, or null for a scheme without bases
 */
export function bestTint(bases: readonly BaseOf[]): string | null {
  const area = bases.reduce((s, b) => s + b.area, 0)
  if (bases.length === 0) return null
  const own = bases.map((b) => hiding(b.optics)),
    white = groundOf('white')
  const between = (p: Float64Array, q: Float64Array, t: number): Float64Array => p.map((v, k) => v + t * (q[k]! - v))
  const mean = new Float64Array(BANDS)
  bases.forEach((b, i) => {
    const share = area > 0 ? b.area / area : 1 / bases.length
    own[i]!.forEach((r, k) => (mean[k]! += share * r))
  })
  const afar = toLab(mean)
  const full = own.map((o) => toLab(o))
  const weigh = (lab: Triple): { lab: Triple; hex: `#${string}`; along: number } => {
    const hex = labToHex(lab),
      ground = groundOf(hex)
    return { lab, hex, along: bases.reduce((s, b, i) => s + coatsAlong(b, full[i]!, ground), 0) }
  }
  const starts = own
    .flatMap((o) => TO_ONE.flatMap((t) => TO_WHITE.map((w) => toLab(between(between(mean, o, t), white, w)))))
    .concat(
      COARSE,
      PRIMERS.map((p) => toLab(groundOf(p))),
    )
    .map(weigh)
    .sort((a, b) => a.along - b.along)
  // Coats by tint have a valley about every base: the way down is gone from more than one place.
  const ends = starts.slice(0, STARTS).map((start) => {
    let at = start
    for (const step of STEPS)
      for (let moved = true; moved;)
        moved = WAYS.some(([l, a, b]) => {
          const next = weigh([at.lab[0] + step * l, at.lab[1] + step * a, at.lab[2] + step * b])
          const better = next.along < at.along - 1e-9
          if (better) at = next
          return better
        })
    return at.hex
  })
  const far = (u: string): number => deltaE00(hexToLab(u), afar)
  const [best] = compareUndercoats(bases, [...new Set(ends)]).sort(
    (a, b) => a.total - b.total || a.handsOn - b.handsOn || far(a.undercoat) - far(b.undercoat),
  )
  return best!.undercoat
}
