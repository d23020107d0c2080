/**
 * One layer as runs of equal pixels. Row y has the runs from rowStart[y] up to rowStart[y + 1]; pixels that no
 * run covers are 0. Runs of a row are disjoint, rise in x and never have value 0.
 */
export interface Runs {
  width: number
  height: number
  rowStart: Uint32Array
  x: Uint16Array | Uint32Array
  length: Uint16Array | Uint32Array
  value: Uint8Array
  /** Σ value / 255: covered area in pixels */
  covered: number
  /** rows whose outline did not close; they are left blank instead of streaking across the layer */
  brokenRows: number
}

/**
 * Exact-area coverage of directed outlines, nonzero rule: each segment adds its signed trapezoid to the pixels
 * it crosses, so that a running sum along the row is the covered share of each pixel (the accumulation of
 * scan-line font renderers). Overlapping shells sum to more than one and are clamped, which is exact inside and,
 * in pixels that two outlines cross, at most the overlap too much.
 *
 * Work and memory follow the outline's length in pixels, never the bitmap.
 */
export class Rasteriser {
  private cellRow = new Uint32Array(1 << 14)
  private cellX = new Int32Array(1 << 14)
  private cellCover = new Float64Array(1 << 14)
  private cellArea = new Float64Array(1 << 14)
  private cells = 0
  private order = new Uint32Array(1 << 14)
  private readonly rowFill: Uint32Array

  /**
   * @param originX left edge of pixel column 0 in mm, likewise originY
   */
  constructor(
    readonly width: number,
    readonly height: number,
    private readonly pitchX: number,
    private readonly pitchY: number,
    private readonly originX: number,
    private readonly originY: number,
  ) {
    this.rowFill = new Uint32Array(height + 2)
  }

  /** @param segments 4 per segment, mm, as `Sections` gives them */
  draw(segments: Float64Array, count: number): Runs {
    this.cells = 0
    const kx = 1 / this.pitchX,
      ky = 1 / this.pitchY
    for (let i = 0; i < count * 4; i += 4) {
      this.edge(
        (segments[i]! - this.originX) * kx,
        (segments[i + 1]! - this.originY) * ky,
        (segments[i + 2]! - this.originX) * kx,
        (segments[i + 3]! - this.originY) * ky,
      )
    }
    return this.sweep()
  }

  private edge(x0: number, y0: number, x1: number, y1: number): void {
    if (y0 === y1) return
    // Solid on the left of a rising edge means that rising edges end coverage; the sign makes left count +1.
    const sign = y1 > y0 ? -1 : 1
    if (y1 < y0) {
      let s = y0
      y0 = y1
      y1 = s
      s = x0
      x0 = x1
      x1 = s
    }
    if (y1 <= 0 || y0 >= this.height) return
    const slope = (x1 - x0) / (y1 - y0)
    if (y0 < 0) {
      x0 -= slope * y0
      y0 = 0
    }
    if (y1 > this.height) {
      x1 -= slope * (y1 - this.height)
      y1 = this.height
    }
    const last = Math.min(this.height - 1, Math.ceil(y1) - 1)
    let x = x0
    for (let row = Math.floor(y0); row <= last; row++) {
      const top = row < y0 ? y0 : row,
        bottom = row + 1 > y1 ? y1 : row + 1
      const xe = bottom === y1 ? x1 : x0 + slope * (bottom - y0)
      this.rowSpan(row, x, xe, (bottom - top) * sign)
      x = xe
    }
  }

  /** Spreads one row's share of an edge, from xa to xb, over the pixels it passes. */
  private rowSpan(row: number, xa: number, xb: number, dy: number): void {
    if (dy === 0) return
    const w = this.width
    let l = xa < xb ? xa : xb,
      r = xa < xb ? xb : xa
    if (l < 0) l = 0
    else if (l > w) l = w
    if (r < 0) r = 0
    else if (r > w) r = w
    const first = Math.min(w - 1, Math.floor(l)),
      last = Math.min(w - 1, Math.ceil(r) - 1)
    if (last <= first) {
      this.put(row, first, dy, dy * (1 - ((l + r) / 2 - first)))
      return
    }
    const per = dy / (r - l)
    for (let c = first; c <= last; c++) {
      const a = c < l ? l : c,
        b = c + 1 > r ? r : c + 1
      const d = per * (b - a)
      this.put(row, c, d, d * (1 - ((a + b) / 2 - c)))
    }
  }

