/**
 * Gaussian elimination with row pivots. What the rows leave undetermined comes out as 0, and is counted.
 *
 * @param rows n rows of n + 1 numbers, the right side last; they are written over
 * @param least pivots smaller than this count as nothing
 */
export function solved(rows: Float64Array[], least = 1e-12): { x: Float64Array; rank: number } {
  const n = rows.length
  for (let c = 0; c < n; c++) {
    let pivot = c
    for (let r = c + 1; r < n; r++) if (Math.abs(rows[r]![c]!) > Math.abs(rows[pivot]![c]!)) pivot = r
    ;[rows[c], rows[pivot]] = [rows[pivot]!, rows[c]!]
    const d = rows[c]![c]!
    if (Math.abs(d) < least) continue
    for (let r = c + 1; r < n; r++) {
      const f = rows[r]![c]! / d
      if (f !== 0) for (let k = c; k <= n; k++) rows[r]![k]! -= f * rows[c]![k]!
    }
  }
  const x = new Float64Array(n)
  let rank = 0
  for (let r = n - 1; r >= 0; r--) {
    if (Math.abs(rows[r]![r]!) < least) continue
    rank++
    let sum = rows[r]![n]!
    for (let k = r + 1; k < n; k++) sum -= rows[r]![k]! * x[k]!
    x[r] = sum / rows[r]![r]!
  }
  return { x, rank }
}
