import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fixed, formatMessage, listed } from './format'
import { message } from './message'
import { say } from './say'
import { keptValue, METRIC, plainNumber, quantityText, shownUnit, shownValue, type Manner } from './manner'
import { converted, measureOf, UNIT_NAMES, unitNamed } from './units'

const INCHES: Manner = { locale: 'en-US', length: 'in', mass: 'oz', volume: 'fl oz', temperature: '°F' }
const GERMAN: Manner = { ...METRIC, locale: 'en-DE' }

describe('units', () => {
  it('are what their definitions say', () => {
    expect(converted(1, 'in', 'mm')).toBe(25.4)
    expect(converted(1, 'ft', 'in')).toBeCloseTo(12, 12)
    expect(converted(1, 'in²', 'mm²')).toBeCloseTo(25.4 ** 2, 9)
    expect(converted(16, 'oz', 'lb')).toBeCloseTo(1, 12)
    // A US gallon is 231 cubic inches and 128 fluid ounces.
    expect(converted(128, 'fl oz', 'ml')).toBeCloseTo(231 * 2.54 ** 3, 6)
    for (const [f, c] of [
      [32, 0],
      [212, 100],
      [-40, -40],
    ] as const)
      expect(converted(f, '°F', '°C')).toBeCloseTo(c, 9)
    expect(converted(3, 'mm', 'g')).toBeUndefined()
    expect(converted(3, 'ell', 'mm')).toBeUndefined()
  })
  it('lead there and back, and are found however they are typed', () => {
    const unit = fc.constantFrom(...UNIT_NAMES)
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), unit, unit, (v, a, b) => {
        fc.pre(measureOf(a) === measureOf(b))
        expect(converted(converted(v, a, b)!, b, a)!).toBeCloseTo(v, 4)
      }),
    )
    for (const name of UNIT_NAMES) expect(unitNamed(` ${name.toUpperCase()} `.trim())).toBe(name)
    expect(unitNamed('fl  oz')).toBe('fl oz')
  })
})

describe('a quantity in a sentence', () => {
  const size = '{name} is {size} mm tall, {a} × {b} mm wide and takes {resin} ml at {warm} °C.'
  const values = { name: 'Otter 2', size: fixed(80, 1), a: 12.5, b: 8, resin: fixed(29.5735295625, 0), warm: 20 }
  it('is in the units that were chosen, with decimals enough to be no coarser', () => {
    expect(formatMessage(size, values)).toBe('Otter 2 is 80.0 mm tall, 12.5 × 8 mm wide and takes 30 ml at 20 °C.')
    expect(formatMessage(size, values, INCHES)).toBe(
      'Otter 2 is 3.150 in tall, 0.492 × 0.31 in wide and takes 1.00 fl oz at 68 °F.',
    )
  })
  it('that the message itself names is converted too', () => {
    expect(formatMessage('A hole of 2 mm or more, a gap of 0.5 mm.', {}, INCHES)).toBe(
      'A hole of 0.08 in or more, a gap of 0.020 in.',
    )
    expect(formatMessage('Layers of 50 µm at 4.9 N, 2 mm²/s', {}, INCHES)).toBe('Layers of 50 µm at 4.9 N, 2 mm²/s')
  })
  it('keeps what is text as it is: a name may look like a number', () => {
    expect(formatMessage('{name} takes {n} g', { name: '1.5', n: '7' }, GERMAN)).toBe('1.5 takes 7 g')
  })
  it('has the decimals and the groups of its region', () => {
    expect(formatMessage('{n} mm, {m} layers', { n: fixed(1234.5, 2), m: 12345 }, GERMAN)).toBe(
      '1.234,50 mm, 12.345 layers',
    )
    expect(formatMessage('{v}', { v: fixed(-3.25, 1) })).toMatch(/^−3\.[23]$/)
    expect(formatMessage('{v} mm', { v: fixed(-0.001, 1) })).toBe('0.0 mm')
  })
  it('in a row shares one unit', () => {
    expect(formatMessage('{size} mm', { size: [fixed(1, 1), fixed(2, 1), fixed(25.4, 1)] }, INCHES)).toBe(
      '0.039 × 0.079 × 1.000 in',
    )
    expect(formatMessage('{a} to {b} mm', { a: 25.4, b: 50.8 }, INCHES)).toBe('1.000 to 2.000 in')
  })
  it('inside a choice is converted as well, and counts stay plain numbers', () => {
    const message = '{n, plural, one {# hole of {d} mm} other {# holes of {d} mm}}'
    expect(formatMessage(message, { n: 1, d: 25.4 }, INCHES)).toBe('1 hole of 1.000 in')
    expect(formatMessage(message, { n: 1200, d: fixed(25.4, 0) }, GERMAN)).toBe('1.200 holes of 25 mm')
  })
})

describe('a field', () => {
  const unit = fc.constantFrom('mm', 'cm', 'm', 'mm²', 'cm²', 'g', 'kg', 'ml', 'l', '°C', 'µm', 'N')
  it('keeps in its own unit what is typed in the shown one', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), unit, (v, u) => {
        expect(keptValue(shownValue(v, u, INCHES).value, u, INCHES)).toBeCloseTo(v, 6)
        expect(shownUnit(u, METRIC)).toBe(u)
      }),
    )
  })
  it('shows a number that can be typed again', () => {
    expect(plainNumber(12345.5, GERMAN)).toBe('12345,5')
    expect(plainNumber(-2.25, METRIC)).toBe('-2.25')
    expect(quantityText(3, undefined, 'mm', INCHES)).toBe('0.12 in')
  })
})

describe('a message that is sent', () => {
  it('is said with the messages inside it, in the manner of who reads it', () => {
    const turned = message('findings.trappedResin.down', {
      sides: [message('findings.trappedResin.foot'), message('findings.trappedResin.back')],
    })
    const sent = JSON.parse(
      JSON.stringify(message('findings.trappedResin.thenNext', { before: turned, next: turned })),
    ) as ReturnType<typeof message>
    expect(say(sent)).toBe('foot and back down, then foot and back down')
    const deep = message('findings.cavityHoles.atItsThinnestTheWall', { minimum: fixed(1.27, 2), wallAsked: 2.54 })
    expect(say(deep)).toBe('At its thinnest the wall is 1.27 mm; 2.54 mm was set.')
    expect(say(JSON.parse(JSON.stringify(deep)), INCHES)).toBe(
      'At its thinnest the wall is 0.0500 in; 0.1000 in was set.',
    )
  })
  it('leaves names as they were typed, and lists them', () => {
    expect(say('{not} a message')).toBe('{not} a message')
    expect(listed(['Otter', 'Base', '1.5'], METRIC)).toBe('Otter, Base and 1.5')
    expect(formatMessage('{parts} fit.', { parts: ['Otter', 'Base'] })).toBe('Otter and Base fit.')
    expect(() => say({ id: 'no.such.message' as never })).toThrow(/no\.such/)
  })
})
