import { Plate, type Spot } from './plate'
import { footprint, footprints, type Footprint } from './silhouette'
import type { Lock, NestedPlate, NestItem, Nesting, NestPrinter, NestWish } from './types'

interface Unit {
  item: NestItem
  copy: number
}
interface Filled {
  printer: NestPrinter
  /** of a plate on which a hand has put something */
  number?: number
  plate: Plate
  units: Unit[]
  height: number
  resin: string
}

/** Cells along a plate's longer side. */
const CELLS = 200
/** How much a fuller plate excuses that it is done later. */
const SLOW = 0.25

/** Fills plates with parts in one order or another; `nest` looks for the order. */
export class Nester {
  readonly units: Unit[]
  private readonly pitch: number

  constructor(
    items: readonly NestItem[],
    private readonly printers: readonly NestPrinter[],
    private readonly wish: NestWish,
  ) {
    this.units = items.flatMap((item) => Array.from({ length: item.copies }, (_, copy) => ({ item, copy })))
    // One pitch for all plates, so that a footprint is drawn once.
    this.pitch = Math.max(...printers.map((p) => Math.max(p.width, p.depth))) / CELLS
  }

  private footprints({ silhouette, turn }: NestItem): Footprint[] {
    return footprints(silhouette, turn ? this.wish.turns : 1, this.wish.margin, this.pitch)
  }

  /** A plate with nothing on it. Its grid is smaller by what the margin takes at the edges: half of it is in the footprints. */
  private empty(printer: NestPrinter): Filled {
    const inner = (mm: number): number => Math.max(0, Math.floor((mm - this.wish.margin) / this.pitch))
    return { printer, plate: new Plate(inner(printer.width), inner(printer.depth)), units: [], height: 0, resin: '' }
  }

  /** Why no printer takes a unit, though its plate be empty. */
  private whyNot({ item }: Unit): 'tall' | 'wide' {
    return this.printers.every((p) => item.silhouette.height > p.height) ? 'tall' : 'wide'
  }

  /**
   * Plates filled by taking the units in that order.
   *
   * @param choice per plate as they are begun: number of the printer that it is on, −1 for the one that suits it best
   */
  fill(order: readonly number[], choice: readonly number[]): Nesting {
    const { done, left, waiting } = this.locked()
    let open = order.filter((i) => waiting.has(i)).map((i) => this.units[i]!)
    for (const plate of done) open = this.top(plate, open)
    for (let k = done.length; open.length > 0; k++) {
      const wanted = this.printers[choice[k] ?? -1]
      // A printer that takes none of them gives way to the others; where all do, nobody takes them.
      const begun = (wanted && this.begin([wanted], open, done)) ?? this.begin(this.printers, open, done)
      if (!begun) break
      done.push(begun.plate)
      open = begun.rest
    }
    for (const u of open) left.push({ id: u.item.id, why: this.whyNot(u) })
    return this.result(done, left)
  }

  /** A new plate on the printer where it costs least for what it carries, by machine time or by when it would be done. */
  private begin(
    printers: readonly NestPrinter[],
    open: readonly Unit[],
    done: readonly Filled[],
  ): { plate: Filled; rest: Unit[] } | null {
    let best: { plate: Filled; rest: Unit[]; price: number } | null = null
    for (const printer of printers) {
      const plate = this.empty(printer)
      const rest = this.top(plate, open)
      if (plate.units.length === 0) continue
      const covered = plate.plate.spots.reduce((s, p) => s + p.footprint.area, 0)
      const load = done.reduce((s, d) => s + (d.printer === printer ? printer.seconds(d.height) : 0), 0)
      const price =
        this.wish.aim === 'hours'
          ? printer.seconds(plate.height) / covered
          : (load + printer.seconds(plate.height)) / covered ** SLOW
      if (!best || price < best.price) best = { plate, rest, price }
    }
    return best
  }

  /** As they come, on the plate in hand; when it is full, the next one, on the printers in turn. */
  oneByOne(): Nesting {
    const done: Filled[] = [],
      left: Nesting['left'] = []
    let next = 0
    for (const u of this.units) {
      const now = done.at(-1)
      if (now && this.top(now, [u]).length === 0) continue
      let placed = false
      for (let tries = 0; tries < this.printers.length && !placed; tries++) {
        const printer = this.printers[next++ % this.printers.length]!
        const plate = this.empty(printer)
        if (this.top(plate, [u]).length > 0) continue
        done.push(plate)
        placed = true
      }
      if (!placed) left.push({ id: u.item.id, why: this.whyNot(u) })
    }
    return this.result(done, left)
  }

  /** Puts on a plate what finds room there, in order; returns what did not. */
  private top(f: Filled, open: readonly Unit[]): Unit[] {
    const rest: Unit[] = []
    for (const u of open) {
      const { height } = u.item.silhouette
      if (height > f.printer.height || (f.units.length > 0 && u.item.resin !== f.resin)) {
        rest.push(u)
        continue
      }
      const spot = f.plate.find(this.footprints(u.item))
      if (!spot) {
        rest.push(u)
        continue
      }
      this.put(f, u, spot)
    }
    return rest
  }
  private put(f: Filled, u: Unit, spot: Spot): void {
    f.plate.place(spot)
    f.units.push(u)
    f.resin = u.item.resin
    f.height = Math.max(f.height, u.item.silhouette.height)
  }

