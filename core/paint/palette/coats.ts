import { FILM, type Tool } from '../coats/batch'
import { coatFacts, type Below, type CoatFact } from '../coats/coatFacts'
import { paintKey, type CoatPaints } from '../coats/coatPaints'
import { bestTint } from '../coats/tint'
import { groundOf, undercoatBy, unprimed } from '../coats/undercoat'
import { compareUndercoats, type UndercoatCost } from '../coats/undercoats'
import { PRIMERS, type OrderCosts, type Technique, type Undercoat } from '../../defaults/paint'
import type { Triple } from '../optics/colour'
import { thinned } from '../optics/film'
import { orderCoats, type CoatFacts } from '../order/ofScheme'
import { orderPlan, type OrderPlan } from '../order/plan'
import type { Lights } from '../order/rules'
import type { OrderRegion, OrderScheme } from '../order/types'
import type { Border } from '../surface/borders'
import type { Palette } from './palette'
import { message } from '../../words/message'

/** A coat of a scheme as far as its paint goes. */
export interface PaintedCoat extends CoatPaints {
  regionId: number
  technique: Technique
  tool: Tool
  /** µm dry, of all its coats together */
  film: number
  /** volume share of paint in the thinned mix */
  pigment: number
}
/** K by which light from behind is weighed where no lamp is chosen yet. */
const NEUTRAL = 4000

/** What each coat does over those before it in its region. */
export function factsOf(
  palette: Palette,
  coats: readonly PaintedCoat[],
  regions: readonly { id: number; clear: boolean; behind: { kelvin: number } | null }[],
  undercoat: Undercoat,
): CoatFact[] {
  const primed: Below = { reflectance: groundOf(undercoat), lamp: null }
  const under = new Map(
    regions
      .filter((r) => r.clear)
      .map((r): [number, Below] => [r.id, { reflectance: unprimed.reflectance, lamp: r.behind?.kelvin ?? NEUTRAL }]),
  )
  return coatFacts(
    coats.map((c) => {
      const full = palette.ofCoat(c)
      return { ...c, optics: full && thinned(full, c.pigment), once: FILM[c.tool] }
    }),
    (id) => under.get(id) ?? primed,
  )
}

/** What each undercoat would cost in coats over the whole scheme, a tinted one last, and the tint that fits it best. */
export function undercoatsOf(
  palette: Palette,
  coats: readonly PaintedCoat[],
  regions: readonly { id: number; target: Triple | null; area: number }[],
  tint: string,
): { costs: UndercoatCost[]; best: string | null } {
  const bases = regions.flatMap((r) => {
    const base = coats.find((c) => c.regionId === r.id && c.technique === 'base')
    const o = base && palette.ofCoat(base)
    return o ? [{ area: r.area, optics: thinned(o, base.pigment), tool: base.tool, goal: r.target }] : []
  })
  return { costs: compareUndercoats(bases, [...PRIMERS, undercoatBy('tinted', tint)]), best: bestTint(bases) }
}

/**
 * The cheapest order of a scheme's coats, and what an order of one's own costs beside it.
 *
 * @param own ids of coats in an order of one's own, those not named last; empty: as they are listed
 */
export function orderOf(
  palette: Palette,
  coats: readonly PaintedCoat[],
  regions: OrderRegion[],
  borders: Border[],
  own: readonly string[],
  undercoat: Undercoat,
  costs: OrderCosts,
  lights: Lights,
): { scheme: OrderScheme; plan: OrderPlan; inks: string[] } {
  const facts = coats.map((c) => orderFacts(palette, c, regions.find((r) => r.id === c.regionId)?.area ?? 0))
  const scheme: OrderScheme = { regions, borders, coats: orderCoats(facts, undercoat) }
  const place = new Map(own.map((id, i) => [id, i]))
  const listed = [...coats.keys()].sort(
    (a, b) => (place.get(coats[a]!.id) ?? Infinity) - (place.get(coats[b]!.id) ?? Infinity) || a - b,
  )
  const inks = coats.filter((c) => {
    const paints = palette.paintsOf(c)
    return paints.length > 0 && paints.every((p) => p?.kind === 'ink')
  })
  return { scheme, plan: orderPlan(scheme, listed, costs, lights), inks: inks.map((c) => c.id) }
}

function orderFacts(palette: Palette, c: PaintedCoat, area: number): CoatFacts {
  const paints = palette.paintsOf(c)
  const finish = paints[0]?.finish
  return {
    id: c.id,
    region: c.regionId,
    technique: c.technique,
    tool: c.technique === 'airbrush' ? 'airbrush' : c.tool,
    optics: palette.ofCoat(c),
    // Nobody knows of two coats without a paint that they would be the same.
    paint: paintKey(c),
    name: paints.map((p) => p?.name ?? '?').join(' + ') || message('supplies.paintToChoose'),
    film: c.film,
    pigment: c.pigment,
    metallic: c.technique === 'metallic' || paints.some((p) => p?.kind === 'metallic'),
    varnish: c.technique !== 'varnish' ? null : finish === 'gloss' || finish === 'satin' ? finish : 'matt',
    area,
  }
}
