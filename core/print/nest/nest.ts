import { silent, type Report } from '../../answer'
import { evenNumbers } from '../../random'
import { Plate, type Spot } from './plate'
import { footprint, type Footprint, type Silhouette } from './silhouette'

export interface NestItem {
  id: string
  silhouette: Silhouette
  /** how many of it; spares count */
  copies: number
  /** whether it may be turned about z */
  turn: boolean
  /** what is in the vat for it; one plate has one resin */
  resin: string
  /** copies kept where a hand put them */
  locks?: readonly Lock[]
}
export interface Lock {
  copy: number
  printer: string
  /** number of the plate on its printer, from 0 */
  plate: number
  /** mm of its origin from the plate's middle, radians */
  x: number
  y: number
  angle: number
}
export interface NestPrinter {
  id: string
  /** mm */
  width: number
  depth: number
  height: number
  /** s of a plate whose tallest part has that height, mm */
  seconds: (height: number) => number
}
export interface NestWish {
  /** mm between two parts, and to the plate's edge */
  margin: number
  /** directions that a part is tried in, evenly round */
  turns: number
  /** rounds of improvement */
  rounds: number
  /** least machine time in all, or everything done soonest with the printers side by side */
  aim: 'hours' | 'soonest'
}
export const nestDefaults: NestWish = { margin: 2, turns: 12, rounds: 40, aim: 'hours' }

export interface Placed {
  id: string
  /** which of its copies, from 0 */
  copy: number
  /** mm of its origin from the plate's middle, and radians it is turned counter-clockwise */
  x: number
  y: number
  angle: number
}
export interface NestedPlate {
  printer: string
  /** number of the plate on its printer, from 0 */
  number: number
  resin: string
  parts: Placed[]
  /** mm, of its tallest part */
  height: number
  seconds: number
  /** share of the plate that is covered */
  filled: number
}
export interface Nesting {
  plates: NestedPlate[]
  /** parts that no printer takes, and why */
  left: { id: string; why: 'tall' | 'wide' | 'taken' }[]
  /** s of machine time in all, and until the last printer is done */
  seconds: number
  finish: number
  /** times a vat is emptied for another resin */
  vatChanges: number
}

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

/**
 * Nests parts over several plates and printers. Parts are taken in an order that begins as tallest first, because a plate
 * costs its tallest part; each plate takes what finds room on it, by bottom-left on rasterised no-fit positions over all
 * turns. The order, and which printer the plates go to, are then improved by local search; what is better by the aim, then by
 * number of plates, then by changes of resin, is kept. The same input gives the same plates.
 *
 * Nothing overlaps and nothing stands over the edge: silhouettes cover whole cells, grown by half the margin.
 */
export function nest(
  items: readonly NestItem[],
  printers: readonly NestPrinter[],
  wish: NestWish = nestDefaults,
  report: Report = silent,
): Nesting {
  const nester = new Nester(items, printers, wish)
  const start = nester.units
    .map((_, i) => i)
    .sort((a, b) => nester.units[b]!.item.silhouette.height - nester.units[a]!.item.silhouette.height || a - b)
  let order = start,
    choice: number[] = []
  let best = nester.fill(order, choice)
  const random = evenNumbers(7)
  for (let round = 0; round < wish.rounds; round++) {
    report(round / wish.rounds)
    const nextOrder = [...order],
      nextChoice = [...choice]
    const r = random()
    if (r < 0.35 && printers.length > 1) {
      const k = Math.floor(random() * best.plates.length)
      while (nextChoice.length <= k) nextChoice.push(-1)
      nextChoice[k] = Math.floor(random() * (printers.length + 1)) - 1
    } else if (nextOrder.length > 1) {
      const from = Math.floor(random() * nextOrder.length)
      const [moved] = nextOrder.splice(from, 1)
      // Mostly among those of much the same height; now and then anywhere.
      const span = r < 0.85 ? 1 + Math.floor(nextOrder.length / 5) : nextOrder.length
      const to = Math.round(from + (2 * random() - 1) * span)
      nextOrder.splice(Math.min(nextOrder.length, Math.max(0, to)), 0, moved!)
    }
    const tried = nester.fill(nextOrder, nextChoice)
    if (nester.better(tried, best) <= 0) {
      best = tried
      order = nextOrder
      choice = nextChoice
    }
  }
  report(1)
  return best
}

