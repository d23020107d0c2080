import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenNumbers } from '../../math/random'
import { neighboursOf, costOf } from './cost'
import { brokenRules, orderPlan } from './plan'
import { precedences, withoutRings } from './rules'
import { cheapest, neededBefore } from './search'
import { ORDER_COSTS } from '../../defaults/paint'
import type { OrderCoat, OrderScheme, Precedes } from './types'

const coat = (id: number, region: number, more: Partial<OrderCoat> = {}): OrderCoat => ({
  id: String(id),
  region,
  name: `coat ${id}`,
  paint: `p${id}`,
  spray: true,
  handsOn: 300,
  lightness: 50,
  hides: 2,
  messy: false,
  metallic: false,
  varnish: null,
  ...more,
})
/** A made-up scheme: regions on a grid, some borders, coats of a few paints. */
function scheme(seed: number, regions: number, coats: number): OrderScheme {
  const random = evenNumbers(seed)
  const side = Math.ceil(Math.sqrt(regions))
  const borders: OrderScheme['borders'] = []
  for (let i = 0; i < regions; i++) {
    if ((i + 1) % side !== 0 && i + 1 < regions) borders.push({ a: i, b: i + 1, mm: 10 + 90 * random() })
    if (i + side < regions) borders.push({ a: i, b: i + side, mm: 10 + 90 * random() })
  }
  return {
    regions: Array.from({ length: regions }, (_, id) => ({ id, name: `r${id}`, area: 200 + 4000 * random() })),
    borders,
    coats: Array.from({ length: coats }, (_, i) =>
      coat(i, i < regions ? i : Math.floor(random() * regions), {
        paint: `p${Math.floor(random() * 5)}`,
        spray: random() < 0.8,
        handsOn: 120 + 600 * random(),
        lightness: 100 * random(),
        hides: 1 + Math.floor(4 * random()),
        messy: random() < 0.15,
      }),
    ),
  }
}
/** Every order that keeps the rules. */
function bruteForce(s: OrderScheme, rules: readonly Precedes[]): number {
  const l = neighboursOf(s, ORDER_COSTS),
    needs = neededBefore(s.coats.length, rules)
  let least = Infinity
  const order: number[] = []
  const there = new Set<number>()
  const descend = (): void => {
    if (order.length === s.coats.length) {
      least = Math.min(least, costOf(l, order).cost.total)
      return
    }
    for (let i = 0; i < s.coats.length; i++) {
      if (there.has(i) || needs[i]!.some((b) => !there.has(b))) continue
      order.push(i)
      there.add(i)
      descend()
      order.pop()
      there.delete(i)
    }
  }
  descend()
  return least
}

