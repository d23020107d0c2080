import { neighboursOf, costOf } from './cost'
import { precedences, withoutRings, type Given } from './rules'
import { cheapest } from './search'
import type { Lights } from './rules'
import { ORDER_COSTS, type OrderCosts } from '../../defaults/paint'
import type { OrderCost, OrderScheme, OrderStep, Precedes } from './types'

export interface OrderPlan {
  steps: OrderStep[]
  cost: OrderCost
  /** rules that contradicted others and gave way */
  dropped: Given['dropped']
  /** rules that it does not keep; not more than those that gave way */
  broken: Precedes[]
  /** the user's own order beside it, with the rules that it breaks; null where none was given */
  hand: { steps: OrderStep[]; cost: OrderCost; broken: Precedes[] } | null
  /** regions taken whole, the largest first: what most people do */
  largestFirst: { cost: OrderCost; broken: Precedes[] }
}

/**
 * The cheapest order in which the coats of a scheme can be laid, and what other orders cost.
 *
 * @param hand coat numbers in an order of the user's own, each once
 */
export function orderPlan(
  scheme: OrderScheme,
  hand: readonly number[] | null = null,
  costs: OrderCosts = ORDER_COSTS,
  lights: Lights = 'lightFirst',
): OrderPlan {
  const l = neighboursOf(scheme, costs)
  const rules = precedences(scheme, lights)
  const given = withoutRings(scheme.coats.length, rules)
  const order = cheapest(l, given.rules)
  const largest = largestFirst(scheme)
  return {
    ...costOf(l, order),
    dropped: given.dropped,
    broken: brokenRules(rules, order),
    hand: hand && { ...costOf(l, hand), broken: brokenRules(rules, hand) },
    largestFirst: { cost: costOf(l, largest).cost, broken: brokenRules(rules, largest) },
  }
}

/** Rules that an order does not keep; of several between two coats the first. */
export function brokenRules(rules: readonly Precedes[], order: readonly number[]): Precedes[] {
  const at = new Map(order.map((c, i) => [c, i]))
  const seen = new Set<string>()
  return rules.filter((r) => {
    const key = `${r.first} ${r.then}`
    if (at.get(r.first)! < at.get(r.then)! || seen.has(key)) return false
    seen.add(key)
    return true
  })
}

function largestFirst({ regions, coats }: OrderScheme): number[] {
  const area = new Map(regions.map((r) => [r.id, r.area]))
  return [...coats.keys()].sort(
    (i, j) =>
      (area.get(coats[j]!.region) ?? 0) - (area.get(coats[i]!.region) ?? 0) ||
      coats[i]!.region - coats[j]!.region ||
      i - j,
  )
}
