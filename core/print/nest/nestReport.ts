import { part, silent, type Report } from '../../answer'
import { inFileOrder, nest } from './nest'
import { outlines } from './outline'
import { footprint } from './silhouette'
import { nestDefaults, type NestItem, type Nesting, type NestPrinter, type NestWish } from './types'

export interface Way {
  /** s of machine time in all, and until the last printer is done */
  seconds: number
  finish: number
  plates: number
  /** parts that find no place */
  left: number
}
export interface NestReport {
  nesting: Nesting
  /** one by one as they come, unturned */
  oneByOne: Way
  /** everything on one printer, for each where there are several */
  only: (Way & { printer: string })[]
  /** all printers side by side, so that everything is done soonest; null where there is one */
  soonest: Way | null
  /** per part: its height, and the borders of its shadow grown by half the margin, mm about its own origin */
  shapes: { id: string; height: number; loops: [number, number][][] }[]
}

/** mm of the cells that a part's border is drawn on */
const DRAWN = 0.6

/** A nesting, and what it is held against before one takes it. */
export function nestReport(
  items: readonly NestItem[],
  printers: readonly NestPrinter[],
  wish: NestWish = nestDefaults,
  report: Report = silent,
): NestReport {
  const several = printers.length > 1
  const nesting = nest(items, printers, wish, part(report, 0, several ? 0.4 : 1))
  const only = several
    ? printers.map((p, i) => ({
        printer: p.id,
        ...wayOf(
          nest(
            items,
            [p],
            wish,
            part(report, 0.4 + (0.3 * i) / printers.length, 0.4 + (0.3 * (i + 1)) / printers.length),
          ),
        ),
      }))
    : []
  const soonest =
    several && wish.aim === 'hours' ? nest(items, printers, { ...wish, aim: 'soonest' }, part(report, 0.7, 1)) : null
  return {
    nesting,
    oneByOne: wayOf(inFileOrder(items, printers, wish)),
    only,
    soonest: soonest && wayOf(soonest),
    shapes: items.map((i) => ({ id: i.id, height: i.silhouette.height, loops: shapeOf(i, wish.margin) })),
  }
}

const wayOf = (n: Nesting): Way => ({
  seconds: n.seconds,
  finish: n.finish,
  plates: n.plates.length,
  left: n.left.length,
})

function shapeOf({ silhouette }: NestItem, margin: number): [number, number][][] {
  const { cells, offset } = footprint(silhouette, 0, margin, DRAWN)
  return outlines(cells).map((loop) => loop.map(([x, y]) => [x * DRAWN - offset[0], y * DRAWN - offset[1]]))
}