describe('the order of painting', () => {
  it('is the one that trying every order finds, up to nine coats', () => {
    for (const [seed, regions, coats] of [
      [1, 4, 6],
      [2, 6, 7],
      [3, 5, 8],
      [4, 8, 8],
      [5, 3, 8],
      [6, 9, 9],
    ] as const) {
      const s = scheme(seed, regions, coats)
      const { rules } = withoutRings(coats, precedences(s))
      const order = cheapest(neighboursOf(s, ORDER_COSTS), rules)
      expect([...order].sort((a, b) => a - b)).toEqual([...s.coats.keys()])
      expect(brokenRules(rules, order)).toEqual([])
      expect(costOf(neighboursOf(s, ORDER_COSTS), order).cost.total).toBeCloseTo(bruteForce(s, rules), 6)
    }
  })
  it('saves a quarter of the masking of taking the largest region first, on sixteen regions', () => {
    let ours = 0,
      theirs = 0
    for (let seed = 10; seed < 14; seed++) {
      const p = orderPlan(scheme(seed, 16, 16))
      ours += p.cost.masking
      theirs += p.largestFirst.cost.masking
      expect(p.cost.total).toBeLessThanOrEqual(p.largestFirst.cost.total)
    }
    expect(ours).toBeLessThan(0.75 * theirs)
  })
  it('goes on beyond what can be weighed whole: every rule kept, never dearer than the largest first', () => {
    for (const seed of [21, 22]) {
      const s = scheme(seed, 14, 30)
      const { rules } = withoutRings(s.coats.length, precedences(s))
      const p = orderPlan(s)
      const order = p.steps.map((x) => x.coat)
      expect([...order].sort((a, b) => a - b)).toEqual([...s.coats.keys()])
      expect(brokenRules(rules, order)).toEqual([])
      expect(p.cost.total).toBeLessThan(p.largestFirst.cost.total)
    }
  })
  it('puts a mask on once while it stays on, and none against its own paint', () => {
    const s: OrderScheme = {
      regions: [0, 1, 2].map((id) => ({ id, name: `r${id}`, area: 100 })),
      borders: [{ a: 0, b: 1, mm: 40 }],
      coats: [
        coat(0, 0, { spray: false }),
        coat(1, 1, { paint: 'red' }),
        coat(2, 1, { paint: 'blue' }),
        coat(3, 2, { paint: 'blue' }),
      ],
    }
    const l = neighboursOf(s, ORDER_COSTS)
    const { steps } = costOf(l, [0, 1, 2, 3])
    expect(steps.map((x) => x.masks.length)).toEqual([0, 1, 0, 0])
    expect(steps[1]!.masking).toBeCloseTo(40 * ORDER_COSTS.tape + ORDER_COSTS.cover, 9)
    expect(steps[3]!.cleaning).toBe(0)
    // Something else in between: the tape came off and is put on again.
    expect(costOf(l, [0, 1, 3, 2]).steps[3]!.masks).toHaveLength(1)
    const alike: OrderScheme = { ...s, coats: [coat(0, 0, { paint: 'red' }), coat(1, 1, { paint: 'red' })] }
    expect(costOf(neighboursOf(alike, ORDER_COSTS), [0, 1]).cost.masking).toBe(0)
    // A face that takes glue is covered before anything is sprayed beside it.
    const glue: OrderScheme = {
      ...alike,
      regions: [{ ...s.regions[0]!, glueFace: true }, s.regions[1]!],
      coats: [coat(1, 1)],
    }
    expect(costOf(neighboursOf(glue, ORDER_COSTS), [0]).steps[0]!.masks).toEqual([{ covered: 0, against: 1, mm: 40 }])
  })
  it('knows the rules of the craft, and names what a hand order breaks', () => {
    const s: OrderScheme = {
      regions: [0, 1, 2, 3].map((id) => ({ id, name: `r${id}`, area: 100 })),
      borders: [
        { a: 0, b: 1, mm: 30 },
        { a: 1, b: 2, mm: 30 },
      ],
      coats: [
        coat(0, 0, { lightness: 85, hides: 5 }),
        coat(1, 1, { lightness: 20 }),
        coat(2, 2, { metallic: true }),
        coat(3, 3, { varnish: 'matt' }),
        coat(4, 3, { varnish: 'gloss' }),
      ],
    }
    const broken = orderPlan(s, [1, 0, 2, 4, 3]).hand!.broken.map((r) => [r.first, r.then, r.rule])
    expect(broken).toContainEqual([0, 1, 'lightFirst'])
    expect(broken).toContainEqual([3, 2, 'mattBeforeMetal'])
    expect(broken).toContainEqual([3, 4, 'stack'])
    expect(orderPlan(s, [0, 1, 3, 2, 4]).hand!.broken).toEqual([])
    // The other school: what is dark comes first, and what that may cost stays in the sum.
    const dark = orderPlan(s, [0, 1, 3, 2, 4], ORDER_COSTS, 'darkFirst')
    expect(dark.hand!.broken.map((r) => [r.first, r.then, r.rule])).toEqual([[1, 0, 'darkFirst']])
    const at = (i: number): number => dark.steps.findIndex((x) => x.coat === i)
    expect(at(1)).toBeLessThan(at(0))
    expect(dark.cost.risk).toBeGreaterThan(orderPlan(s, null).cost.risk)
  })
  it('lets the softest rule of a ring give way and says which', () => {
    // Sprayed before brushed beside it, but the brushed one lies under the sprayed one of its own region.
    const s: OrderScheme = {
      regions: [0, 1].map((id) => ({ id, name: `r${id}`, area: 100 })),
      borders: [{ a: 0, b: 1, mm: 30 }],
      coats: [coat(0, 0, { spray: false }), coat(1, 0), coat(2, 1, { spray: false }), coat(3, 1)],
    }
    const p = orderPlan(s)
    expect(p.dropped.length).toBeGreaterThan(0)
    expect(p.dropped.every((d) => d.rule.rule === 'sprayFirst' && d.ring.length >= 2)).toBe(true)
    expect(p.steps).toHaveLength(4)
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 10 }), (seed, n) => {
        const made = scheme(seed, 4, n)
        const { rules } = withoutRings(n, precedences(made))
        // Without rings every order search comes to an end, stacks as they are.
        const order = cheapest(neighboursOf(made, ORDER_COSTS), rules)
        // Whatever gave way would close a ring with what stayed, and with nothing softer than itself.
        const { dropped } = withoutRings(n, precedences(made))
        for (const d of dropped) {
          expect([d.ring[0], d.ring.at(-1)]).toEqual([d.rule.then, d.rule.first])
          for (let i = 0; i + 1 < d.ring.length; i++)
            expect(rules.some((r) => r.first === d.ring[i] && r.then === d.ring[i + 1])).toBe(true)
        }
        const stacks = precedences(made).filter((r) => r.rule === 'stack')
        expect(brokenRules(stacks, order)).toEqual([])
      }),
      { numRuns: 25 },
    )
  })
})
