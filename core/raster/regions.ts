import type { Runs } from './raster'

/** Pixels of at least this value are solid. */
export const SOLID = 48

/** Half-open pixel intervals [from, to) of one layer, row by row: those of row y from rowStart[y] up to rowStart[y + 1]. */
export interface Intervals {
  width: number
  height: number
  rowStart: Uint32Array
  from: Uint32Array
  to: Uint32Array
  label: Uint32Array
  /** Σ value / 255 of its pixels: covered area, finer than a count of pixels; 0 of voids */
  light: Float32Array
}
export interface Labels {
  count: number
  pixels: Float64Array
  /** covered area in pixels */
  light: Float64Array
  sumX: Float64Array
  sumY: Float64Array
  edge: Uint8Array
  /** longest interval of each region: a place that is surely in it, as a centroid need not be */
  longest: Uint32Array
}

/**
 * Reads the lit pixels of layers, with `rows` rows made one: solid wherever one of them is, so that nothing is missed, however
 * thin, and what is less than such a row apart counts as one. Along the rows all stays as fine as it was; light is that of the
 * rows' mean. What it works in is kept from layer to layer.
 */
export class SolidReader {
  private from = new Uint32Array(1 << 12)
  private to = new Uint32Array(1 << 12)
  private light = new Float32Array(1 << 12)
  private n = 0
  /** the block's rows, one after the other: where each is read, and where it ends */
  private readonly at: Uint32Array
  private readonly end: Uint32Array
  private rowFrom = new Uint32Array(1 << 8)
  private rowTo = new Uint32Array(1 << 8)
  private rowLight = new Float32Array(1 << 8)

  constructor(private readonly rows = 1) {
    this.at = new Uint32Array(rows)
    this.end = new Uint32Array(rows)
  }

  of(runs: Runs): Intervals {
    const { rows } = this
    const height = Math.ceil(runs.height / rows)
    const rowStart = new Uint32Array(height + 1)
    this.n = 0
    for (let row = 0; row < height; row++) {
      rowStart[row] = this.n
      const first = row * rows,
        count = Math.min(rows, runs.height - first)
      const most = runs.rowStart[first + count]! - runs.rowStart[first]!
      if (most === 0) continue
      this.room(most)
      if (rows === 1) this.n = lit(runs, first, this.from, this.to, this.light, this.n)
      else this.join(runs, first, count)
    }
    rowStart[height] = this.n
    return {
      width: runs.width,
      height,
      rowStart,
      from: this.from.slice(0, this.n),
      to: this.to.slice(0, this.n),
      label: new Uint32Array(this.n),
      light: this.light.slice(0, this.n),
    }
  }

  /** Merges the rows of a block in the order in which their intervals begin. */
  private join(runs: Runs, first: number, count: number): void {
    const { rows, at, end, from, to, light, rowFrom, rowTo, rowLight } = this
    for (let r = 0, n = 0; r < count; r++) {
      at[r] = n
      end[r] = n = lit(runs, first + r, rowFrom, rowTo, rowLight, n)
    }
    let n = this.n,
      reach = -1
    for (;;) {
      let next = -1,
        begin = 0xffffffff
      for (let r = 0; r < count; r++)
        if (at[r]! < end[r]! && rowFrom[at[r]!]! < begin) {
          begin = rowFrom[at[r]!]!
          next = r
        }
      if (next < 0) break
      const i = at[next]!++
      if (begin > reach) {
        from[n] = begin
        light[n++] = 0
        reach = -1
      }
      if (rowTo[i]! > reach) to[n - 1] = reach = rowTo[i]!
      light[n - 1]! += rowLight[i]! / rows
    }
    this.n = n
  }

  private room(more: number): void {
    if (this.n + more > this.from.length) {
      const size = Math.max(2 * this.from.length, this.n + more)
      this.from = grown(this.from, new Uint32Array(size))
      this.to = grown(this.to, new Uint32Array(size))
      this.light = grown(this.light, new Float32Array(size))
    }
    if (more > this.rowFrom.length) {
      this.rowFrom = new Uint32Array(2 * more)
      this.rowTo = new Uint32Array(2 * more)
      this.rowLight = new Float32Array(2 * more)
    }
  }
}

function grown<T extends Uint32Array | Float32Array>(a: T, b: T): T {
  b.set(a)
  return b
}

/** Writes the lit intervals of a row from place n on; gives the place after them. */
function lit(runs: Runs, row: number, from: Uint32Array, to: Uint32Array, light: Float32Array, n: number): number {
  const { x, length, value } = runs
  const last = runs.rowStart[row + 1]!
  let begin = -1,
    at = -1,
    sum = 0
  for (let i = runs.rowStart[row]!; i < last; i++) {
    const v = value[i]!
    if (v < SOLID) continue
    if (x[i] !== at) {
      if (begin >= 0) {
        from[n] = begin
        to[n] = at
        light[n++] = sum / 255
      }
      at = begin = x[i]!
      sum = 0
    }
    at += length[i]!
    sum += length[i]! * v
  }
  if (begin < 0) return n
  from[n] = begin
  to[n] = at
  light[n] = sum / 255
  return n + 1
}

/** The lit pixels of each row of a layer. */
export const solidOf = (runs: Runs): Intervals => new SolidReader().of(runs)

