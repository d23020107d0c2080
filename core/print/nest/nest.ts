import { silent, type Report } from '../../answer'
import { evenNumbers } from '../../math/random'
import { Nester } from './nester'
import { nestDefaults, type NestItem, type Nesting, type NestPrinter, type NestWish } from './types'

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
