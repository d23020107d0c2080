import type { OrderPlan } from '../paint/order/plan'
import type { OrderScheme, Precedes, Rule } from '../paint/order/types'
import type { Finding } from './finding'
import { rule } from './rule'
import { message, type Message } from '../words/message'
import type { Said } from '../words/say'

const WHY: Record<Rule, (first: Said, then: Said) => Message> = {
  stack: (a, b) => message('findings.paintOrder.isUnderInItsOwn', { a, b }),
  clear: (a) => message('findings.paintOrder.isOnAClearPart', { a }),
  sprayFirst: (a, b) => message('findings.paintOrder.isSprayedAfterWasBrushed', { a, b }),
  lightFirst: (a, b) => message('findings.paintOrder.isLightAndCoversPoorly', { a, b }),
  darkFirst: (a, b) => message('findings.paintOrder.isLightAndComesBefore', { b, a }),
  messyFirst: (a, b) => message('findings.paintOrder.goesBeyondItsEdgeBeside', { a, b }),
  mattBeforeMetal: (a, b) => message('findings.paintOrder.overRemovesItsSheenMatt', { a, b }),
  accentsLast: (a, b) => message('findings.paintOrder.isAGlossAccentThe', { b, a }),
}
const HOW = message('findings.paintOrder.byTheRulesOfThe')

/** Coats of a ring that are named; more than these nobody holds together. */
const NAMED = 3
const few = (names: readonly Said[]): readonly Said[] =>
  names.length <= NAMED + 1
    ? names
    : [...names.slice(0, NAMED), message('findings.paintOrder.more', { n: names.length - NAMED })]

/** What a hand order breaks and costs, and what rules contradicted each other; nothing where it is as good as the best. */
export function paintOrder(scheme: OrderScheme, plan: OrderPlan): Finding<'cheapestOrder'>[] {
  const name = (i: number): Message => {
    const c = scheme.coats[i]!
    return message('findings.paintOrder.coatOfRegion', {
      region: scheme.regions.find((r) => r.id === c.region)?.name ?? message('findings.paintOrder.region'),
      name: c.name,
    })
  }
  const out: Finding<'cheapestOrder'>[] = []
  const say = (r: Precedes): Message => WHY[r.rule](name(r.first), name(r.then))
  for (const r of (plan.hand?.broken ?? []).slice(0, 6))
    out.push({
      id: `order-${scheme.coats[r.first]!.id}-${scheme.coats[r.then]!.id}`,
      level: r.rule === 'mattBeforeMetal' || r.rule === 'stack' ? 'problem' : 'warning',
      value: 1 + (plan.hand?.steps.findIndex((s) => s.coat === r.then) ?? 0),
      unit: message('findings.paintOrder.isTooEarlyInYour'),
      sentence: say(r),
      places: [],
      how: HOW,
      fixes: [
        {
          act: 'cheapestOrder',
          label: message('findings.paintOrder.useTheCheapestOrder'),
          effect: message('findings.paintOrder.keepsEveryRuleThatCan'),
        },
      ],
    })
  const more = (plan.hand?.broken.length ?? 0) - 6
  if (more > 0)
    out.push({
      id: 'order-more',
      level: 'warning',
      value: more,
      unit: message('findings.paintOrder.moreRuleRulesBroken', { more }),
      sentence: message('findings.paintOrder.yourOrderBreaksFurtherRules'),
      places: [],
      how: HOW,
      fixes: [],
    })
  for (const { rule, ring } of plan.dropped.slice(0, 3))
    out.push({
      id: `ring-${scheme.coats[rule.first]!.id}-${scheme.coats[rule.then]!.id}`,
      level: 'note',
      value: ring.length,
      unit: message('findings.paintOrder.inARing', { n: ring.length }),
      sentence: message('findings.paintOrder.rulesContradictEachOtherAmong', {
        few: few(ring.map(name)),
        say: say(rule),
      }),
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
      value: broken,
      unit: message('findings.paintOrder.ruleRulesBrokenAsListed', { broken }),
      sentence: message('findings.paintOrder.thePlanUsesTheCoats'),
      places: [],
      how: HOW,
      fixes: [
        {
          act: 'cheapestOrder',
          label: message('findings.paintOrder.useTheCheapestOrder'),
          effect:
            more > 0
              ? message('findings.paintOrder.keepsEveryRuleThatCan2', { more })
              : message('findings.paintOrder.keepsEveryRuleThatCan3', { more: more < 0, more2: -more }),
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
        value: wrong.length,
        unit: message('findings.paintOrder.coats', { n: wrong.length }),
        sentence: r.glueFace
          ? message('findings.paintOrder.willBeGluedAndGlue', { name: r.name })
          : message('findings.paintOrder.isClearPaintThatCovers', { name: r.name }),
        places: [],
        how: message('findings.paintOrder.byTheMaterialEnteredFor'),
        fixes: [],
      },
    ]
  })
}

export const orderKept = rule({
  title: message('findings.paintOrder.theOrderOfCoatsKeeps'),
  stages: ['order'],
  inputs: ['paintOrder'],
  find: ({ paintOrder: { scheme, plan, chosen } }) =>
    chosen ? paintOrder(scheme, plan) : [...listedOrder(plan), ...paintOrder(scheme, { ...plan, hand: null })],
})
export const noForbiddenCoat = rule({
  title: message('findings.paintOrder.nothingCoversWhatIsClear'),
  stages: ['order'],
  inputs: ['paintOrder'],
  find: ({ paintOrder: { scheme, inks } }) => forbiddenCoats(scheme, inks),
})
