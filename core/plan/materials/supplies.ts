import { GAUGES } from '../../fit/pin'
import type { StockUnit } from '../../defaults/stock'
import { perUnit } from '../../stock/units'
import { GRAIN } from './abrasives'
import { EFFECT_KINDS } from '../../defaults/plan'
import { EFFECTS } from './effects'
import { ADHESIVES, FILLERS } from './materials'
import { message, type Message } from '../../words/message'
import { METRIC, type Manner } from '../../words/manner'
import { say } from '../../words/say'

/** Something that steps use up, whatever product serves as it. */
export interface Supply {
  /** as steps name it */
  what: string
  name: Message
  unit: StockUnit
}

/** All that steps use up, but paints, which are by `paint:` and their id. */
export const SUPPLIES: readonly Supply[] = [
  ...FILLERS.map((f): Supply => ({ what: `filler:${f.id}`, name: f.name, unit: 'ml' })),
  ...ADHESIVES.map((a): Supply => ({ what: `adhesive:${a.id}`, name: a.name, unit: 'ml' })),
  ...GAUGES.map((w): Supply => ({ what: `wire:${w}`, name: message('supplies.wire', { gauge: w }), unit: 'mm' })),
  ...Object.keys(GRAIN).map((g): Supply => ({
    what: `grit:${g}`,
    name: message('supplies.grit', { grit: g }),
    unit: 'sheets',
  })),
  ...['grey', 'white', 'black', 'tinted'].map((c): Supply => ({
    what: `primer:${c}`,
    name: message('supplies.primer', { colour: c }),
    unit: 'ml',
  })),
  { what: 'primer:filler', name: message('supplies.fillerPrimer'), unit: 'ml' },
  ...['matt', 'satin', 'gloss'].map((v): Supply => ({
    what: `varnish:${v}`,
    name: message('supplies.varnish', { finish: v }),
    unit: 'ml',
  })),
  ...EFFECT_KINDS.map((k): Supply => ({ what: `effect:${k}`, name: EFFECTS[k].stuff, unit: EFFECTS[k].unit })),
  { what: 'casting', name: message('supplies.casting'), unit: 'ml' },
]
export const supply = (what: string): Supply | undefined => SUPPLIES.find((s) => s.what === what)
/** What a reader calls it; what is no supply of this program keeps the name by which it is stored. */
export function supplyName(what: string, manner: Manner = METRIC): string {
  const s = supply(what)
  return s ? say(s.name, manner) : what
}

export interface Product {
  serves: readonly string[]
  unit: StockUnit
  density: number | null
}
/**
 * How much of a product, in its own unit, one unit of a supply is; null where it does not serve as that, or is counted in another
 * kind of unit and has no density.
 */
export function ofProduct(p: Product, what: string): number | null {
  const s = supply(what)
  return s && p.serves.includes(what) ? perUnit(s.unit, p.unit, p.density) : null
}
