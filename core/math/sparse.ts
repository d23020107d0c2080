/** Symmetric positive definite matrix: a diagonal and, per row, the other entries. */
export interface Sparse {
  readonly diagonal: Float64Array
  readonly starts: Uint32Array
  readonly columns: Uint32Array
  readonly values: Float64Array
}

/** out = A·x */
export function multiply({ diagonal, starts, columns, values }: Sparse, x: Float64Array, out: Float64Array): void {
  for (let i = 0; i < out.length; i++) {
    let sum = diagonal[i]! * x[i]!
    for (let k = starts[i]!; k < starts[i + 1]!; k++) sum += values[k]! * x[columns[k]!]!
    out[i] = sum
  }
}
