import { BANDS, deltaE00, hexToLab, toHex, toLab, toXyz, xyzToSrgb, type Triple } from './colour'
import { hiding, mix, opticsOf, outward, type Optics } from './film'

export interface StockPaint {
  id: string
  name: string
  hex: string
  /** contrast ratio of one brushed coat, 0 to 1 */
  opacity: number
  kind: 'acrylic' | 'ink' | 'wash' | 'metallic' | 'fluorescent' | 'varnish'
}

export interface Recipe {
  drops: { paint: string; name: string; drops: number }[]
  total: number
  /** CIEDE2000 to the target, at full hiding */
  error: number
  hex: string
}

export interface RecipeAnswer {
  recipes: Recipe[]
  /** within ΔE00 2 of the target: a touch-up that is not noticed */
  reached: boolean
  /** what is missing when it is not reached, in words */
  missing: string | null
  /** paints left out of mixing arithmetic, with why */
  excluded: string[]
}

const MOST_DROPS = 12
const MOST_PAINTS = 4

/**
 * Best mixes of up to four paints in whole drops, up to twelve in all. Paints are first narrowed down by how far
 * mixing them into the best mix so far moves it toward the target; then drop counts are searched exhaustively
 * over the shortlist. Ranked by error, an extra paint having to earn half a ΔE00.
 */
export function solveRecipe(targetHex: string, stock: readonly StockPaint[], optics?: ReadonlyMap<string, Optics>): RecipeAnswer {
  const target = hexToLab(targetHex)
  const excluded = stock.filter((p) => p.kind === 'metallic' || p.kind === 'fluorescent')
    .map((p) => `${p.name} (${p.kind}: reflects in a way that mixing arithmetic does not describe)`)
  const usable = stock.filter((p) => p.kind === 'acrylic' || p.kind === 'ink')
  const known = usable.map((p) => optics?.get(p.id) ?? opticsOf(p.hex, p.opacity))
  if (usable.length === 0) return { recipes: [], reached: false, missing: 'There is no mixable paint in the stock.', excluded }
  const list = shortlist(known, target)
  const found = new Map<string, { shares: [number, number][]; error: number }>()
  const K = new Float64Array(BANDS), S = new Float64Array(BANDS), R = new Float64Array(BANDS)
  const consider = (parts: [number, number][]): void => {
    K.fill(0)
    S.fill(0)
    for (const [i, d] of parts) { const o = known[i]!; for (let b = 0; b < BANDS; b++) { K[b]! += d * o.K[b]!; S[b]! += d * o.S[b]! } }
    const lab = toLab(hidingInto(K, S, R))
    const error = deltaE00(lab, target)
    const key = parts.map(([i]) => i).join()
    const best = found.get(key)
    if (!best || error < best.error - 1e-9) found.set(key, { shares: parts.map(([i, d]) => [i, d]), error })
  }
  const choose = (from: number, parts: [number, number][], left: number): void => {
    if (parts.length > 0 && coprime(parts)) consider(parts)
    if (parts.length === MOST_PAINTS) return
    for (let i = from; i < list.length; i++) for (let d = 1; d <= left; d++) choose(i + 1, [...parts, [list[i]!, d]], left - d)
  }
  choose(0, [], MOST_DROPS)
  const ranked = [...found.values()].sort((a, b) => a.error + 0.5 * a.shares.length - b.error - 0.5 * b.shares.length)
  const recipes = ranked.slice(0, 5).map(({ shares, error }): Recipe => ({
    drops: shares.map(([i, drops]) => ({ paint: usable[i]!.id, name: usable[i]!.name, drops })).sort((a, b) => b.drops - a.drops),
    total: shares.reduce((s, [, d]) => s + d, 0), error,
    hex: toHex(xyzToSrgb(toXyz(hiding(mix(shares.map(([i]) => known[i]!), shares.map(([, d]) => d)))))),
  }))
  const best = ranked.reduce((a, b) => (b.error < a.error ? b : a))
  const reached = best.error <= 2
  return { recipes, reached, missing: reached ? null : missing(target, best, known), excluded }
}

const coprime = (parts: [number, number][]): boolean => {
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))
  return parts.map(([, d]) => d).reduce(gcd) === 1
}

function hidingInto(K: Float64Array, S: Float64Array, out: Float64Array): Float64Array {
  for (let i = 0; i < BANDS; i++) {
    const q = K[i]! / S[i]!
    out[i] = outward(1 + q - Math.sqrt(q * q + 2 * q))
  }
  return out
}

/** Up to eight paints: those nearest alone, and those that pull a growing mix closest to the target. */
function shortlist(known: readonly Optics[], target: Triple): number[] {
  const alone = known.map((o, i) => ({ i, e: deltaE00(toLab(hiding(o)), target) })).sort((a, b) => a.e - b.e)
  const picked = new Set(alone.slice(0, 2).map((a) => a.i))
  for (const start of alone.slice(0, 3)) {
    let parts: [number, number][] = [[start.i, 1]]
    for (let round = 0; round < 4; round++) {
      let best = { e: Infinity, i: -1, share: 0 }
      for (let i = 0; i < known.length; i++) for (const share of [0.05, 0.12, 0.25, 0.5]) {
        const trial = [...parts.map(([j, d]): [number, number] => [j, d * (1 - share)]), [i, share] as [number, number]]
        const e = deltaE00(toLab(hiding(mix(trial.map(([j]) => known[j]!), trial.map(([, d]) => d)))), target)
        if (e < best.e) best = { e, i, share }
      }
      picked.add(best.i)
      parts = [...parts.map(([j, d]): [number, number] => [j, d * (1 - best.share)]), [best.i, best.share]]
    }
  }
  for (const a of alone) { if (picked.size >= 8) break; picked.add(a.i) }
  return [...picked].slice(0, 8)
}

/** Names the direction in which the stock falls short. */
function missing(target: Triple, best: { shares: [number, number][]; error: number }, known: readonly Optics[]): string {
  const got = toLab(hiding(mix(best.shares.map(([i]) => known[i]!), best.shares.map(([, d]) => d))))
  const c1 = Math.hypot(target[1], target[2]), c2 = Math.hypot(got[1], got[2])
  const hue = ((Math.atan2(target[2], target[1]) * 180) / Math.PI + 360) % 360
  const name = hue < 25 || hue >= 345 ? 'red' : hue < 60 ? 'orange' : hue < 105 ? 'yellow' : hue < 165 ? 'green' : hue < 230 ? 'turquoise' : hue < 290 ? 'blue' : 'violet'
  if (c1 > c2 + 3) return `The stock has no ${name} pigment pure enough: the closest mix stays ${(c1 - c2).toFixed(0)} units of chroma short.`
  if (target[0] > got[0] + 2) return 'The stock has no white strong enough to reach this lightness.'
  if (target[0] < got[0] - 2) return 'The stock has no paint dark enough to reach this depth.'
  return `The closest mix misses the hue; a ${name} nearer to the target would reach it.`
}
