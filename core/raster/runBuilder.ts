import type { Runs } from './raster'

/** Gathers runs row by row, from the left; equal neighbours become one, what is dark is left out. */
export class RunBuilder {
  private x: number[] = []
  private length: number[] = []
  private value: number[] = []
  private readonly rowStart: Uint32Array
  private row = 0
  private sum = 0

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.rowStart = new Uint32Array(height + 1)
  }

  /** `n` pixels of a value from pixel `at` on, not to the left of what the row has. */
  add(at: number, n: number, value: number): void {
    if (value <= 0 || n <= 0) return
    const last = this.x.length - 1
    if (last >= this.rowStart[this.row]! && this.value[last] === value && this.x[last]! + this.length[last]! === at)
      this.length[last]! += n
    else {
      this.x.push(at)
      this.length.push(n)
      this.value.push(value)
    }
    this.sum += value * n
  }

  /** One pixel that may have some light already, when it is the row's last. */
  lighten(at: number, value: number): void {
    const last = this.x.length - 1
    const shared =
      last >= this.rowStart[this.row]! && this.x[last]! + this.length[last]! === at + 1 ? this.value[last]! : 0
    if (shared === 0) {
      this.add(at, 1, value)
      return
    }
    if (--this.length[last]! === 0) {
      this.x.pop()
      this.length.pop()
      this.value.pop()
    }
    this.sum -= shared
    this.add(at, 1, Math.min(255, shared + value))
  }

  endRow(): void {
    this.rowStart[++this.row] = this.x.length
  }

  /** Runs of the row that was ended last. */
  lastRow(visit: (x: number, length: number, value: number) => void): void {
    for (let i = this.rowStart[this.row - 1] ?? 0; i < this.rowStart[this.row]!; i++)
      visit(this.x[i]!, this.length[i]!, this.value[i]!)
  }

  done(): Runs {
    return {
      width: this.width,
      height: this.height,
      rowStart: this.rowStart,
      x: new Uint32Array(this.x),
      length: Uint32Array.from(this.length),
      value: new Uint8Array(this.value),
      covered: this.sum / 255,
      brokenRows: 0,
    }
  }
}
