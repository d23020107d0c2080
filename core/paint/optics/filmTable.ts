import { FEW } from './fewBands'
import { type Optics } from './film'

/** Steps of film; between two of them no eye tells a difference. */
export const LEVELS = 256
const B = FEW.length

/**
 * A film over any ground, as Kubelka and Munk's solution has it, is a fractional linear map of the ground's internal
 * reflectance: R′ = (αR + β) / (γR + 1), with α, β, γ of K, S and thickness alone. So each coat is three numbers by band
 * and film, and a stack is these maps one after another: no exponential is taken at any vertex.
 *
 * @returns LEVELS × 3 floats for each of the few bands, film 0 to `film` µm
 */
export function filmTable(o: Optics, film: number): Float32Array {
  const out = new Float32Array(B * LEVELS * 3)
  for (let b = 0; b < B; b++)
    for (let l = 0; l < LEVELS; l++)
      filmMap(o.K[FEW[b]!]!, o.S[FEW[b]!]!, (film * l) / (LEVELS - 1), out, (b * LEVELS + l) * 3)
  return out
}

/**
 * Spots of a film that are too small to be seen one by one, or the rims of such as are: the levels are the share of the skin
 * that is covered, and what is seen is the mean of covered and bare (Murray 1936). That mean is no fractional linear map of
 * the ground; the one that meets it on black, on white and half way between stays within a fiftieth of it.
 *
 * @returns as `filmTable`
 */
export function spotTable(o: Optics, film: number): Float32Array {
  const whole = evenFilm(o, film),
    out = new Float32Array(B * LEVELS * 3)
  for (let b = 0; b < B; b++) {
    const over = (r: number): number => (whole[3 * b]! * r + whole[3 * b + 1]!) / (whole[3 * b + 2]! * r + 1)
    for (let l = 0; l < LEVELS; l++) {
      const c = l / (LEVELS - 1)
      const [black, half, white] = [0, 0.5, 1].map((r) => c * over(r) + (1 - c) * r) as [number, number, number]
      const i = (b * LEVELS + l) * 3,
        rise = white - half
      // A film that hides all it covers leaves nothing that bends.
      const bend = rise > 1e-6 ? (2 * half - white - black) / rise : 0
      out[i] = white * bend + white - black
      out[i + 1] = black
      out[i + 2] = bend
    }
  }
  return out
}

/** The map of no film at all. */
export const NO_FILM = Float32Array.from({ length: B * 3 }, (_, i) => (i % 3 === 0 ? 1 : 0))

/** The one map of a film of `film` µm, 3 floats per band. */
export function evenFilm(o: Optics, film: number): Float32Array {
  const out = new Float32Array(B * 3)
  for (let b = 0; b < B; b++) filmMap(o.K[FEW[b]!]!, o.S[FEW[b]!]!, film, out, b * 3)
  return out
}

function filmMap(K: number, S: number, X: number, out: Float32Array, i: number): void {
  if (S * X < 1e-9) {
    // Without scatter it only absorbs, there and back.
    out[i] = Math.exp(-2 * K * X)
    out[i + 1] = out[i + 2] = 0
    return
  }
  // a − b coth bSX and a + b coth bSX, both times s = tanh(bSX) / b, which stays finite for films of none and of no end.
  const a = 1 + K / S,
    b = Math.sqrt(a * a - 1)
  const e = Math.exp(-2 * b * S * X)
  const s = b * S * X < 1e-7 ? S * X : (1 - e) / (b * (1 + e))
  const den = a * s + 1
  out[i] = (1 - a * s) / den
  out[i + 1] = s / den
  out[i + 2] = -s / den
}

/** `over` laid on `below`, band by band; `over` may hold several maps a band, `below` holds one. */
export function laidOn(over: Float32Array, below: Float32Array): Float32Array {
  const out = new Float32Array(over.length),
    each = over.length / B
  for (let b = 0; b < B; b++) {
    const p = below[b * 3]!,
      q = below[b * 3 + 1]!,
      r = below[b * 3 + 2]!
    for (let i = b * each; i < (b + 1) * each; i += 3) {
      const x = over[i]!,
        y = over[i + 1]!,
        z = over[i + 2]!
      const one = 1 / (z * q + 1)
      out[i] = (x * p + y * r) * one
      out[i + 1] = (x * q + y) * one
      out[i + 2] = (z * p + r) * one
    }
  }
  return out
}
