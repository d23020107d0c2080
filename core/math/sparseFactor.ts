import { multiply, type Sparse } from './sparse'

/** Added to each pivot, as a share of the diagonal: a loose shell that nothing holds has a singular block. */
const HOLD = 1e-9
/** Sets this small are numbered as they come. */
const SMALL = 24

/**
 * A symmetric positive definite matrix factored once as L·D·Lᵀ and then solved for many right sides.
 *
 * Rows are eliminated in nested dissection order (George 1973; halves found by breadth-first levels), by which the factor
 * of a surface of n vertices has about 10·n·log₂ n entries at most. Elimination tree and up-looking factor after Davis 2005.
 */
export class Factor {
  /** row eliminated at each step */
  private readonly order: Int32Array
  private readonly starts: Int32Array
  private readonly rows: Int32Array
  private readonly values: Float64Array
  private readonly pivots: Float64Array
  private readonly rest: Float64Array

  constructor(private readonly matrix: Sparse) {
    const n = matrix.diagonal.length
    this.order = dissected(matrix)
    this.rest = new Float64Array(n)
    const place = new Int32Array(n)
    for (let k = 0; k < n; k++) place[this.order[k]!] = k
    const { parent, counts } = eliminationTree(matrix, this.order, place)
    this.starts = new Int32Array(n + 1)
    for (let k = 0; k < n; k++) this.starts[k + 1] = this.starts[k]! + counts[k]!
    this.rows = new Int32Array(this.starts[n]!)
    this.values = new Float64Array(this.starts[n]!)
    this.pivots = new Float64Array(n)
    const filled = new Int32Array(n),
      mark = new Int32Array(n).fill(-1),
      path = new Int32Array(n),
      pattern = new Int32Array(n),
      y = new Float64Array(n)
    for (let k = 0; k < n; k++) {
      let top = n
      mark[k] = k
      const row = this.order[k]!
      for (let e = matrix.starts[row]!; e < matrix.starts[row + 1]!; e++) {
        let i = place[matrix.columns[e]!]!
        if (i >= k) continue
        y[i]! += matrix.values[e]!
        let length = 0
        for (; mark[i] !== k; i = parent[i]!) {
          path[length++] = i
          mark[i] = k
        }
        while (length > 0) pattern[--top] = path[--length]!
      }
      let pivot = matrix.diagonal[row]! * (1 + HOLD)
      for (; top < n; top++) {
        const i = pattern[top]!
        const yi = y[i]!
        y[i] = 0
        const from = this.starts[i]!,
          to = from + filled[i]!
        for (let p = from; p < to; p++) y[this.rows[p]!]! -= this.values[p]! * yi
        const l = yi / this.pivots[i]!
        pivot -= l * yi
        this.rows[to] = k
        this.values[to] = l
        filled[i]!++
      }
      if (!(pivot > 0)) pivot = matrix.diagonal[row]! * HOLD || HOLD
      this.pivots[k] = pivot
    }
  }

  /** x becomes the solution of A·x = b nearest to what it was: only the residual is solved for. */
  solve(b: Float64Array, x: Float64Array): void {
    const { order, starts, rows, values, pivots, rest } = this
    const n = b.length
    multiply(this.matrix, x, rest)
    const z = new Float64Array(n)
    for (let k = 0; k < n; k++) z[k] = b[order[k]!]! - rest[order[k]!]!
    for (let k = 0; k < n; k++) {
      const zk = z[k]!
      for (let p = starts[k]!; p < starts[k + 1]!; p++) z[rows[p]!]! -= values[p]! * zk
    }
    for (let k = 0; k < n; k++) z[k]! /= pivots[k]!
    for (let k = n - 1; k >= 0; k--) {
      let sum = z[k]!
      for (let p = starts[k]!; p < starts[k + 1]!; p++) sum -= values[p]! * z[rows[p]!]!
      z[k] = sum
      x[order[k]!]! += sum
    }
  }
}

/** Parent of each column in the factor, and how many entries lie below its diagonal. */
function eliminationTree(
  { starts, columns }: Sparse,
  order: Int32Array,
  place: Int32Array,
): { parent: Int32Array; counts: Int32Array } {
  const n = order.length
  const parent = new Int32Array(n).fill(-1),
    counts = new Int32Array(n),
    mark = new Int32Array(n).fill(-1)
  for (let k = 0; k < n; k++) {
    mark[k] = k
    const row = order[k]!
    for (let e = starts[row]!; e < starts[row + 1]!; e++)
      for (let i = place[columns[e]!]!; i < k && mark[i] !== k; i = parent[i]!) {
        if (parent[i] === -1) parent[i] = k
        counts[i]!++
        mark[i] = k
      }
  }
  return { parent, counts }
}

/**
 * An order of elimination: each set of rows is parted by a level of a breadth-first walk that comes last, the two halves
 * before it likewise.
 */
function dissected({ starts, columns, diagonal }: Sparse): Int32Array {
  const n = diagonal.length
  const order = new Int32Array(n)
  let at = n
  const owner = new Int32Array(n),
    level = new Int32Array(n).fill(-1),
    queue = new Int32Array(n)
  let sets = 1
  const todo: { set: number; rows: Int32Array }[] = [{ set: 0, rows: new Int32Array(order.keys()) }]
  /** Levels from a row within its set; how many rows were reached, in `queue`. */
  const walk = (from: number, set: number): number => {
    let head = 0,
      tail = 0
    queue[tail++] = from
    level[from] = 0
    while (head < tail) {
      const v = queue[head++]!
      for (let e = starts[v]!; e < starts[v + 1]!; e++) {
        const w = columns[e]!
        if (owner[w] !== set || level[w]! >= 0) continue
        level[w] = level[v]! + 1
        queue[tail++] = w
      }
    }
    return tail
  }
  const forget = (count: number): void => {
    for (let i = 0; i < count; i++) level[queue[i]!] = -1
  }
  // Written from the end: what is taken off first is eliminated last.
  while (todo.length > 0) {
    const { set, rows } = todo.pop()!
    if (rows.length <= SMALL) {
      for (let i = rows.length - 1; i >= 0; i--) order[--at] = rows[i]!
      continue
    }
    // Twice from the far end: about the longest way across.
    let reached = walk(rows[0]!, set)
    const far = queue[reached - 1]!
    forget(reached)
    reached = walk(far, set)
    const middle = level[queue[reached >> 1]!]!
    const parts: [number[], number[], number[]] = [[], [], []]
    const loose: number[] = []
    if (reached < rows.length) for (const v of rows) if (level[v] === -1) loose.push(v)
    for (let i = 0; i < reached; i++) {
      const v = queue[i]!
      parts[level[v]! < middle ? 0 : level[v]! === middle ? 1 : 2].push(v)
    }
    forget(reached)
    for (const v of parts[1]) {
      order[--at] = v
      owner[v] = -1
    }
    for (const half of [parts[0], parts[2], loose]) {
      if (half.length === 0) continue
      const name = sets++
      for (const v of half) owner[v] = name
      todo.push({ set: name, rows: new Int32Array(half) })
    }
  }
  return order
}
