/**
 * A picture of bits, one row after the other, each row in words of 32; bit x of a row is bit x & 31 of its word x >> 5.
 * What is beyond the width is 0.
 */
export class BitGrid {
  readonly words: number
  readonly bits: Uint32Array

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.words = (width + 31) >> 5
    this.bits = new Uint32Array(this.words * height)
  }

  set(x: number, y: number): void {
    this.bits[y * this.words + (x >> 5)]! |= 1 << (x & 31)
  }
  has(x: number, y: number): boolean {
    return ((this.bits[y * this.words + (x >> 5)]! >>> (x & 31)) & 1) === 1
  }
  count(): number {
    let n = 0
    for (let w of this.bits) for (; w !== 0; w &= w - 1) n++
    return n
  }
  /** Runs of set bits of each row: row, first bit, number of bits. */
  runs(): Int32Array {
    const out: number[] = []
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        if (!this.has(x, y)) continue
        const from = x
        while (x < this.width && this.has(x, y)) x++
        out.push(y, from, x - from)
      }
    return new Int32Array(out)
  }
}

/** `into` |= `from` moved by so many bits toward bit 0, row by row of one word array. */
export function orShifted(
  into: Uint32Array,
  intoAt: number,
  from: Uint32Array,
  fromAt: number,
  words: number,
  by: number,
): void {
  const skip = by >> 5,
    bits = by & 31
  if (bits === 0) {
    for (let w = 0; w + skip < words; w++) into[intoAt + w]! |= from[fromAt + w + skip]!
    return
  }
  for (let w = 0; w + skip < words; w++) {
    const high = w + skip + 1 < words ? from[fromAt + w + skip + 1]! << (32 - bits) : 0
    into[intoAt + w]! |= (from[fromAt + w + skip]! >>> bits) | high
  }
}

/** Rows of a picture that is being filled, as their bits look when runs of several lengths are slid over them. */
export class Dilations {
  private readonly known: Uint32Array[]

  constructor(private readonly of: BitGrid) {
    this.known = [new Uint32Array(0), of.bits]
  }

  /** Bit x says whether any of the bits x … x + length − 1 is set; the longest that was asked for is gone on from. */
  at(length: number): Uint32Array {
    const { words, height, bits } = this.of
    for (let have = this.known.length; have <= length; have++) {
      const next = this.known[have - 1]!.slice()
      for (let y = 0; y < height; y++) orShifted(next, y * words, bits, y * words, words, have - 1)
      this.known.push(next)
    }
    return this.known[length]!
  }
}

/**
 * Where the lower left corner of a shape must not come on a plate: it would meet what stands there. The no-fit positions of
 * two pictures are one dilated by the other, run by run.
 *
 * @param runs of the shape, as `BitGrid.runs` gives them
 * @param rows how many rows of positions are wanted, from the lowest
 * @returns a picture of the size of the plate; only positions from which the shape stays inside it mean anything
 */
export function noFit(plate: BitGrid, dilated: Dilations, runs: Int32Array, rows: number): BitGrid {
  const out = new BitGrid(plate.width, plate.height)
  const { words, height } = plate
  for (let i = 0; i < runs.length; i += 3) {
    const row = runs[i]!,
      first = runs[i + 1]!
    const wide = dilated.at(runs[i + 2]!)
    const last = Math.min(rows, height - row)
    for (let y = 0; y < last; y++) orShifted(out.bits, y * words, wide, (y + row) * words, words, first)
  }
  return out
}

/** Lowest row, and in it the lowest bit, that is 0 within a width and a height; null where none is. */
export function firstFree(grid: BitGrid, width: number, height: number): [x: number, y: number] | null {
  for (let y = 0; y < height; y++)
    for (let w = 0; w * 32 < width; w++) {
      const free = ~grid.bits[y * grid.words + w]! >>> 0
      if (free === 0) continue
      const x = w * 32 + (31 - Math.clz32(free & -free))
      // The lowest free bit of a word lies beyond the width only where all others do.
      if (x < width) return [x, y]
    }
  return null
}