  /** Plates with what a hand has put there; the other units wait. */
  private locked(): { done: Filled[]; left: Nesting['left']; waiting: Set<number> } {
    const waiting = new Set(this.units.keys())
    const done: Filled[] = [],
      left: Nesting['left'] = []
    const plates = new Map<string, Filled>()
    const locks = this.units
      .map((u, i) => ({ u, i, lock: lockOf(u) }))
      .sort((a, b) => (a.lock?.plate ?? 0) - (b.lock?.plate ?? 0))
    for (const { u, i, lock } of locks) {
      const printer = lock && this.printers.find((p) => p.id === lock.printer)
      if (!lock || !printer) continue
      waiting.delete(i)
      const key = `${lock.printer} ${lock.plate}`
      const plate: Filled = plates.get(key) ?? { ...this.empty(printer), number: lock.plate, resin: u.item.resin }
      const spot = (margin: number): Spot => {
        const f = footprint(u.item.silhouette, lock.angle, margin, this.pitch)
        return {
          footprint: f,
          x: Math.round((lock.x - f.offset[0]) / this.pitch + plate.plate.width / 2),
          y: Math.round((lock.y - f.offset[1]) / this.pitch + plate.plate.depth / 2),
        }
      }
      // A hand puts parts to the hair: what is only too near by the cells' rounding is not refused.
      const bare = spot(Math.max(-this.wish.margin, this.wish.margin - 3 * this.pitch))
      if (u.item.silhouette.height > printer.height) left.push({ id: u.item.id, why: 'tall' })
      else if (plate.resin !== u.item.resin || !plate.plate.free(bare)) left.push({ id: u.item.id, why: 'taken' })
      else {
        this.put(plate, u, spot(this.wish.margin))
        if (!plates.has(key)) {
          plates.set(key, plate)
          done.push(plate)
        }
      }
    }
    return { done, left, waiting }
  }

  private result(done: readonly Filled[], left: Nesting['left']): Nesting {
    const numbers = numbered(done)
    const rank = (f: Filled): number => this.printers.indexOf(f.printer) * 1e6 + numbers.get(f)!
    const plates = [...done]
      .sort((a, b) => rank(a) - rank(b))
      .map((f): NestedPlate => {
        const at = this.positions(f)
        return {
          printer: f.printer.id,
          number: numbers.get(f)!,
          resin: f.resin,
          parts: f.units.map((u, i) => ({ id: u.item.id, copy: u.copy, ...at[i]! })),
          height: f.height,
          seconds: f.printer.seconds(f.height),
          filled: f.plate.spots.reduce((s, p) => s + p.footprint.area, 0) / Math.max(1, f.plate.width * f.plate.depth),
        }
      })
    const of = (p: NestPrinter): NestedPlate[] => plates.filter((q) => q.printer === p.id)
    return {
      plates,
      left: this.asCame(left),
      seconds: plates.reduce((s, p) => s + p.seconds, 0),
      finish: Math.max(0, ...this.printers.map((p) => of(p).reduce((s, q) => s + q.seconds, 0))),
      vatChanges: this.printers.reduce((s, p) => s + Math.max(0, new Set(of(p).map((q) => q.resin)).size - 1), 0),
    }
  }

  private asCame(left: Nesting['left']): Nesting['left'] {
    const rank = (id: string): number => this.units.findIndex((u) => u.item.id === id)
    return [...left].sort((a, b) => rank(a.id) - rank(b.id))
  }
  /** Where each part of a plate stands. Bottom-left fills from a corner; what no hand has put is moved to the middle. */
  private positions({ plate, units }: Filled): { x: number; y: number; angle: number }[] {
    const { spots, width, depth } = plate
    const locks = units.map(lockOf)
    const free = !locks.some(Boolean)
    const spare = (size: number, from: (s: Spot) => number, to: (s: Spot) => number): number =>
      free ? Math.round((size - Math.max(...spots.map(to)) - Math.min(...spots.map(from))) / 2) : 0
    const dx = spare(
        width,
        (s) => s.x,
        (s) => s.x + s.footprint.cells.width,
      ),
      dy = spare(
        depth,
        (s) => s.y,
        (s) => s.y + s.footprint.cells.height,
      )
    return spots.map((s, i) => {
      const lock = locks[i]
      // What a hand has put somewhere stays there to the hair, not to the cell.
      if (lock) return { x: lock.x, y: lock.y, angle: lock.angle }
      return {
        x: (s.x + dx - width / 2) * this.pitch + s.footprint.offset[0],
        y: (s.y + dy - depth / 2) * this.pitch + s.footprint.offset[1],
        angle: s.footprint.angle,
      }
    })
  }

  /** Below 0 when a is better than b. */
  better(a: Nesting, b: Nesting): number {
    const main = (n: Nesting): number[] => [
      n.left.length,
      ...(this.wish.aim === 'hours' ? [n.seconds, n.finish] : [n.finish, n.seconds]),
      n.plates.length,
      n.vatChanges,
    ]
    const [x, y] = [main(a), main(b)]
    for (let k = 0; k < x.length; k++) if (Math.abs(x[k]! - y[k]!) > 1e-9) return x[k]! - y[k]!
    return 0
  }
}

const lockOf = ({ item, copy }: Unit): Lock | undefined => item.locks?.find((l) => l.copy === copy)

/** A plate with something put there by hand keeps its number, or the next hand would put its part on another; the rest fill up. */
function numbered(done: readonly Filled[]): Map<Filled, number> {
  const numbers = new Map<Filled, number>()
  const taken = (f: Filled, n: number): boolean =>
    done.some((d) => d.printer === f.printer && (numbers.get(d) ?? d.number) === n)
  for (const f of done) {
    let n = f.number ?? 0
    if (f.number === undefined) while (taken(f, n)) n++
    numbers.set(f, n)
  }
  return numbers
}
