/** Prints that a workshop's own record is held against before it has one: this many parts, this share of them good. */
const PRIOR = { parts: 6, good: 0.94 }

/** How likely a part comes out, by how often ones like it did. */
export const likely = (r: { parts: number; good: number }): number =>
  (r.good + PRIOR.parts * PRIOR.good) / (r.parts + PRIOR.parts)

/** Chance that at least `need` of `printed` parts come out, each with chance p and for itself (binomial). */
export function chanceOf(need: number, printed: number, p: number): number {
  let sum = 0,
    term = p ** printed
  // From all good downward: each next term by its ratio to the one before.
  for (let good = printed; good >= need; good--) {
    sum += term
    if (p >= 1) return 1
    term *= (good / (printed - good + 1)) * ((1 - p) / p)
  }
  return Math.min(1, sum)
}

export interface Spares {
  /** to be printed besides */
  spares: number
  /** chance that enough come out without them, and with them */
  without: number
  with: number
}
/** Fewest spares with which enough come out at the wished chance; null where none are needed. */
export function sparesFor(need: number, p: number, wish = 0.9): Spares | null {
  const without = chanceOf(need, need, p)
  if (need < 1 || without >= wish) return null
  let spares = 1
  while (spares < 20 && chanceOf(need, need + spares, p) < wish) spares++
  return { spares, without, with: chanceOf(need, need + spares, p) }
}
