import { GAUGES } from '../../fit/pin'
import type { StockUnit } from '../../defaults/stock'
import { perUnit } from '../../stock/units'
import { GRAIN } from './abrasives'
import { EFFECT_KINDS } from '../../defaults/plan'
import { EFFECTS } from './effects'
import { ADHESIVES, FILLERS } from './materials'

/** Something that steps use up, whatever product serves as it. */
export interface Supply {
  /** as steps name it */
  what: string
  name: string
  unit: StockUnit
}

/** All that steps use up, but paints, which are by `paint:` and their id. */
export const SUPPLIES: readonly Supply[] = [
  ...FILLERS.map((f): Supply => ({ what: `filler:${f.id}`, name: f.name, unit: 'ml' })),
  ...ADHESIVES.map((a): Supply => ({ what: `adhesive:${a.id}`, name: a.name, unit: 'ml' })),
  ...GAUGES.map((w): Supply => ({ what: `wire:${w}`, name: `brass wire ${w} mm`, unit: 'mm' })),
  ...Object.keys(GRAIN).map((g): Supply => ({ what: `grit:${g}`, name: `abrasive paper ${g}`, unit: 'sheets' })),
  ...['grey', 'white', 'black', 'tinted'].map((c): Supply => ({
    what: `primer:${c}`,
    name: `primer, ${c}`,
    unit: 'ml',
  })),
  { what: 'primer:filler', name: 'filler primer', unit: 'ml' },
  ...['matt', 'satin', 'gloss'].map((v): Supply => ({ what: `varnish:${v}`, name: `varnish, ${v}`, unit: 'ml' })),
  ...EFFECT_KINDS.map((k): Supply => ({ what: `effect:${k}`, name: EFFECTS[k].stuff, unit: EFFECTS[k].unit })),
  { what: 'casting', name: 'casting resin', unit: 'ml' },
]
export const supply = (what: string): Supply | undefined => SUPPLIES.find((s) => s.what === what)

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
