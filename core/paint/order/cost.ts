import type { MaskEdge, OrderCost, OrderScheme, OrderStep } from './types'
import type { OrderCosts } from '../../defaults/paint'

/** A scheme with what the searches ask of it again and again. */
export interface CoatNeighbours {
  scheme: OrderScheme
  costs: OrderCosts
  /** neighbours of each coat's region, with the coats that lie on them */
  beside: { region: number; mm: number; coats: number[] }[][]
}

export function neighboursOf(scheme: OrderScheme, costs: OrderCosts): CoatNeighbours {
  const on = new Map<number, number[]>()
  scheme.coats.forEach((c, i) => on.set(c.region, [...(on.get(c.region) ?? []), i]))
  const sides = new Map<number, CoatNeighbours['beside'][number]>()
  const put = (a: number, b: number, mm: number): void => {
    if (mm > 0 && a !== b) sides.set(a, [...(sides.get(a) ?? []), { region: b, mm, coats: on.get(b) ?? [] }])
  }
  for (const { a, b, mm } of scheme.borders) {
    put(a, b, mm)
    put(b, a, mm)
  }
  return { scheme, costs, beside: scheme.coats.map((c) => sides.get(c.region) ?? []) }
}

/**
 * Masks that a coat needs: along every edge to a region that has paint on already, unless its last coat is of the same
 * paint; always along faces that take glue. Brushed coats need none.
 *
 * @param done whether a coat is there
 */
export function masksFor(l: CoatNeighbours, coat: number, done: (i: number) => boolean): MaskEdge[] {
  const { coats, regions } = l.scheme
  const c = coats[coat]!
  if (!c.spray) return []
  const out: MaskEdge[] = []
  for (const { region, mm, coats: on } of l.beside[coat]!) {
    let last = -1
    for (const i of on) if (done(i)) last = i
    const glue = regions.find((r) => r.id === region)?.glueFace ?? false
    if (glue || (last >= 0 && coats[last]!.paint !== c.paint)) out.push({ covered: region, against: c.region, mm })
  }
  return out
}

/**
 * What a coat costs after another: masks that do not stand already, cleaning for another colour, and what may go wrong.
 *
 * @param before masks that the coat before it needed, and that are still on
 */
export function stepCost(
  l: CoatNeighbours,
  coat: number,
  masks: readonly MaskEdge[],
  previous: number,
  before: readonly MaskEdge[],
  done: (i: number) => boolean,
): OrderStep {
  const { coats } = l.scheme,
    k = l.costs
  const c = coats[coat]!
  const fresh = masks.filter((m) => !before.some((b) => b.covered === m.covered && b.against === m.against))
  const stands = new Set(before.map((m) => m.covered))
  const covered = new Set(fresh.map((m) => m.covered).filter((r) => !stands.has(r)))
  const masking = fresh.reduce((s, m) => s + m.mm * k.tape, 0) + covered.size * k.cover
  const same = previous >= 0 && coats[previous]!.paint === c.paint && coats[previous]!.spray === c.spray
  const cleaning = same ? 0 : c.spray ? k.cleanSpray : k.cleanBrush
  let risk = 0
  for (const r of covered) for (const i of onRegion(l, r)) if (done(i)) risk += k.lifts * coats[i]!.handsOn
  if (c.spray && c.hides > 2)
    for (const { coats: on } of l.beside[coat]!)
      for (const i of on)
        if (done(i) && coats[i]!.lightness < c.lightness - DARKER) {
          risk += k.ghosts * c.handsOn
          break
        }
  return { coat, masks: fresh, masking, cleaning, risk }
}
/** Lightness by which a neighbour is dark beside a light coat. */
export const DARKER = 15

const onRegion = (l: CoatNeighbours, region: number): number[] =>
  l.scheme.coats.flatMap((c, i) => (c.region === region ? [i] : []))

/** An order with its costs: its steps, and what they sum to. */
export function costOf(l: CoatNeighbours, order: readonly number[]): { steps: OrderStep[]; cost: OrderCost } {
  const there = new Uint8Array(l.scheme.coats.length)
  const done = (i: number): boolean => there[i] === 1
  let before: MaskEdge[] = [],
    previous = -1
  const steps = order.map((coat) => {
    const masks = masksFor(l, coat, done)
    const step = stepCost(l, coat, masks, previous, before, done)
    there[coat] = 1
    // Masks stay on from one spraying to the next only: tape that is left lifts what it lies on.
    before = masks
    previous = coat
    return step
  })
  const sum = (of: (s: OrderStep) => number): number => steps.reduce((s, x) => s + of(x), 0)
  const cost = {
    handsOn: order.reduce((s, i) => s + l.scheme.coats[i]!.handsOn, 0),
    masking: sum((s) => s.masking),
    cleaning: sum((s) => s.cleaning),
    risk: sum((s) => s.risk),
    tape: sum((s) => s.masks.reduce((t, m) => t + m.mm, 0)),
  }
  return { steps, cost: { ...cost, total: cost.handsOn + cost.masking + cost.cleaning + cost.risk } }
}
