import { BANDS, deltaE00, hexToLab, toLab, toXyz, type Triple } from './colour'
import { reflectanceOf } from './spectrum'

/** Optics of a paint: absorption and scattering per µm of dry film on the 36 bands. */
export interface Optics {
  K: Float64Array
  S: Float64Array
}

/**
 * Surface reflection for paint in air (Saunderson 1942): internal k2; the external k1 is 0, because swatches are
 * given without their gloss (specular excluded) and a matt finish is shown the same way.
 */
const K1 = 0,
  K2 = 0.55
/** Share of the light from inside that the film's own surface sends back. */
export const SURFACE_RETURN = K2
/** Dry film of one brushed coat, µm (craft.md, materials). */
export const BRUSHED = 20
export const AIRBRUSHED = 8

export const outward = (r: number): number => K1 + ((1 - K1) * (1 - K2) * r) / (1 - K2 * r)
export const inward = (m: number): number =>
  Math.min(0.999, Math.max(0.0004, (m - K1) / ((1 - K1) * (1 - K2) + K2 * (m - K1))))

/**
 * K and S from what a user can say of a paint: its colour where it hides fully, and its opacity, the contrast
 * ratio Y(over black) / Y(over white) of one brushed coat (0 to 1). S is taken as even over the bands and found
 * by bisection on that ratio; K follows from K/S = (1 − R)² / 2R (Kubelka and Munk 1931).
 */
export function opticsOf(colour: string | Triple, opacity: number): Optics {
  const R = reflectanceOf(typeof colour === 'string' ? hexToLab(colour) : colour).map(inward)
  const ratio = R.map((r) => ((1 - r) * (1 - r)) / (2 * r))
  const wanted = Math.min(0.995, Math.max(0.02, opacity))
  let lo = 1e-6,
    hi = 20
  for (let i = 0; i < 60; i++) {
    const s = Math.sqrt(lo * hi)
    const o: Optics = { K: ratio.map((k) => k * s), S: new Float64Array(BANDS).fill(s) }
    const contrast = toXyz(filmOver(o, BRUSHED, BLACK))[1] / toXyz(filmOver(o, BRUSHED, PAPER))[1]
    if (contrast < wanted) lo = s
    else hi = s
  }
  const s = Math.sqrt(lo * hi)
  return { K: ratio.map((k) => k * s), S: new Float64Array(BANDS).fill(s) }
}

/**
 * K and S by band from two swatches of one brushed coat's paint: at full hiding, and one coat over black. R∞ gives K/S
 * and the swatch over black the scattering of each band on its own, by bisection: more light comes back the more
 * scatters. Where the second swatch is as light as the first, or lighter, the band hides as fully as can be told.
 *
 * @param hides CIELAB at full hiding
 * @param overBlack CIELAB of one brushed coat over black
 */
export function opticsOfSwatches(hides: Triple, overBlack: Triple): Optics {
  const R = reflectanceOf(hides).map(inward),
    seen = reflectanceOf(overBlack),
    K = new Float64Array(BANDS),
    S = new Float64Array(BANDS)
  const ground = inward(BLACK[0]!)
  for (let b = 0; b < BANDS; b++) {
    const ratio = ((1 - R[b]!) * (1 - R[b]!)) / (2 * R[b]!)
    let lo = 1e-6,
      hi = 20
    for (let i = 0; i < 60; i++) {
      const s = Math.sqrt(lo * hi)
      if (outward(internalFilm(ratio * s, s, BRUSHED, ground)) < seen[b]!) lo = s
      else hi = s
    }
    S[b] = Math.sqrt(lo * hi)
    K[b] = ratio * S[b]!
  }
  // Bands in which the paint is as dark as the ground tell nothing of how it scatters: they take the others' mean.
  const told = [...R.keys()].filter((b) => outward(R[b]!) > BLACK[b]! + 0.02)
  const mean = told.length > 0 ? Math.exp(told.reduce((s, b) => s + Math.log(S[b]!), 0) / told.length) : 0.05
  for (let b = 0; b < BANDS; b++)
    if (!told.includes(b)) {
      K[b]! *= mean / S[b]!
      S[b] = mean
    }
  return { K, S }
}

/** Grounds, as seen from outside. */
export const BLACK = new Float64Array(BANDS).fill(0.035)
export const PAPER = new Float64Array(BANDS).fill(0.9)

/** Mixture by volume share; shares are normalised. K and S add (Duncan 1940). */
export function mix(paints: readonly Optics[], shares: readonly number[]): Optics {
  const total = shares.reduce((a, b) => a + b, 0) || 1
  const K = new Float64Array(BANDS),
    S = new Float64Array(BANDS)
  paints.forEach((p, i) => {
    const c = shares[i]! / total
    for (let b = 0; b < BANDS; b++) {
      K[b]! += c * p.K[b]!
      S[b]! += c * p.S[b]!
    }
  })
  return { K, S }
}

/** Thinned with clear medium to a volume share `pigment` (0 to 1] of itself: the film scatters and absorbs that much less. */
export const thinned = (o: Optics, pigment: number): Optics => ({
  K: o.K.map((k) => k * pigment),
  S: o.S.map((s) => s * pigment),
})

/**
 * Reflectance seen from outside of a film of `thickness` µm over a ground, by the hyperbolic solution:
 * R = (1 − Rg (a − b coth bSX)) / (a − Rg + b coth bSX), a = 1 + K/S, b = √(a² − 1).
 */
export function filmOver(o: Optics, thickness: number, ground: ArrayLike<number>): Float64Array {
  const out = new Float64Array(BANDS)
  for (let i = 0; i < BANDS; i++)
    out[i] = thickness <= 0 ? ground[i]! : outward(internalFilm(o.K[i]!, o.S[i]!, thickness, inward(ground[i]!)))
  return out
}

function internalFilm(K: number, S: number, X: number, Rg: number): number {
  // Without scatter the film only absorbs, there and back.
  if (S * X < 1e-9) return Rg * Math.exp(-2 * K * X)
  const a = 1 + K / S,
    b = Math.sqrt(a * a - 1)
  const arg = b * S * X
  if (arg < 1e-6) {
    const sx = S * X
    return (sx + Rg * (1 - sx)) / (1 + sx - sx * Rg)
  }
  const coth = arg > 20 ? 1 : 1 / Math.tanh(arg)
  return (1 - Rg * (a - b * coth)) / (a - Rg + b * coth)
}

/** Reflectance at full hiding. */
export function hiding(o: Optics): Float64Array {
  return Float64Array.from({ length: BANDS }, (_, i) => {
    const q = o.K[i]! / Math.max(1e-12, o.S[i]!)
    return outward(1 + q - Math.sqrt(q * q + 2 * q))
  })
}

/** Most coats that anybody lays before another ground is chosen. */
export const MAX_COATS = 12

/** Coats of `film` µm until the colour is within ΔE00 1 of full hiding; null when 12 are not enough. */
export function coatsToHide(o: Optics, ground: ArrayLike<number>, film = BRUSHED): number | null {
  return coatsToReach(o, ground, film, toLab(hiding(o)), 1)
}

/** Coats of `film` µm until the colour is within ΔE00 `within` of a goal; null when 12 are not enough. */
export function coatsToReach(
  o: Optics,
  ground: ArrayLike<number>,
  film: number,
  goal: Triple,
  within: number,
): number | null {
  for (let n = 1; n <= MAX_COATS; n++) if (deltaE00(toLab(filmOver(o, film * n, ground)), goal) < within) return n
  return null
}
