import { BANDS, deltaE00, toLab, type Triple } from './colour'
import { outward, type Optics } from './film'

export const MOST_DROPS = 12
export const MOST_PAINTS = 4
/** Paints that the exhaustive search over drop counts takes up. */
const SHORT = 6

export interface Found {
  /** paint number and its drops */
  shares: [paint: number, drops: number][]
  error: number
}

/** K and S of a mix side by side: one addition walks both. */
const WIDTH = 2 * BANDS
const flat = (o: Optics): Float64Array => {
  const ks = new Float64Array(WIDTH)
  ks.set(o.K)
  ks.set(o.S, BANDS)
  return ks
}
const R = new Float64Array(BANDS)
/** CIELAB at full hiding of a mix, whatever its total: only K/S counts. */
function labOf(ks: Float64Array): [number, number, number] {
  for (let b = 0; b < BANDS; b++) {
    const q = ks[b]! / ks[BANDS + b]!
    R[b] = outward(1 + q - Math.sqrt(q * (q + 2)))
  }
  return toLab(R)
}

/**
 * Up to six paints worth searching over: the two nearest alone, and those that pull a growing mix closest to the
 * target, from several starts and in several strengths.
 */
export function shortlist(known: readonly Optics[], target: Triple): number[] {
  const paints = known.map(flat)
  const alone = paints.map((ks, i) => ({ i, e: deltaE00(labOf(ks), target) })).sort((a, b) => a.e - b.e)
  const picked = new Set(alone.slice(0, 2).map((a) => a.i))
  const trial = new Float64Array(WIDTH)
  for (const start of alone.slice(0, 3)) {
    const made = paints[start.i]!.slice()
    for (let round = 0; round < 4; round++) {
      let best = { e: Infinity, i: -1, share: 0 }
      for (let i = 0; i < paints.length; i++)
        for (const share of [0.05, 0.12, 0.25, 0.5]) {
          blend(made, paints[i]!, share, trial)
          const e = deltaE00(labOf(trial), target)
          if (e < best.e) best = { e, i, share }
        }
      picked.add(best.i)
      blend(made, paints[best.i]!, best.share, made)
    }
  }
  for (const a of alone) {
    if (picked.size >= SHORT) break
    picked.add(a.i)
  }
  return [...picked].slice(0, SHORT)
}

function blend(a: Float64Array, b: Float64Array, share: number, out: Float64Array): void {
  for (let k = 0; k < WIDTH; k++) out[k] = a[k]! + share * (b[k]! - a[k]!)
}

/**
 * Every mix of up to four of the listed paints in up to twelve whole drops; of each set of paints the best is given.
 */
export function searchDrops(known: readonly Optics[], list: readonly number[], target: Triple): Found[] {
  const paints = list.map((i) => flat(known[i]!))
  const sums = Array.from({ length: MOST_PAINTS + 1 }, () => new Float64Array(WIDTH))
  const drops = new Int32Array(list.length)
  const best = new Map<number, Found>()
  const chroma = Math.hypot(target[1], target[2])
  const consider = (ks: Float64Array, set: number): void => {
    const lab = labOf(ks)
    const known = best.get(set)
    if (known) {
      // CIEDE2000 is never less than this share of the plain distance: its weights grow with chroma, and the
      // rotation in the blues can take off most of what is left.
      const plain = Math.hypot(lab[0] - target[0], lab[1] - target[1], lab[2] - target[2])
      if ((0.35 * plain) / (1.75 + 0.045 * 1.5 * Math.max(chroma, Math.hypot(lab[1], lab[2]))) >= known.error) return
    }
    const error = deltaE00(lab, target)
    if (known && error >= known.error - 1e-9) return
    const shares: Found['shares'] = []
    for (let i = 0; i < list.length; i++) if (drops[i]! > 0) shares.push([list[i]!, drops[i]!])
    best.set(set, { shares, error })
  }
  const descend = (from: number, depth: number, left: number, divisor: number, set: number): void => {
    if (divisor === 1) consider(sums[depth]!, set)
    if (depth === MOST_PAINTS) return
    const made = sums[depth]!,
      next = sums[depth + 1]!
    for (let i = from; i < list.length; i++) {
      next.set(made)
      const paint = paints[i]!
      for (let d = 1; d <= left; d++) {
        for (let k = 0; k < WIDTH; k++) next[k]! += paint[k]!
        drops[i] = d
        descend(i + 1, depth + 1, left - d, gcd(divisor, d), set | (1 << i))
      }
      drops[i] = 0
    }
  }
  descend(0, 0, MOST_DROPS, 0, 0)
  return [...best.values()]
}

/**
 * Betters mixes by single moves among all paints (a drop taken away, added, or exchanged for one of any other paint)
 * until no move helps: what the shortlist left out comes in here.
 */
export function refineDrops(known: readonly Optics[], start: readonly Found[], target: Triple): Found[] {
  const paints = known.map(flat)
  const out = new Map<string, Found>()
  const base = new Float64Array(WIDTH),
    trial = new Float64Array(WIDTH)
  const sum = (drops: ReadonlyMap<number, number>, into: Float64Array): void => {
    into.fill(0)
    for (const [i, d] of drops) for (let k = 0; k < WIDTH; k++) into[k]! += d * paints[i]![k]!
  }
  for (const from of start) {
    const drops = new Map(from.shares)
    let error = from.error
    for (;;) {
      const total = [...drops.values()].reduce((a, b) => a + b, 0)
      let best: { error: number; less: number | null; more: number | null } | null = null
      const consider = (ks: Float64Array, less: number | null, more: number | null): void => {
        const e = deltaE00(labOf(ks), target)
        if (e < (best?.error ?? error) - 1e-9) best = { error: e, less, more }
      }
      for (const less of [null, ...drops.keys()]) {
        const left = new Map(drops)
        if (less !== null) {
          if (left.get(less) === 1) left.delete(less)
          else left.set(less, left.get(less)! - 1)
        }
        sum(left, base)
        if (less !== null && left.size > 0) consider(base, less, null)
        if (less === null && total === MOST_DROPS) continue
        for (let more = 0; more < paints.length; more++) {
          if (more === less || (left.size === MOST_PAINTS && !left.has(more))) continue
          const paint = paints[more]!
          for (let k = 0; k < WIDTH; k++) trial[k] = base[k]! + paint[k]!
          consider(trial, less, more)
        }
      }
      if (best === null) break
      const { less, more } = best as { less: number | null; more: number | null }
      if (less !== null) {
        if (drops.get(less) === 1) drops.delete(less)
        else drops.set(less, drops.get(less)! - 1)
      }
      if (more !== null) drops.set(more, (drops.get(more) ?? 0) + 1)
      error = (best as { error: number }).error
    }
    const shares = [...drops].sort(([a], [b]) => a - b)
    const divisor = shares.reduce((g, [, d]) => gcd(g, d), 0)
    out.set(shares.map(([i]) => i).join(), { shares: shares.map(([i, d]) => [i, d / divisor]), error })
  }
  return [...out.values()]
}

/** The rank: an extra paint has to earn half a ΔE00. */
export const rank = (list: readonly Found[]): Found[] =>
  [...list].sort((a, b) => a.error + 0.5 * a.shares.length - b.error - 0.5 * b.shares.length)

/** Counts with a common divisor are the same mix in more drops. */
function gcd(a: number, b: number): number {
  while (b > 0) {
    const r = a % b
    a = b
    b = r
  }
  return a
}
