/**
 * One pass of the exact squared distance transform along a line of cells: the lower envelope of parabolas (Felzenszwalb
 * and Huttenlocher 2012). Passed along every axis in turn, what begins as 0 outside and far inside ends as the squared
 * distance, in cells, to the nearest outside.
 */
export class Parabolas {
  private readonly f: Float64Array
  private readonly bound: Float64Array
  private readonly at: Int32Array

  /** @param longest cells of the longest line */
  constructor(longest: number) {
    this.f = new Float64Array(longest)
    this.bound = new Float64Array(longest + 1)
    this.at = new Int32Array(longest)
  }

  pass(values: Float64Array | Float32Array, length: number, start: number, stride: number): void {
    const { f, bound, at } = this
    for (let i = 0; i < length; i++) f[i] = values[start + i * stride]!
    let k = 0
    at[0] = 0
    bound[0] = -Infinity
    bound[1] = Infinity
    for (let q = 1; q < length; q++) {
      let s: number
      for (;;) {
        const p = at[k]!
        s = (f[q]! + q * q - f[p]! - p * p) / (2 * (q - p))
        if (s > bound[k]!) break
        k--
      }
      at[++k] = q
      bound[k] = s
      bound[k + 1] = Infinity
    }
    k = 0
    for (let q = 0; q < length; q++) {
      while (bound[k + 1]! < q) k++
      values[start + q * stride] = (q - at[k]!) ** 2 + f[at[k]!]!
    }
  }
}
