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
      const wide = this.width - f.cells.width + 1,
        deep = this.depth - f.cells.height + 1
      if (wide <= 0 || deep <= 0) continue
      // What cannot come lower than the best so far need not be looked at.
      const rows = best ? Math.min(deep, best.y + best.footprint.cells.height - f.cells.height + 1) : deep
      if (rows <= 0) continue
      const at = firstFree(noFit(this.taken, this.dilated, f.runs, rows), wide, rows)
      if (!at) continue
      const [x, y] = at
      if (
        !best ||
        y + f.cells.height < best.y + best.footprint.cells.height ||
        (y + f.cells.height === best.y + best.footprint.cells.height &&
          x + f.cells.width < best.x + best.footprint.cells.width)
      )
        best = { footprint: f, x, y }
    }
    return best
  }

  /** Whether a footprint may stand just there. */
  free(spot: Spot): boolean {
    let free = true
    this.cells(spot, (x, y, inside) => {
      if (!inside || this.taken.has(x, y)) free = false
    })
    return free
  }

  /** What of it lies beyond the plate is not marked: a hand may put a part nearer to the edge than the margin. */
  place(spot: Spot): void {
    this.cells(spot, (x, y, inside) => {
      if (inside) this.taken.set(x, y)
    })
    this.dilated = new Dilations(this.taken)
    this.spots.push(spot)
  }

  private cells({ footprint: { runs }, x, y }: Spot, visit: (x: number, y: number, inside: boolean) => void): void {
    for (let i = 0; i < runs.length; i += 3) {
      const row = y + runs[i]!
      for (let k = 0; k < runs[i + 2]!; k++) {
        const col = x + runs[i + 1]! + k
        visit(col, row, col >= 0 && row >= 0 && col < this.width && row < this.depth)
      }
    }
  }
}
