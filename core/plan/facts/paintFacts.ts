import { AIRBRUSHED, BRUSHED } from '../../paint/optics/film'
import { dropsOf, paintKey, sharesOf, type CoatPaints } from '../../paint/coats/coatPaints'
import { neighboursOf, costOf } from '../../paint/order/cost'
import type { OrderScheme } from '../../paint/order/types'
import type { OrderCosts } from '../../defaults/paint'
import { surfaceOf, type Surface } from '../materials/abrasives'
import type { PlanFacts } from '../steps/types'
import type { RegionFinish } from './varnish'
import { message, sum } from '../../words/message'
import { say, type Said } from '../../words/say'

type Takes = 'paint' | 'glue' | 'light'
interface PlannedCoat extends CoatPaints {
  regionId: number
  technique: PlanFacts['coats'][number]['technique']
  tool: string
  /** µm dry */
  film: number
}
/** A scheme as far as a plan asks for it. */
export interface PlannedScheme {
  regions: readonly { id: number; name: string; takes: Takes }[]
  coats: readonly PlannedCoat[]
  /** ids of coats in an order of one's own; those not named come last, as they are listed */
  order: readonly string[]
  /** of each part: mm² by region, mm of edge that two regions share */
  maps: readonly { areas: Readonly<Record<string, number>>; borders: readonly { a: number; b: number; mm: number }[] }[]
  effects: readonly (Pick<PlanFacts['effects'][number], 'id' | 'kind' | 'thickness' | 'coverage'> & {
    regionId: number
  })[]
}
/** A paint in stock as far as a plan asks for it. */
export interface PlannedPaint {
  name: string
  kind: string
  finish: string
}
type Paints = ReadonlyMap<string, PlannedPaint>

/** mm² of a region: as it was brushed, or an even share of all where nothing was. */
export function areaOf(scheme: PlannedScheme, region: number, whole: number): number {
  return scheme.maps.length > 0
    ? scheme.maps.reduce((s, m) => s + (m.areas[region] ?? 0), 0)
    : whole / Math.max(1, scheme.regions.length)
}

function paintWords(c: PlannedCoat, paints: Paints): Said {
  const drops = dropsOf(c)
  const name = (id: string): Said => paints.get(id)?.name ?? message('supplies.gone')
  if (drops.length === 0) return message('supplies.paintToChoose')
  return drops.length === 1
    ? name(drops[0]!.paintId)
    : sum(drops.map((d) => message('supplies.drops', { drops: d.drops, paint: name(d.paintId) })))
}
const bordersOf = (scheme: PlannedScheme): { a: number; b: number; mm: number }[] =>
  scheme.maps.flatMap((m) => m.borders)
const nameOf = (scheme: PlannedScheme, region: number): string =>
  scheme.regions.find((r) => r.id === region)?.name ?? say(message('names.region'))
const isSprayed = (c: PlannedCoat): boolean => c.tool === 'airbrush' || c.technique === 'airbrush'

const kindsOf = (c: PlannedCoat, paints: Paints): string[] =>
  dropsOf(c).flatMap((d) => paints.get(d.paintId)?.kind ?? [])
const isMetal = (c: PlannedCoat, paints: Paints): boolean =>
  c.technique === 'metallic' || kindsOf(c, paints).includes('metallic')

/** Coats in painting order, with what has to be masked for each. */
export function coatsOf(scheme: PlannedScheme, whole: number, paints: Paints, costs: OrderCosts): PlanFacts['coats'] {
  const place = new Map(scheme.order.map((id, i) => [id, i]))
  const coats = scheme.coats
    .filter((c) => c.technique !== 'varnish')
    .map((c, nth) => ({ ...c, nth }))
    .sort((a, b) => (place.get(a.id) ?? Infinity) - (place.get(b.id) ?? Infinity) || a.nth - b.nth)
  const masks = masksOf(scheme, coats, whole, costs)
  return coats.map((c, i) => ({
    nth: c.nth,
    region: nameOf(scheme, c.regionId),
    technique: c.technique,
    byAirbrush: isSprayed(c),
    area: areaOf(scheme, c.regionId, whole),
    mix: sharesOf(c),
    paint: paintWords(c, paints),
    coats: Math.max(1, Math.round(c.film / (isSprayed(c) ? AIRBRUSHED : BRUSHED))),
    masks: masks[i]!,
    solvent: kindsOf(c, paints).some((k) => k === 'oil' || k === 'enamel'),
    metallic: isMetal(c, paints),
  }))
}

