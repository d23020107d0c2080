import { hexToLab, type Triple } from '../core/paint/optics/colour'
import type { StockPaint } from '../core/paint/recipes/recipe'
import type { PaintRecord } from './stock'

/** Colour of a paint where it hides: of the bottle in use, as it was measured, or by what a screen shows. */
export const labOfPaint = (p: Pick<PaintRecord, 'lots' | 'lab' | 'hex'>): Triple =>
  p.lots[0]?.lab ?? p.lab ?? hexToLab(p.hex)

/** A paint of the stock as mixing arithmetic takes it. */
export const stockPaint = (id: string, p: PaintRecord): StockPaint => ({
  id,
  name: p.name,
  lab: labOfPaint(p),
  overBlack: p.overBlack,
  opacity: p.opacity,
  kind: p.kind,
  price: p.price,
  open: p.opened !== null,
  finish: p.finish,
})

/** Copies that can be handed to a worker: reactive ones cannot. */
export const plainPaints = (list: readonly StockPaint[]): StockPaint[] =>
  list.map((p) => ({ ...p, lab: [...p.lab], overBlack: p.overBlack ? [...p.overBlack] : null }))
