import type { PaintKind } from '../../defaults/paint'
import { hexToLab, type Triple } from '../optics/colour'
import type { StockPaint } from './recipe'

/** A paint as it is kept in stock. */
export interface KeptPaint {
  name: string
  /** #rrggbb, where it hides */
  hex: string
  /** the same as it was measured or published */
  lab: Triple | null
  /** one brushed coat over black */
  overBlack: Triple | null
  opacity: number
  kind: PaintKind
  finish: 'matt' | 'satin' | 'gloss' | 'metal'
  price: number
  opened: string | null
  /** bottles that were measured, the one in use first */
  lots: readonly { lab: Triple }[]
}

/** Colour of a paint where it hides: of the bottle in use, as it was measured, or by what a screen shows. */
export const labOfPaint = (p: Pick<KeptPaint, 'lots' | 'lab' | 'hex'>): Triple =>
  p.lots[0]?.lab ?? p.lab ?? hexToLab(p.hex)

/** A paint of the stock as mixing arithmetic takes it. */
export const stockPaint = (id: string, p: KeptPaint): StockPaint => ({
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
