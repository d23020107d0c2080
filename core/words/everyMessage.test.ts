import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { english, type MessageId } from './catalogue'
import { fixed, PSEUDO } from './format'
import { mannerNamed, mannerTag, METRIC, numberText, type Manner } from './manner'
import { isMessage, message } from './message'
import { say, sayStored, textOf } from './say'
import { spokenBody } from './spokenBody'

type Texts = { readonly [key: string]: string | Texts }
const ids = (texts: Texts, before = ''): MessageId[] =>
  Object.entries(texts).flatMap(([key, text]) =>
    typeof text === 'string' ? [(before + key) as MessageId] : ids(text, `${before}${key}.`),
  )
const all = ids(english)
/** Names of the values that stand before a unit which somebody may have chosen another for. */
const quantities = (text: string): { name: string; unit: string }[] =>
  [...text.matchAll(/\{(\w+)\} (mm|cm|g|kg|ml|l|°C|cm²|mm²)(?![\p{L}\d/³²])/gu)].map((m) => ({
    name: m[1]!,
    unit: m[2]!,
  }))
/** Every name of a message, so that it can be filled. */
const names = (text: string): string[] => [...text.matchAll(/\{(\w+)[},]/g)].map((m) => m[1]!)
const INCHES: Manner = { locale: 'en-US', length: 'in', mass: 'oz', volume: 'fl oz', temperature: '°F' }
const SHOWN: Readonly<Record<string, RegExp>> = {
  mm: /\d in\b/,
  cm: /\d in\b/,
  'mm²': /\d in²/,
  'cm²': /\d in²/,
  g: /\d oz\b/,
  kg: /\d lb\b/,
  ml: /\d fl oz\b/,
  l: /\d fl oz\b/,
  '°C': /\d °F/,
}

describe('every message with a quantity', () => {
  const measured = all.map((id) => ({ id, found: quantities(textOf(id)) })).filter((m) => m.found.length > 0)
  it('is converted, figure and unit together: none keeps the old unit, and none loses its own', () => {
    expect(measured.length).toBeGreaterThan(150)
    for (const { id, found } of measured) {
      const values = Object.fromEntries(names(textOf(id)).map((name) => [name, 1]))
      // Only what is no choice is read: the branch that is taken has to have the quantity in it.
      for (const { name } of found) values[name] = fixed(12.5, 1) as never
      const [metric, imperial] = [say(message(id, values)), say(message(id, values), INCHES)]
      for (const { unit } of found) {
        const there = new RegExp(`12\\.5 ${unit}(?![\\p{L}\\d/³²])`, 'u')
        if (!there.test(metric)) continue
        expect(imperial, id).not.toMatch(there)
        expect(imperial, id).toMatch(SHOWN[unit]!)
      }
    }
  })
  it('keeps what is text in its place: nothing is converted that was not given as a number', () => {
    for (const { id, found } of measured) {
      const values = Object.fromEntries(names(textOf(id)).map((name) => [name, 1]))
      for (const { name } of found) values[name] = 'about 3' as never
      const [metric, imperial] = [say(message(id, values)), say(message(id, values), INCHES)]
      for (const { unit } of found)
        if (metric.includes(`about 3 ${unit}`)) expect(imperial, id).toContain(`about 3 ${unit}`)
    }
  })
})

describe('a manner', () => {
  const manner = fc.record({
    locale: fc.constantFrom('en', 'en-GB', 'en-DE', 'en-US', 'en-IN', PSEUDO),
    length: fc.constantFrom('mm', 'in'),
    mass: fc.constantFrom('g', 'oz'),
    volume: fc.constantFrom('ml', 'fl oz'),
    temperature: fc.constantFrom('°C', '°F'),
  }) as fc.Arbitrary<Manner>
  it('is the same on the other side of the wire, and its tag is a language tag', () => {
    fc.assert(
      fc.property(manner, (m) => {
        expect(mannerNamed(mannerTag(m))).toEqual(m)
        expect(Intl.getCanonicalLocales(mannerTag(m))).toHaveLength(1)
      }),
    )
  })
  it('is English and metric for whoever asks for what is not understood', () => {
    for (const asked of [
      '',
      '*',
      'de-DE,de;q=0.9,en;q=0.5',
      'fr-x-in',
      '../../etc',
      'en-GB-x-furlong',
      'x'.repeat(9999),
    ])
      expect(mannerNamed(asked)).toMatchObject({ mass: 'g', volume: 'ml', temperature: '°C' })
    expect(mannerNamed('de-DE,de;q=0.9').locale).toBe('en')
    expect(mannerNamed('EN-us-X-IN, de;q=0.5')).toMatchObject({ locale: 'en-US', length: 'in' })
  })
  it('writes any number so that it is read back within its decimals', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e9, max: 1e9, noNaN: true }), fc.integer({ min: 0, max: 6 }), (v, digits) => {
        const read = Number(numberText(v, digits, METRIC).replace(/,/g, '').replace('−', '-'))
        expect(Math.abs(read - v)).toBeLessThanOrEqual(0.5000001 * 10 ** -digits + 1e-6)
      }),
    )
  })
})

describe('what is sent', () => {
  const wall = message('findings.cavityHoles.atItsThinnestTheWall', { minimum: fixed(1, 1), wallAsked: 2 })
  it('has each message said wherever it is, and is otherwise the very same thing', () => {
    const bytes = new Uint8Array([1, 2])
    const body = { id: 'a0c1', list: [{ deep: { why: wall } }, 'plain', 3, null], bytes, when: new Date(0) }
    const said = spokenBody(body, INCHES) as typeof body
    expect(said.list[0]).toEqual({ deep: { why: 'At its thinnest the wall is 0.039 in; 0.08 in was set.' } })
    expect(said.list.slice(1)).toEqual(['plain', 3, null])
    expect(said.bytes).toBe(bytes)
    expect(said.when).toBe(body.when)
    const nothing = { id: 'b.c', name: 'has a field more', list: [{ id: 'd' }] }
    expect(spokenBody(nothing)).toBe(nothing)
  })
  it('survives JSON as any record does', () => {
    fc.assert(
      fc.property(fc.json(), (json) => {
        const body = JSON.parse(json) as unknown
        fc.pre(!json.includes('"id"'))
        expect(spokenBody(body)).toEqual(body)
      }),
    )
  })
  it('of another version is told as such: an unknown name, a value that is missing, and nothing breaks', () => {
    const unknown = { id: 'problems.gone.sinceLastYear', values: { n: 1 } } as never
    expect(isMessage(unknown)).toBe(true)
    expect(() => say(unknown)).toThrow(/sinceLastYear/)
    for (const stored of [unknown, message('findings.cavityHoles.atItsThinnestTheWall', { minimum: 1 })])
      expect(sayStored(stored)).toMatch(/^Another version of Undercut said/)
    expect(spokenBody({ status: 'failed', problem: { code: 'x', message: unknown } })).toMatchObject({
      status: 'failed',
      problem: { code: 'x', message: expect.stringMatching(/^Another version/) as string },
    })
  })
})
