/** Symmetric positive definite matrix: a diagonal and, per row, the other entries. */
export interface Sparse {
  readonly diagonal: Float64Array
  readonly starts: Uint32Array
  readonly columns: Uint32Array
  readonly values: Float64Array
}

/**
 * Solves A·x = b by conjugate gradients with the diagonal as preconditioner, from the x it is given. Stops at a relative
 * residual of `tolerance` or after `most` steps; returns how many it took.
 */
export function solve(a: Sparse, b: Float64Array, x: Float64Array, tolerance = 1e-6, most = 600): number {
  const n = b.length
  const r = new Float64Array(n),
    z = new Float64Array(n),
    d = new Float64Array(n),
    q = new Float64Array(n)
  multiply(a, x, q)
  let norm = 0,
    rz = 0
  for (let i = 0; i < n; i++) {
    r[i] = b[i]! - q[i]!
    z[i] = r[i]! / a.diagonal[i]!
    d[i] = z[i]!
    rz += r[i]! * z[i]!
    norm += (b[i]! * b[i]!) / a.diagonal[i]!
  }
  const enough = tolerance * tolerance * norm
  for (let step = 0; step < most; step++) {
    if (!(rz > enough)) return step
    multiply(a, d, q)
    let dq = 0
    for (let i = 0; i < n; i++) dq += d[i]! * q[i]!
    const alpha = rz / dq
    let next = 0
    for (let i = 0; i < n; i++) {
      x[i]! += alpha * d[i]!
      r[i]! -= alpha * q[i]!
      z[i] = r[i]! / a.diagonal[i]!
      next += r[i]! * z[i]!
    }
    const beta = next / rz
    rz = next
    for (let i = 0; i < n; i++) d[i] = z[i]! + beta * d[i]!
  }
  return most
}

function multiply({ diagonal, starts, columns, values }: Sparse, x: Float64Array, out: Float64Array): void {
  for (let i = 0; i < out.length; i++) {
    let sum = diagonal[i]! * x[i]!
    for (let k = starts[i]!; k < starts[i + 1]!; k++) sum += values[k]! * x[columns[k]!]!
    out[i] = sum
  }
}
