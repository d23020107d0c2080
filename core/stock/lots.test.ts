import { describe, expect, it } from 'vitest'
import { oldResin as oldResinOf } from '../findings/oldResin'
import { keepsUntil, poured, shelfLevel, spent, type Bottle } from './lots'
import { inWords } from '../testSpoken'

const oldResin = inWords(oldResinOf)

const bottle = (lot: string, ml: number, opened: string | null, keeps = 12): Bottle => ({ lot, ml, opened, keeps })

describe('bottles', () => {
  it('keep to the day, over the year’s end and short months', () => {
    expect(keepsUntil(bottle('A', 1, '2025-11-30', 3))).toBe('2026-02-28')
    expect(keepsUntil(bottle('A', 1, '2026-01-15', 12))).toBe('2027-01-15')
    expect(keepsUntil(bottle('A', 1, null))).toBeNull()
    expect(spent(bottle('A', 1, '2025-11-30', 3), '2026-02-28')).toBe(false)
    expect(spent(bottle('A', 1, '2025-11-30', 3), '2026-03-01')).toBe(true)
    const said = oldResin('Grey', [bottle('A', 9, '2025-11-30', 3), bottle('B', 0, '2020-01-01')], '2026-03-02')
    expect(said.map((f) => [f.level, f.value])).toEqual([['warning', '2']])
  })
  it('are poured from the lot that was named, then from the oldest, and never below empty', () => {
    const shelf = [bottle('new', 500, null), bottle('old', 40, '2025-01-01'), bottle('L2', 100, '2025-06-01')]
    expect(poured(shelf, 'L2', 60).map((b) => b.ml)).toEqual([500, 40, 40])
    expect(poured(shelf, 'L2', 150).map((b) => b.ml)).toEqual([490, 0, 0])
    expect(poured(shelf, '', 30).map((b) => b.ml)).toEqual([500, 10, 100])
    expect(poured(shelf, 'L2', 9999).map((b) => b.ml)).toEqual([0, 0, 0])
    expect(shelfLevel({ level: 7, bottles: shelf })).toBe(640)
    expect(shelfLevel({ level: 7, bottles: [] })).toBe(7)
  })
})
