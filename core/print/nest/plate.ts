import { BitGrid, Dilations, firstFree, noFit } from './bitGrid'
import type { Footprint } from './silhouette'

/** Where a footprint stands on a plate, in cells of its grid from the lower left corner. */
export interface Spot {
  footprint: Footprint
  x: number
  y: number
}

/** One plate being filled: what is taken, and the lowest free place for a shape (bottom-left over its no-fit positions). */
export class Plate {
  private readonly taken: BitGrid
  private dilated: Dilations
  readonly spots: Spot[] = []

  /** @param width cells, likewise depth */
  constructor(
    readonly width: number,
    readonly depth: number,
  ) {
    this.taken = new BitGrid(width, depth)
    this.dilated = new Dilations(this.taken)
  }

  /**
   * The best of a shape's turned footprints: the one whose upper edge then lies lowest, and of these the one farthest to the
   * left. Null when none finds room.
   */
  find(turned: readonly Footprint[]): Spot | null {
    let best: Spot | null = null
    for (const f of turned) {
      const wide = this.width - f.width + 1,
        deep = this.depth - f.height + 1
      if (wide <= 0 || deep <= 0) continue
      // What cannot come lower than the best so far need not be looked at.
      const rows = best ? Math.min(deep, best.y + best.footprint.height - f.height + 1) : deep
      if (rows <= 0) continue
      const at = firstFree(noFit(this.taken, this.dilated, f.runs, rows), wide, rows)
      if (!at) continue
      const [x, y] = at
      if (
        !best ||
        y + f.height < best.y + best.footprint.height ||
        (y + f.height === best.y + best.footprint.height && x + f.width < best.x + best.footprint.width)
      )
        best = { footprint: f, x, y }
    }
    return best
  }

  /** Whether a footprint may stand just there. */
  free({ footprint: f, x, y }: Spot): boolean {
    if (x < 0 || y < 0 || x + f.width > this.width || y + f.height > this.depth) return false
    for (let i = 0; i < f.runs.length; i += 3)
      for (let k = 0; k < f.runs[i + 2]!; k++) if (this.taken.has(x + f.runs[i + 1]! + k, y + f.runs[i]!)) return false
    return true
  }

  place(spot: Spot): void {
    const { footprint: f, x, y } = spot
    for (let i = 0; i < f.runs.length; i += 3)
      for (let k = 0; k < f.runs[i + 2]!; k++) this.taken.set(x + f.runs[i + 1]! + k, y + f.runs[i]!)
    this.dilated = new Dilations(this.taken)
    this.spots.push(spot)
  }
}
