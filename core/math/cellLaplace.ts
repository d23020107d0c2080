/** A side of a cell through which nothing passes. */
export const WALL = -1
/** A side towards the fixed value of that number. */
export const held = (number: number): number => -2 - number

/** Share of what the factor drops that is put back on its diagonal, and the share of a diagonal below which that is not done. */
const MODIFIED = 0.97,
  SAFE = 0.25
/** of the squared residual at the start */
const ENOUGH = 1e-14
const MAX_STEPS = 1500

/**
 * Laplace's equation over cells that touch side to side: each cell has the mean of those it is open to. Solved by conjugate
 * gradients with a modified incomplete Cholesky factor with no fill (Bridson 2015, chapter 5), in far fewer steps than
 * without.
 */
export class CellLaplace {
  /** one over each diagonal entry of the factor */
  private readonly inverse: Float64Array
  private readonly n: number

  /**
   * @param near `ways` per cell: the cell on that side, `WALL`, or `held(k)` where the value is given
   * @param ways sides of a cell
   */
  constructor(
    private readonly near: Int32Array,
    private readonly ways: number,
  ) {
    const n = (this.n = near.length / ways)
    const inverse = (this.inverse = new Float64Array(n)),
      later = new Uint8Array(n)
    for (let i = 0; i < n; i++) {
      let diagonal = 0,
        e = 0
      for (let k = i * ways; k < (i + 1) * ways; k++) {
        const m = near[k]!
        if (m === WALL) continue
        diagonal++
        if (m > i) later[i]!++
        else if (m >= 0) e += inverse[m]! ** 2 * (1 + MODIFIED * (later[m]! - 1))
      }
      e = diagonal - e
      inverse[i] = 1 / Math.sqrt(e > SAFE * diagonal ? e : Math.max(1, diagonal))
    }
  }

  /**
   * @param source number of the fixed value that is 1; all others are 0
   * @returns a value per cell, 0 to 1; cells that lie open to no fixed value keep one half
   */
  potential(source: number): Float64Array {
    const { near, ways, n } = this
    const x = new Float64Array(n).fill(0.5),
      r = new Float64Array(n),
      q = new Float64Array(n),
      z = new Float64Array(n)
    let rr = 0
    for (let i = 0; i < n; i++) {
      for (let k = i * ways; k < (i + 1) * ways; k++) {
        const m = near[k]!
        if (m >= 0) r[i]! += x[m]! - x[i]!
        else if (m !== WALL) r[i]! += (m === held(source) ? 1 : 0) - x[i]!
      }
      rr += r[i]! * r[i]!
    }
    const enough = ENOUGH * Math.max(1, rr)
    let rz = this.precondition(r, z)
    const d = z.slice()
    for (let step = 0; step < MAX_STEPS && rr > enough; step++) {
      let dq = 0
      for (let i = 0; i < n; i++) {
        let sum = 0
        for (let k = i * ways; k < (i + 1) * ways; k++) {
          const m = near[k]!
          if (m >= 0) sum += d[i]! - d[m]!
          else if (m !== WALL) sum += d[i]!
        }
        q[i] = sum
        dq += d[i]! * sum
      }
      if (!(dq > 0)) break
      const a = rz / dq
      rr = 0
      for (let i = 0; i < n; i++) {
        x[i]! += a * d[i]!
        r[i]! -= a * q[i]!
        rr += r[i]! * r[i]!
      }
      const next = this.precondition(r, z)
      for (let i = 0; i < n; i++) d[i] = z[i]! + (next / rz) * d[i]!
      rz = next
    }
    return x
  }

  /** z = M⁻¹ r, forward and back through the factor. @returns r · z */
  private precondition(r: Float64Array, z: Float64Array): number {
    const { near, ways, inverse, n } = this
    for (let i = 0; i < n; i++) {
      let sum = r[i]!
      for (let k = i * ways; k < (i + 1) * ways; k++) {
        const m = near[k]!
        if (m >= 0 && m < i) sum += inverse[m]! * z[m]!
      }
      z[i] = sum * inverse[i]!
    }
    let dot = 0
    for (let i = n - 1; i >= 0; i--) {
      let sum = 0
      for (let k = i * ways; k < (i + 1) * ways; k++) {
        const m = near[k]!
        if (m > i) sum += z[m]!
      }
      z[i] = (z[i]! + inverse[i]! * sum) * inverse[i]!
      dot += r[i]! * z[i]!
    }
    return dot
  }
}