/** Parts set down one after the other as they come, unturned, on one plate after the other: what nesting is measured by. */
export function inFileOrder(
  items: readonly NestItem[],
  printers: readonly NestPrinter[],
  wish: NestWish = nestDefaults,
): Nesting {
  const nester = new Nester(
    items.map((i) => ({ ...i, turn: false })),
    printers,
    wish,
  )
  return nester.oneByOne()
}

class Nester {
  readonly units: Unit[]
  private readonly pitch: number
  private readonly turned = new Map<NestItem, Footprint[]>()

  constructor(
    items: readonly NestItem[],
    private readonly printers: readonly NestPrinter[],
    private readonly wish: NestWish,
  ) {
    this.units = items.flatMap((item) => Array.from({ length: item.copies }, (_, copy) => ({ item, copy })))
    // One pitch for all plates, so that a footprint is drawn once.
    this.pitch = Math.max(...printers.map((p) => Math.max(p.width, p.depth))) / CELLS
  }

  private footprints(item: NestItem): Footprint[] {
    let list = this.turned.get(item)
    if (!list) {
      const turns = item.turn ? this.wish.turns : 1
      list = Array.from({ length: turns }, (_, k) =>
        footprint(item.silhouette, (2 * Math.PI * k) / turns, this.wish.margin, this.pitch),
      )
      this.turned.set(item, list)
    }
    return list
  }

  /** Cells of a plate, less what the margin takes at its edges: half of it is in the footprints already. */
  private empty(printer: NestPrinter): Plate {
    const inner = (mm: number): number => Math.max(0, Math.floor((mm - this.wish.margin) / this.pitch))
    return new Plate(inner(printer.width), inner(printer.depth))
  }

  /** What stands in the way of a unit on an empty plate of that printer. */
  private refused(u: Unit, printer: NestPrinter): 'tall' | 'wide' | null {
    if (u.item.silhouette.height > printer.height) return 'tall'
    const { width, depth } = this.empty(printer)
    return this.footprints(u.item).some((f) => f.width <= width && f.height <= depth) ? null : 'wide'
  }

  fill(order: readonly number[], choice: readonly number[]): Nesting {
    const { done, left, waiting } = this.locked()
    let open = order.filter((i) => waiting.has(i)).map((i) => this.units[i]!)
    for (const plate of done) open = this.top(plate, open)
    for (let k = done.length; open.length > 0; k++) {
      const load = (p: NestPrinter): number =>
        done.filter((d) => d.printer === p).reduce((s, d) => s + p.seconds(d.height), 0)
      const tries = this.printers
        .filter((_, i) => (choice[k] ?? -1) === -1 || choice[k] === i)
        .map((printer) => {
          const plate: Filled = { printer, plate: this.empty(printer), units: [], height: 0, resin: '' }
          const rest = this.top(plate, open)
          const covered = plate.plate.spots.reduce((s, p) => s + p.footprint.area, 0)
          // Machine time for what it carries; or the moment at which it would be done.
          const price =
            this.wish.aim === 'hours'
              ? printer.seconds(plate.height) / Math.max(1, covered)
              : (load(printer) + printer.seconds(plate.height)) / Math.max(1, covered) ** 0.25
          return { plate, rest, price }
        })
        .filter((t) => t.plate.units.length > 0)
      if (tries.length === 0) {
        // The choice may have been a printer that takes none of them; without one, nobody takes the first.
        if ((choice[k] ?? -1) !== -1) {
          choice = choice.filter((_, i) => i !== k)
          k--
          continue
        }
        break
      }
      const best = tries.reduce((a, b) => (b.price < a.price ? b : a))
      done.push(best.plate)
      open = best.rest
    }
    for (const u of open) {
      const why = this.printers.map((p) => this.refused(u, p))
      left.push({ id: u.item.id, why: why.every((w) => w === 'tall') ? 'tall' : 'wide' })
    }
    return this.result(done, left)
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
        const plate: Filled = { printer, plate: this.empty(printer), units: [], height: 0, resin: '' }
        if (this.top(plate, [u]).length > 0) continue
        done.push(plate)
        placed = true
      }
      if (!placed) left.push({ id: u.item.id, why: this.refused(u, this.printers[0]!) ?? 'wide' })
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
      const plate = plates.get(key) ?? {
        printer,
        number: lock.plate,
        plate: this.empty(printer),
        units: [],
        height: 0,
        resin: u.item.resin,
      }
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
        (s) => s.x + s.footprint.width,
      ),
      dy = spare(
        depth,
        (s) => s.y,
        (s) => s.y + s.footprint.height,
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
