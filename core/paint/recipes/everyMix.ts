import { deltaE00, type Triple } from '../optics/colour'
import type { Optics } from '../optics/film'
import { flat, labOf, WIDTH } from './mixColour'
import { gcd, MAX_DROPS, MAX_PAINTS, rankBy, STEP, type Found } from './mixRank'

/**
 * Every mix of up to `most` of the paints in up to twelve whole drops: the first by `rankOf`, and the closest.
 * What faster searches are held against: 30 paints are fourteen million mixes.
 */
export function everyMix(
  known: readonly Optics[],
  target: Triple,
  most = MAX_PAINTS,
): { simplest: Found; closest: Found } {
  const paints = known.map(flat)
  const sums = Array.from({ length: most + 1 }, () => new Float64Array(WIDTH))
  const counts = new Int32Array(paints.length)
  const found = (error: number): Found => ({
    shares: [...counts].flatMap((d, i): Found['shares'] => (d > 0 ? [[i, d]] : [])),
    error,
  })
  const chroma = Math.hypot(target[1], target[2])
  let first = Infinity,
    simplest = found(Infinity),
    closest = simplest
  const consider = (ks: Float64Array, used: number, left: number): void => {
    const lab = labOf(ks)
    // CIEDE2000 is never less than this share of the plain distance: its weights grow with chroma, and the rotation
    // in the blues can take off most of what is left.
    const plain = Math.hypot(lab[0] - target[0], lab[1] - target[1], lab[2] - target[2])
    const least = (0.35 * plain) / (1.75 + 0.0675 * Math.max(chroma, Math.hypot(lab[1], lab[2])))
    if (least > closest.error && Math.ceil(least / STEP) > Math.ceil(simplest.error / STEP)) return
    const error = deltaE00(lab, target)
    const r = rankBy(error, used, MAX_DROPS - left)
    if (r < first) {
      first = r
      simplest = found(error)
    }
    if (error < closest.error) closest = found(error)
  }
  const descend = (from: number, depth: number, left: number, divisor: number): void => {
    if (divisor === 1) consider(sums[depth]!, depth, left)
    if (depth === most) return
    const made = sums[depth]!,
      next = sums[depth + 1]!
    for (let i = from; i < paints.length; i++) {
      next.set(made)
      const paint = paints[i]!
      for (let d = 1; d <= left; d++) {
        for (let k = 0; k < WIDTH; k++) next[k]! += paint[k]!
        counts[i] = d
        descend(i + 1, depth + 1, left - d, gcd(divisor, d))
      }
      counts[i] = 0
    }
  }
  descend(0, 0, MAX_DROPS, 0)
  return { simplest, closest }
}