/** Masks of each coat when they are laid in that order; what stays on from spraying to spraying is put on once. */
function masksOf(
  scheme: PlannedScheme,
  coats: readonly PlannedCoat[],
  whole: number,
  costs: OrderCosts,
): PlanFacts['coats'][number]['masks'][] {
  const order: OrderScheme = {
    regions: scheme.regions.map((r) => ({
      id: r.id,
      name: r.name,
      area: areaOf(scheme, r.id, whole),
      glueFace: r.takes === 'glue',
    })),
    borders: bordersOf(scheme),
    coats: coats.map((c) => ({
      id: c.id,
      region: c.regionId,
      name: c.technique,
      paint: paintKey(c),
      spray: isSprayed(c),
      // What follows is of no account for masks.
      handsOn: 0,
      lightness: 0,
      hides: 1,
      messy: false,
      metallic: false,
      varnish: null,
    })),
  }
  const { steps } = costOf(neighboursOf(order, costs), [...coats.keys()])
  return steps.map((s) =>
    s.masks.length === 0
      ? undefined
      : {
          names: [...new Set(s.masks.map((m) => nameOf(scheme, m.covered)))],
          mm: s.masks.reduce((t, m) => t + m.mm, 0),
          seconds: s.masking,
        },
  )
}

/** How each region is to shine; none where the piece has no coats yet. */
export function finishesOf(scheme: PlannedScheme, whole: number, paints: Paints): RegionFinish[] {
  if (scheme.coats.length === 0) return []
  return scheme.regions.flatMap((r) => {
    const own = scheme.coats.filter((c) => c.regionId === r.id)
    const area = areaOf(scheme, r.id, whole)
    // What takes glue gets no varnish either.
    if (own.length === 0 || area <= 0 || r.takes === 'glue') return []
    const colours = own.filter((c) => c.technique !== 'varnish')
    const varnish = own.findLast((c) => c.technique === 'varnish')
    const sheen = varnish && paints.get(dropsOf(varnish)[0]?.paintId ?? '')?.finish
    return [
      {
        name: r.name,
        area,
        wanted: varnish ? (sheen === 'gloss' || sheen === 'satin' ? sheen : 'matt') : null,
        metallic: colours.some((c) => isMetal(c, paints)),
        clear: r.takes === 'light',
        powder: colours.at(-1)?.technique === 'powder',
        edges: bordersOf(scheme).flatMap((b) =>
          b.a === r.id
            ? [{ to: nameOf(scheme, b.b), mm: b.mm }]
            : b.b === r.id
              ? [{ to: nameOf(scheme, b.a), mm: b.mm }]
              : [],
        ),
      },
    ]
  })
}

/** What is built up on regions that are there. */
export const effectsOf = (scheme: PlannedScheme, whole: number): PlanFacts['effects'] =>
  scheme.effects.flatMap(({ id, kind, thickness, coverage, regionId }) => {
    const area = areaOf(scheme, regionId, whole)
    return area > 0 ? [{ id, kind, thickness, coverage, area, region: nameOf(scheme, regionId) }] : []
  })

/** Regions that are to stay bare under the primer. */
export const unprimedIn = (scheme: PlannedScheme, whole: number): PlanFacts['unprimed'] =>
  scheme.regions.flatMap(({ id, name, takes }) =>
    takes !== 'paint' && areaOf(scheme, id, whole) > 0 ? [{ name, takes }] : [],
  )

/** Regions by what their surface is sanded like, with their area. */
export function surfacesOf(scheme: PlannedScheme, whole: number, clear: boolean): PlanFacts['surfaces'] {
  const by = new Map<Surface, { names: string[]; area: number }>()
  for (const r of scheme.regions) {
    const area = areaOf(scheme, r.id, whole)
    if (area <= 0 && whole > 0) continue
    const surface = clear ? 'clear' : surfaceOf(r.name)
    const s = by.get(surface) ?? { names: [], area: 0 }
    by.set(surface, { names: [...s.names, r.name], area: s.area + area })
  }
  return [...by].map(([surface, s]) => ({ surface, ...s }))
}
