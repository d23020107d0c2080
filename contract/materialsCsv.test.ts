import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SUPPLIES } from '../core/plan/materials/supplies'
import { CsvTrouble } from '../core/formats/csv'
import { STOCK_UNITS } from '../core/defaults/stock'
import { materialsFromCsv, materialsToCsv } from '../core/plan/materials/materialsCsv'
import { readBy } from './answers'
import { material } from './stock'

const read = readBy(material)

const words = fc.string({ minLength: 1, maxLength: 20 }).map((s) => s.replace(/\s+/g, ' ').trim() || 'Soot')
const day = fc.option(
  fc.integer({ min: 0, max: 4000 }).map((d) => new Date(Date.UTC(2020, 0, 1 + d)).toISOString().slice(0, 10)),
  { nil: null },
)
const lots = fc.array(
  fc.record({
    lot: fc.stringMatching(/^[A-Z0-9-]{0,8}$/),
    amount: fc.integer({ min: 0, max: 9999 }),
    opened: day,
    keeps: fc.integer({ min: 1, max: 60 }),
    bestBefore: day,
  }),
  { maxLength: 3 },
)
const some = fc.record({
  name: words,
  serves: fc.uniqueArray(fc.constantFrom(...SUPPLIES.map((s) => s.what)), { maxLength: 3 }),
  unit: fc.constantFrom(...STOCK_UNITS),
  density: fc.option(fc.constantFrom(0.8, 1.12, 1.9), { nil: null }),
  price: fc.constantFrom(0, 0.04, 12.5),
  reorder: fc.option(fc.integer({ min: 0, max: 500 }), { nil: null }),
  safety: words,
  working: fc.option(fc.integer({ min: 1, max: 90 }), { nil: null }),
  next: fc.option(fc.integer({ min: 1, max: 900 }), { nil: null }),
  lots,
})
/** What is wrong with a list, in one text. */
function wrong(text: string): string {
  try {
    materialsFromCsv(text, read)
    return ''
  } catch (e) {
    if (e instanceof CsvTrouble) return e.message
    throw e
  }
}

describe('a list of materials', () => {
  it('goes out and comes in as it was, whatever stands in it', () => {
    fc.assert(
      fc.property(fc.uniqueArray(some, { selector: (m) => m.name, minLength: 1, maxLength: 4 }), (list) => {
        const all = list.map((m) => material.parse(m))
        // What a spreadsheet would run is guarded by a quote; a name that begins with one of its own is nobody's.
        fc.pre(all.every((m) => !/^'/.test(m.name + m.safety) && !/^'/.test(m.safety)))
        expect(materialsFromCsv(materialsToCsv(all), read)).toEqual(all)
      }),
      { seed: 12, numRuns: 200 },
    )
    expect(materialsToCsv([material.parse({ name: '=1+1' })])).toContain("'=1+1")
  })
  it('names every line that is wrong, and is then not taken at all', () => {
    const said = wrong('name,unit,amount,opened\nGrey,ml,2 l,\nSoot,ml,3 m,\nRust,ml,1,yesterday\nGrey,g,1,')
    expect(said).not.toContain('Line 2')
    for (const line of ['Line 3: The amount is counted in ml', 'Line 4', 'Line 5: “Grey” is counted in ml further up.'])
      expect(said).toContain(line)
    expect(wrong('')).toContain('name the columns')
    expect(wrong('name,amount')).toContain('nothing in it')
    expect(wrong('name,serves as\nGlue,magic')).toContain('No step uses “magic”')
    expect(wrong('name,price each\nGlue,dear')).toContain('no number')
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (junk) => {
        wrong(junk)
      }),
      { seed: 3, numRuns: 300 },
    )
  })
})
