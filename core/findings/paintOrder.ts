import type { OrderPlan } from '../paint/order/plan'
import type { OrderScheme, Precedes, Rule } from '../paint/order/types'
import { plural, type Finding } from './finding'
import { rule } from './rule'

const WHY: Record<Rule, (first: string, then: string) => string> = {
  stack: (a, b) => `${a} is under ${b} in its own region.`,
  clear: (a) => `${a} is on a clear part, which takes inks only.`,
  sprayFirst: (a, b) => `${a} is sprayed after ${b} was brushed beside it: the brushed work has to be masked.`,
  lightFirst: (a, b) =>
    `${a} is light and covers poorly; after the dark ${b} beside it, overspray and edges show through.`,
  darkFirst: (a, b) => `${b} is light and comes before the dark ${a} beside it; your rule is dark to light.`,
  messyFirst: (a, b) => `${a} goes beyond its edge; ${b} beside it is clean by then.`,
  mattBeforeMetal: (a, b) => `${a} over ${b} removes its sheen: matt comes before metal, or the metal is masked.`,
  accentsLast: (a, b) => `${b} is a gloss accent: the later ${a} dulls it.`,
}
const HOW =
  'By the rules of the craft, over regions that touch. Minutes are calculated from what masking and cleaning take in this workshop.'

/** Coats of a ring that are named; more than these nobody holds together. */
const NAMED = 3
const few = (names: readonly string[]): string =>
  names.length <= NAMED + 1 ? names.join('; ') : `${names.slice(0, NAMED).join('; ')} and ${names.length - NAMED} more`

/** What a hand order breaks and costs, and what rules contradicted each other; nothing where it is as good as the best. */
export function paintOrder(scheme: OrderScheme, plan: OrderPlan): Finding<'cheapestOrder'>[] {
  const name = (i: number): string => {
    const c = scheme.coats[i]!
    return `${scheme.regions.find((r) => r.id === c.region)?.name ?? 'Region'}: ${c.name}`
  }
  const out: Finding<'cheapestOrder'>[] = []
  const say = (r: Precedes): string => WHY[r.rule](name(r.first), name(r.then))
  for (const r of (plan.hand?.broken ?? []).slice(0, 6))
    out.push({
      id: `order-${scheme.coats[r.first]!.id}-${scheme.coats[r.then]!.id}`,
      level: r.rule === 'mattBeforeMetal' || r.rule === 'stack' ? 'problem' : 'warning',
      value: String(1 + (plan.hand?.steps.findIndex((s) => s.coat === r.then) ?? 0)),
      unit: 'is too early in your order',
      sentence: say(r),
      places: [],
      how: HOW,
      fixes: [{ act: 'cheapestOrder', label: 'Use the cheapest order', effect: 'keeps every rule that can be kept' }],
    })
  const more = (plan.hand?.broken.length ?? 0) - 6
  if (more > 0)
    out.push({
      id: 'order-more',
      level: 'warning',
      value: String(more),
      unit: `more ${more === 1 ? 'rule' : 'rules'} broken`,
      sentence: 'Your order breaks further rules of the same kinds.',
      places: [],
      how: HOW,
      fixes: [],
    })
  for (const { rule, ring } of plan.dropped.slice(0, 3))
    out.push({
      id: `ring-${scheme.coats[rule.first]!.id}-${scheme.coats[rule.then]!.id}`,
      level: 'note',
      value: String(ring.length),
      unit: `${plural(ring.length, 'coat').replace(/^\S+ /, '')} in a ring`,
      sentence: `Rules contradict each other among ${few(ring.map(name))}. The least strict one is broken: ${say(rule)} It is masked instead; another tool for one of the coats would avoid that.`,
      places: [],
      how: HOW,
      fixes: [],
    })
  return out
}

/** No order was chosen, and the one that the coats are listed in breaks rules; `hand` is that one. */
export function listedOrder({ hand, cost }: OrderPlan): Finding<'cheapestOrder'>[] {
  const broken = hand?.broken.length ?? 0
  if (broken === 0) return []
  const more = Math.round((cost.total - hand!.cost.total) / 60)
  return [
    {
      id: 'as-listed',
      level: 'warning',
      value: String(broken),
      unit: `${broken === 1 ? 'rule' : 'rules'} broken as listed`,
      sentence: 'The plan uses the coats as listed until an order is chosen.',
      places: [],
      how: HOW,
      fixes: [
        {
          act: 'cheapestOrder',
          label: 'Use the cheapest order',
          effect:
            more > 0
              ? `keeps every rule that can be kept, for ${more} min more`
              : `keeps every rule that can be kept${more < 0 ? `, and saves ${-more} min` : ''}`,
        },
      ],
    },
  ]
}

/** A clear part's region under something else than ink, and a face that takes glue under any paint. */
export function forbiddenCoats(scheme: OrderScheme, inks: ReadonlySet<string>): Finding<never>[] {
  return scheme.regions.flatMap((r): Finding<never>[] => {
    const on = scheme.coats.filter((c) => c.region === r.id && !c.varnish)
    const wrong = r.glueFace ? on : r.clear ? on.filter((c) => !inks.has(c.id)) : []
    if (wrong.length === 0) return []
    return [
      {
        id: `forbidden-${r.id}`,
        level: 'problem',
        value: String(wrong.length),
        unit: plural(wrong.length, 'coat').replace(/^\S+ /, ''),
        sentence: r.glueFace
          ? `${r.name} will be glued, and glue does not hold on paint. Keep it bare and mask it.`
          : `${r.name} is clear: paint that covers it blocks its light. Use inks, without a primer.`,
        places: [],
        how: 'By the material entered for the region.',
        fixes: [],
      },
    ]
  })
}

export const orderKept = rule({
  title: 'the order of coats keeps every rule',
  stages: ['order'],
  inputs: ['paintOrder'],
  find: ({ paintOrder: { scheme, plan, chosen } }) =>
    chosen ? paintOrder(scheme, plan) : [...listedOrder(plan), ...paintOrder(scheme, { ...plan, hand: null })],
})
export const noForbiddenCoat = rule({
  title: 'nothing covers what is clear or will be glued',
  stages: ['order'],
  inputs: ['paintOrder'],
  find: ({ paintOrder: { scheme, inks } }) => forbiddenCoats(scheme, inks),
})
