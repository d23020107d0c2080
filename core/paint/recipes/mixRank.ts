export const MAX_DROPS = 12
export const MAX_PAINTS = 4

export interface Found {
  /** paint number and its drops, by paint number, in lowest terms */
  shares: [paint: number, drops: number][]
  /** ΔE00 to the target at full hiding */
  error: number
}

/** ΔE00 within which two mixes are as near to a target as the eye can tell. */
export const STEP = 0.5
/** ΔE00 at which a touch-up passes unseen. */
export const UNSEEN = 2

/**
 * Order of mixes: those that the eye cannot tell apart stand together, there fewer paints come first, then fewer
 * drops, then the nearer one.
 */
export function rankOf(f: Found): number {
  const drops = f.shares.reduce((s, [, d]) => s + d, 0)
  return rankBy(f.error, f.shares.length, drops)
}
export const rankBy = (error: number, paints: number, drops: number): number =>
  Math.ceil(error / STEP - 1e-9) * 1e5 + paints * 1e4 + drops * 100 + Math.min(99, error)

/** Counts with a common divisor are the same mix in more drops. */
export function gcd(a: number, b: number): number {
  while (b > 0) {
    const r = a % b
    a = b
    b = r
  }
  return a
}