/** What is between the intervals of each row, and beside them. */
export function voidsOf(s: Intervals): Intervals {
  const { width, height } = s
  const most = s.from.length + height
  const rowStart = new Uint32Array(height + 1),
    from = new Uint32Array(most),
    to = new Uint32Array(most)
  let n = 0
  for (let row = 0; row < height; row++) {
    rowStart[row] = n
    let at = 0
    for (let i = s.rowStart[row]!; i < s.rowStart[row + 1]!; i++) {
      const begin = s.from[i]!
      if (begin > at) {
        from[n] = at
        to[n++] = begin
      }
      at = s.to[i]!
    }
    if (at < width) {
      from[n] = at
      to[n++] = width
    }
  }
  rowStart[height] = n
  return {
    width,
    height,
    rowStart,
    from: from.subarray(0, n),
    to: to.subarray(0, n),
    label: new Uint32Array(n),
    light: new Float32Array(n),
  }
}

/**
 * Connected regions within a layer (4-neighbours), numbered in the order of their first interval. An interval takes the name
 * of one above it; only where it joins two are names united, so that few intervals look at more than their neighbours.
 */
export function label(s: Intervals): Labels {
  const { rowStart, from, to, label: names, height } = s
  const parent: number[] = []
  const root = (a: number): number => {
    while (parent[a] !== a) a = parent[a] = parent[parent[a]!]!
    return a
  }
  for (let row = 0; row < height; row++) {
    let j = row > 0 ? rowStart[row - 1]! : 0
    const above = row > 0 ? rowStart[row]! : 0
    for (let i = rowStart[row]!; i < rowStart[row + 1]!; i++) {
      const begin = from[i]!,
        end = to[i]!
      while (j < above && to[j]! <= begin) j++
      if (j === above || from[j]! >= end) {
        names[i] = parent.length
        parent.push(parent.length)
        continue
      }
      let name = root(names[j]!)
      for (let k = j + 1; k < above && from[k]! < end; k++) {
        const other = root(names[k]!)
        if (other === name) continue
        parent[Math.max(name, other)] = Math.min(name, other)
        name = Math.min(name, other)
      }
      names[i] = name
    }
  }
  // A root is the least of its names, so that it has its number before the others ask for it.
  const number = new Uint32Array(parent.length)
  let count = 0
  for (let a = 0; a < parent.length; a++) number[a] = parent[a] === a ? count++ : number[root(a)]!
  return measured(s, number, count)
}

function measured(s: Intervals, number: Uint32Array, count: number): Labels {
  const { rowStart, from, to, label: names, light, height, width } = s
  const out: Labels = {
    count,
    pixels: new Float64Array(count),
    light: new Float64Array(count),
    sumX: new Float64Array(count),
    sumY: new Float64Array(count),
    edge: new Uint8Array(count),
    longest: new Uint32Array(count),
  }
  const most = new Uint32Array(count)
  for (let row = 0; row < height; row++) {
    const border = row === 0 || row === height - 1
    for (let i = rowStart[row]!; i < rowStart[row + 1]!; i++) {
      const c = number[names[i]!]!,
        begin = from[i]!,
        end = to[i]!,
        length = end - begin
      names[i] = c
      out.pixels[c]! += length
      out.light[c]! += light[i]!
      if (length > most[c]!) {
        most[c] = length
        out.longest[c] = i
      }
      out.sumX[c]! += (length * (begin + end)) / 2
      out.sumY[c]! += length * row
      if (border || begin === 0 || end === width) out.edge[c] = 1
    }
  }
  return out
}

/** Calls back for every pair of intervals of two layers that overlap within `slack`: pixels along the rows, and rows. */
export function touch(
  a: Intervals,
  b: Intervals,
  slack: readonly [number, number],
  found: (i: number, j: number) => void,
): void {
  const [near, rows] = slack
  for (let row = 0; row < a.height; row++) {
    const first = a.rowStart[row]!,
      last = a.rowStart[row + 1]!
    if (first === last) continue
    for (let other = Math.max(0, row - rows); other <= Math.min(a.height - 1, row + rows); other++) {
      let j = b.rowStart[other]!
      const end = b.rowStart[other + 1]!
      for (let i = first; i < last; i++) {
        while (j < end && b.to[j]! + near <= a.from[i]!) j++
        for (let k = j; k < end && b.from[k]! < a.to[i]! + near; k++) found(i, k)
      }
    }
  }
}

/** Which of the `count` labelled regions of `a` lie over something of `b`, within `slack`; each is looked at until it does. */
export function resting(a: Intervals, b: Intervals, slack: readonly [number, number], count: number): Uint8Array {
  const [near, rows] = slack
  const held = new Uint8Array(count)
  let left = count
  for (let row = 0; row < a.height && left > 0; row++)
    for (let i = a.rowStart[row]!; i < a.rowStart[row + 1]!; i++) {
      const c = a.label[i]!
      if (held[c] === 1) continue
      const begin = a.from[i]!,
        end = a.to[i]! + near
      search: for (let other = Math.max(0, row - rows); other <= Math.min(a.height - 1, row + rows); other++)
        for (let k = b.rowStart[other]!; k < b.rowStart[other + 1]! && b.from[k]! < end; k++)
          if (b.to[k]! + near > begin) {
            held[c] = 1
            left--
            break search
          }
    }
  return held
}