  private put(row: number, x: number, cover: number, area: number): void {
    if (this.cells === this.cellX.length) this.grow()
    const i = this.cells++
    this.cellRow[i] = row
    this.cellX[i] = x
    this.cellCover[i] = cover
    this.cellArea[i] = area
  }

  private grow(): void {
    const n = this.cellX.length * 2
    const wider = <T extends Uint32Array | Int32Array | Float64Array>(a: T, b: T): T => {
      b.set(a)
      return b
    }
    this.cellRow = wider(this.cellRow, new Uint32Array(n))
    this.cellX = wider(this.cellX, new Int32Array(n))
    this.cellCover = wider(this.cellCover, new Float64Array(n))
    this.cellArea = wider(this.cellArea, new Float64Array(n))
    this.order = new Uint32Array(n)
  }

  private sweep(): Runs {
    const { width, height, cells, rowFill, order, cellRow, cellX, cellCover, cellArea } = this
    rowFill.fill(0)
    for (let i = 0; i < cells; i++) rowFill[cellRow[i]! + 2]!++
    for (let r = 2; r < height + 2; r++) rowFill[r]! += rowFill[r - 1]!
    for (let i = 0; i < cells; i++) order[rowFill[cellRow[i]! + 1]!++] = i

    const rowStart = new Uint32Array(height + 1)
    const capacity = cells * 2 + 1
    const wide = width > 65535
    const xs = wide ? new Uint32Array(capacity) : new Uint16Array(capacity)
    const lengths = wide ? new Uint32Array(capacity) : new Uint16Array(capacity)
    const values = new Uint8Array(capacity)
    let n = 0,
      brokenRows = 0,
      sum = 0
    for (let row = 0; row < height; row++) {
      rowStart[row] = n
      const from = rowFill[row]!,
        to = rowFill[row + 1]!
      if (from === to) continue
      sortByX(order, from, to, cellX)
      const begin = n
      let acc = 0,
        rowSum = 0
      for (let i = from; i < to;) {
        const x = cellX[order[i]!]!
        let cover = 0,
          area = 0
        for (; i < to && cellX[order[i]!] === x; i++) {
          cover += cellCover[order[i]!]!
          area += cellArea[order[i]!]!
        }
        const v = level(acc + area)
        acc += cover
        if (v > 0) {
          n = push(xs, lengths, values, begin, n, x, 1, v)
          rowSum += v
        }
        const until = i < to ? cellX[order[i]!]! : width
        const w = level(acc)
        // After the last cell a closed outline has nothing left to cover.
        if (w > 0 && until > x + 1 && i < to) {
          n = push(xs, lengths, values, begin, n, x + 1, until - x - 1, w)
          rowSum += w * (until - x - 1)
        }
      }
      if (Math.abs(acc) > 0.01) {
        n = begin
        brokenRows++
      } else sum += rowSum
    }
    rowStart[height] = n
    return {
      width,
      height,
      rowStart,
      x: xs.slice(0, n),
      length: lengths.slice(0, n),
      value: values.slice(0, n),
      covered: sum / 255,
      brokenRows,
    }
  }
}

function level(coverage: number): number {
  const c = coverage < 0 ? -coverage : coverage
  return c >= 1 ? 255 : (c * 255 + 0.5) | 0
}

function push(
  xs: Uint16Array | Uint32Array,
  lengths: Uint16Array | Uint32Array,
  values: Uint8Array,
  begin: number,
  n: number,
  x: number,
  length: number,
  value: number,
): number {
  if (n > begin && values[n - 1] === value && xs[n - 1]! + lengths[n - 1]! === x) {
    lengths[n - 1]! += length
    return n
  }
  xs[n] = x
  lengths[n] = length
  values[n] = value
  return n + 1
}

/** Rows hold few cells as a rule: insertion sort; long rows (an edge along the row) take the built-in one. */
function sortByX(order: Uint32Array, from: number, to: number, x: Int32Array): void {
  if (to - from > 64) {
    order.subarray(from, to).sort((a, b) => x[a]! - x[b]!)
    return
  }
  for (let i = from + 1; i < to; i++) {
    const v = order[i]!,
      key = x[v]!
    let j = i - 1
    while (j >= from && x[order[j]!]! > key) {
      order[j + 1] = order[j]!
      j--
    }
    order[j + 1] = v
  }
}
