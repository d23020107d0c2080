import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { putBack, taken } from '../../stock/lots'
import { shoppingList, type Need, type OnShelf } from './shopping'

const DAY = 86_400_000
const NOW = Date.UTC(2026, 10, 26)
const lot = (amount: number, opened: string | null = null, keeps = 24, bestBefore: string | null = null) => ({
  lot: '',
  amount,
  opened,
  keeps,
  bestBefore,
})
const need = (what: string, amount: number, days: number | null, piece = 'Pilot'): Need => ({
  what,
  amount,
  piece,
  at: days === null ? null : NOW + days * DAY,
})
const shelf = (id: string, serves: string[], lots: OnShelf['lots'], reorder: number | null = null): OnShelf => ({
  id,
  serves,
  lots,
  reorder,
})

describe('what to buy', () => {
  it('is what is needed over what there is, by the day it is needed first', () => {
    const [row] = shoppingList(
      [need('grey', 40, 9, 'Tern'), need('grey', 30, 2), need('grey', 5, null)],
      [shelf('g', ['grey'], [lot(50)])],
    )
    expect(row).toMatchObject({ need: 75, have: 50, buy: 25, by: NOW + 2 * DAY, why: 'short', itemId: 'g' })
    expect(row!.pieces).toEqual(['Pilot', 'Tern'])
    expect(shoppingList([need('grey', 40, 1)], [shelf('g', ['grey'], [lot(50)])])).toEqual([])
    expect(shoppingList([need('soot', 1, 1)], [])[0]).toMatchObject({ why: 'none', have: 0, buy: 1, itemId: null })
  })
  it('does not count what will have spoiled by then', () => {
    // Opened in January, good for eleven months: in December it is none.
    const old = shelf('g', ['grey'], [lot(50, '2026-01-01', 11), lot(10)])
    expect(shoppingList([need('grey', 30, 20)], [old])[0]).toMatchObject({ have: 10, spoils: 50, buy: 20 })
    expect(shoppingList([need('grey', 30, 2)], [old])).toEqual([])
  })
  it('shares what serves as two things, and fills up what runs low', () => {
    const gel = shelf('t', ['gel', 'thin'], [lot(10)])
    const rows = shoppingList([need('thin', 8, 1), need('gel', 6, 3)], [gel])
    expect(rows.map((r) => [r.what, r.buy])).toEqual([['gel', 4]])
    const low = shelf('p', ['paper'], [lot(2)], 3)
    expect(shoppingList([], [low])[0]).toMatchObject({ why: 'reorder', buy: 1, need: 0 })
    expect(shoppingList([need('paper', 1, 1)], [low])[0]).toMatchObject({ why: 'reorder', buy: 2, need: 1, have: 1 })
    expect(shoppingList([], [shelf('p', ['paper'], [lot(3)], 3)])).toEqual([])
  })
  it('buys just enough: with it on the shelf nothing is short, and no lot falls below nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('a', 'b'), fc.integer({ min: 1, max: 50 }), fc.integer({ min: 0, max: 40 }))),
        fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 4 }),
        (asked, lots) => {
          const needs = asked.map(([what, amount, day]) => need(what, amount, day))
          const own = shelf(
            'x',
            ['a', 'b'],
            lots.map((v) => lot(v)),
          )
          const short = shoppingList(needs, [own]).reduce((s, r) => s + r.buy, 0)
          const all = needs.reduce((s, n) => s + n.amount, 0),
            there = lots.reduce((s, v) => s + v, 0)
          expect(short).toBeCloseTo(Math.max(0, all - there), 9)
          expect(shoppingList(needs, [{ ...own, lots: [...own.lots, lot(short)] }])).toEqual([])
          const used = taken(own.lots, '', all, null)
          expect(used.took).toBe(Math.min(all, there))
          expect(Math.min(0, ...used.lots.map((l) => l.amount))).toBe(0)
          const back = putBack(used.lots, used.took)
          expect(back.reduce((s, l) => s + l.amount, 0)).toBeCloseTo(lots.length > 0 ? there : 0, 9)
        },
      ),
      { seed: 9 },
    )
  })
})
