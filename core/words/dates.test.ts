import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dateTyped, momentTyped, timeTyped, typedAs } from './dates'

const TODAY = '2026-11-30'
const REGIONS = ['en-GB', 'en-US', 'en-DE', 'en-SE', 'en-CA', 'en-ZA', 'en-CH']
const day = fc
  .date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true })
  .map((d) => d.toISOString().slice(0, 10))
const time = fc
  .integer({ min: 0, max: 1439 })
  .map((m) => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`)

describe('a day that is typed', () => {
  it('is read as the region writes it, in numbers and with the month by its name', () => {
    fc.assert(
      fc.property(day, fc.constantFrom(...REGIONS), (d, region) => {
        expect(dateTyped(typedAs(d, region), region, TODAY)).toBe(d)
        const at = new Date(`${d}T12:00`)
        for (const dateStyle of ['short', 'medium', 'long', 'full'] as const)
          expect(dateTyped(new Intl.DateTimeFormat(region, { dateStyle }).format(at), region, TODAY)).toBe(d)
        expect(dateTyped(d, region, TODAY)).toBe(d)
      }),
      { numRuns: 300 },
    )
  })
  it('is in the order of the region, of this year where none is given', () => {
    expect(dateTyped('3/4/26', 'en-GB', TODAY)).toBe('2026-04-03')
    expect(dateTyped('3/4/26', 'en-US', TODAY)).toBe('2026-03-04')
    expect(dateTyped('24.12.', 'en-DE', TODAY)).toBe('2026-12-24')
    expect(dateTyped(' Dec 24 ', 'en-GB', TODAY)).toBe('2026-12-24')
    expect(dateTyped('24 december 2027', 'en-US', TODAY)).toBe('2027-12-24')
  })
  it('is refused where there is no such day, whatever is typed', () => {
    for (const none of [
      '31/4/2026',
      '29/2/2026',
      '0/1/2026',
      '12',
      'soon',
      '',
      '24 Foo',
      '1/2/3/4',
      '24/12/1',
      '1e3/1/1',
    ])
      expect([none, dateTyped(none, 'en-GB', TODAY)]).toEqual([none, none === '24/12/1' ? '2001-12-24' : null])
    expect(dateTyped('29/2/2028', 'en-GB', TODAY)).toBe('2028-02-29')
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), fc.constantFrom(...REGIONS), (junk, region) => {
        const read = dateTyped(junk, region, TODAY)
        // What was read is a day that there is.
        expect(read === null || new Date(`${read}T00:00Z`).toISOString().slice(0, 10) === read).toBe(true)
      }),
    )
  })
})

describe('a time that is typed', () => {
  it('is read as the region writes it, alone or after a day', () => {
    fc.assert(
      fc.property(day, time, fc.constantFrom(...REGIONS), (d, t, region) => {
        expect(timeTyped(typedAs(t, region))).toBe(t)
        expect(momentTyped(typedAs(`${d}T${t}`, region), region, TODAY)).toBe(`${d}T${t}`)
        expect(momentTyped(`${d}T${t}`, region, TODAY)).toBe(`${d}T${t}`)
      }),
      { numRuns: 300 },
    )
    expect(['9', '9:05', '21.30', '2130', '9 pm', '12 am', '12:30 p.m.'].map(timeTyped)).toEqual([
      '09:00',
      '09:05',
      '21:30',
      '21:30',
      '21:00',
      '00:00',
      '12:30',
    ])
  })
  it('is refused where no clock shows it', () => {
    for (const none of ['24:00', '9:60', '13 pm', '0 am', 'noon', '', '9:5'])
      expect([none, timeTyped(none)]).toEqual([none, null])
    for (const none of ['9:00', '30/11/2026', '31/4/2026, 9:00', '30/11/2026, 25:00'])
      expect([none, momentTyped(none, 'en-GB', TODAY)]).toEqual([none, null])
  })
})
