import { FEW } from './fewBands'
import { LEVELS } from './filmTable'

const B = FEW.length
/** Vertices taken together: their bands stay in the nearest cache. */
export const CHUNK = 512

/**
 * Internal reflectance as a fraction, by band: a fractional linear map takes the pair (num, den) linearly, so that a whole
 * stack is laid without a division.
 */
export interface State {
  num: Float32Array
  den: Float32Array
}
export const state = (): State => ({ num: new Float32Array(CHUNK * B), den: new Float32Array(CHUNK * B) })
/** Films laid before the fraction is brought back to (R, 1): each shrinks `den` by 500 at most, and a float ends at 1e-38. */
export const UNDIVIDED = 12

/** A film lies on it: `table` holds one map a band, or one for each level of film. */
export function addFilm(table: Float32Array, levels: Uint8Array, { num, den }: State, count: number): void {
  if (table.length === B * 3) return overAll(table, num, den, count)
  for (let b = 0; b < B; b++) {
    const t = b * LEVELS * 3,
      s = b * CHUNK
    for (let i = 0; i < count; i++) {
      const m = t + 3 * levels[i]!,
        n = num[s + i]!,
        d = den[s + i]!
      num[s + i] = table[m]! * n + table[m + 1]! * d
      den[s + i] = table[m + 2]! * n + d
    }
  }
}
function overAll(map: Float32Array, num: Float32Array, den: Float32Array, count: number): void {
  for (let b = 0; b < B; b++) {
    const p = map[3 * b]!,
      q = map[3 * b + 1]!,
      z = map[3 * b + 2]!
    for (let i = b * CHUNK; i < b * CHUNK + count; i++) {
      const n = num[i]!,
        d = den[i]!
      num[i] = p * n + q * d
      den[i] = z * n + d
    }
  }
}
/** Every array given by `den`, which then is 1. */
export function divide(den: Float32Array, ...arrays: Float32Array[]): void {
  for (const a of arrays) for (let i = 0; i < a.length; i++) a[i]! /= den[i]!
  den.fill(1)
}
