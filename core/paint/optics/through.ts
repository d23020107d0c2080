import { FEW, fewWeights } from './fewBands'
import { inward, SURFACE_RETURN } from './film'
import { LEVELS } from './filmTable'
import { CHUNK, type State } from './layers'

const B = FEW.length

/**
 * The share of light that a film lets through, from the map that says what it sends back: with R over black and T the
 * map of a ground Rg is R + T²Rg / (1 − R Rg), so that αδ − βγ of its four numbers, δ being 1, is T² (Kubelka 1948).
 *
 * @param table maps of three numbers, any count of them
 */
export const passing = (table: Float32Array): Float32Array =>
  Float32Array.from({ length: table.length / 3 }, (_, i) =>
    Math.sqrt(Math.max(0, table[3 * i]! - table[3 * i + 1]! * table[3 * i + 2]!)),
  )

/**
 * What leaves the surface, beside what leaves it bare: of what comes up to it the air side turns some back, the more of it
 * the paler the films are.
 *
 * @param share product of what the films let through
 * @param num, den reflectance of the whole from above, as a fraction
 * @param bare 1 − what the surface turns back of the inside's reflectance
 */
const leaving = (share: number, num: number, den: number, bare: number): number =>
  (share * bare) / (den - SURFACE_RETURN * num)
const bareOf = (inside: ArrayLike<number>): Float64Array =>
  Float64Array.from(FEW, (b) => 1 - SURFACE_RETURN * inward(inside[b]!))

/**
 * Share of a lamp's light that an even film leaves of what the bare skin lets out, by the eye.
 *
 * @param film three numbers a band, all films in one
 * @param inside reflectance of the 36 bands that it lies on
 * @param Y weights of the 36 bands for luminance by that lamp
 */
export function lightLeft(film: Float32Array, inside: ArrayLike<number>, Y: Float64Array): number {
  const w = fewWeights(Y),
    bare = bareOf(inside),
    share = passing(film)
  let left = 0,
    all = 0
  for (let b = 0; b < B; b++) {
    const ground = inward(inside[FEW[b]!]!)
    const num = film[3 * b]! * ground + film[3 * b + 1]!,
      den = film[3 * b + 2]! * ground + 1
    left += w[b]! * leaving(share[b]!, num, den, bare[b]!)
    all += w[b]!
  }
  return left / all
}

/**
 * Light of a lamp behind a clear body, through the films laid on it. Beside the fraction that holds what is sent back one
 * product by band is carried: films one over another let through the product of their own shares over 1 − R R′ between
 * them, and the product of those is the fraction's denominator. What the inside sends back once more is in it too.
 */
export class Through {
  /** product of what the films let through, B × CHUNK */
  readonly share = new Float32Array(B * CHUNK)
  private readonly films: Map<Float32Array, Float32Array>
  private readonly bare: Float64Array

  /**
   * @param films what will be laid: its table, and the share that each of its maps lets through
   * @param inside reflectance of the 36 bands that the films lie on
   * @param weights linear sRGB of the few bands, as the bare skin lets the light out
   */
  constructor(
    films: readonly { table: Float32Array; through: () => Float32Array }[],
    inside: Float64Array,
    private readonly weights: readonly [Float64Array, Float64Array, Float64Array],
  ) {
    this.films = new Map(films.map((f) => [f.table, f.through()]))
    this.bare = bareOf(inside)
  }

  begin(): void {
    this.share.fill(1)
  }

  addFilm(table: Float32Array, levels: Uint8Array, count: number): void {
    const film = this.films.get(table)!,
      each = film.length / B
    for (let b = 0; b < B; b++)
      for (let i = 0; i < count; i++) this.share[b * CHUNK + i]! *= film[each === 1 ? b : b * LEVELS + levels[i]!]!
  }

  toColours(vertices: Uint32Array, from: number, count: number, { num, den }: State, out: Float32Array): void {
    for (let i = 0; i < count; i++) {
      const o = 3 * vertices[from + i]!
      let r = 0,
        g = 0,
        b = 0
      for (let k = 0; k < B; k++) {
        const at = k * CHUNK + i
        const seen = leaving(this.share[at]!, num[at]!, den[at]!, this.bare[k]!)
        r += this.weights[0][k]! * seen
        g += this.weights[1][k]! * seen
        b += this.weights[2][k]! * seen
      }
      out[o] = Math.max(0, r)
      out[o + 1] = Math.max(0, g)
      out[o + 2] = Math.max(0, b)
    }
  }
}
