import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { IntlMessageFormat } from 'intl-messageformat'
import { describe, expect, it } from 'vitest'
import { english } from './catalogue'
import { UNUSED_WORDS } from './unusedWords.mjs'
import { formatMessage, PSEUDO } from './format'
import { METRIC } from './manner'

const NOBODYS = { ...METRIC, locale: PSEUDO }
type Texts = { readonly [key: string]: string | Texts }
const leaves = (texts: Texts, before = ''): [string, string][] =>
  Object.entries(texts).flatMap(([key, text]) =>
    typeof text === 'string' ? [[before + key, text] as [string, string]] : leaves(text, `${before}${key}.`),
  )
const all = leaves(english)
const root = join(import.meta.dirname, '..', '..')
const sources = ['web', 'core', 'cli', 'server', 'contract'].flatMap((room) =>
  readdirSync(join(root, room), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(ts|vue)$/.test(file) && !file.endsWith('.test.ts'))
    .map((file) => [`${room}/${file}`, readFileSync(join(root, room, file), 'utf8')] as const),
)
type Elements = ReturnType<IntlMessageFormat['getAst']>
/** Names of the values that a message is filled with; all but literals and "#" have one. */
const named = (elements: Elements): string[] =>
  elements.flatMap((e) => [
    ...(e.type === 0 || e.type === 7 ? [] : [e.value]),
    ...('options' in e ? Object.values(e.options).flatMap((option) => named(option.value)) : []),
  ])
const needs = (message: string): Set<string> =>
  new Set(named(new IntlMessageFormat(message, 'en', undefined, { ignoreTag: true }).getAst()))
/** What is between a bracket that has been opened and the one that closes it. */
function inside(source: string, from: number): string {
  let depth = 1,
    i = from
  for (; depth > 0; i++) depth += '({['.includes(source[i]!) ? 1 : ')}]'.includes(source[i]!) ? -1 : 0
  return source.slice(from, i - 1)
}
const calls = sources.flatMap(([file, source]) =>
  [
    ...source.matchAll(
      /(?:\$t|\btext|\bmessage|\bwords|\bnameOf|\bline|\busage)\((?:\d+, )?\s*'([a-z]\w*(?:\.\w+)+)'/g,
    ),
  ].map((m) => ({
    file,
    id: m[1]!,
    given: inside(source, m.index + m[0].indexOf('(') + 1),
  })),
)

describe('the catalogue', () => {
  it('has every message that the program asks for, and none that nobody asks for', () => {
    const known = new Map(all)
    expect(calls.filter((c) => !known.has(c.id)).map((c) => `${c.file}: ${c.id}`)).toEqual([])
    const asked = new Set(calls.map((c) => c.id))
    // Terms of stored records are found by the words that are stored, colours by their keys.
    const unused = all.filter(
      ([id]) => !asked.has(id) && !id.startsWith('vocabulary.') && !id.startsWith('names.starter.colours.'),
    )
    expect(unused.map(([id]) => id)).toEqual([])
  })
  it('is given every value that its messages name', () => {
    const known = new Map(all)
    const missing = calls.flatMap(({ file, id, given }) =>
      [...needs(known.get(id) ?? '')]
        .filter((name) => !new RegExp(`\\b${name}\\b`).test(given.slice(id.length + 2)))
        .map((name) => `${file}: ${id} without ${name}`),
    )
    expect(missing).toEqual([])
  })
  it('has no word of the list of those that are not used, and neither have guide and changes', () => {
    const unused = new RegExp(`(^|[^a-zA-Z$.{'/-])${UNUSED_WORDS}([^a-zA-Z('-]|$)`, 'i')
    expect(unused.test(`Not ${UNUSED_WORDS.slice(1).split('|')[0]}.`)).toBe(true)
    expect(all.filter(([, message]) => unused.test(message)).map(([id]) => id)).toEqual([])
    for (const file of ['README.md', 'CHANGELOG.md', 'docs/guide.md', 'docs/devices.md']) {
      const lines = readFileSync(join(root, file), 'utf8').split('\n')
      expect(lines.filter((line) => unused.test(line))).toEqual([])
    }
  })
  it('is readable throughout, with any number', () => {
    for (const [id, message] of all)
      for (const n of [0, 1, 2.5, 1000]) {
        const values = Object.fromEntries([...needs(message)].map((name) => [name, n]))
        expect(formatMessage(message, values), id).not.toMatch(/undefined|\{\w+\}/)
      }
  })
})

describe('a message', () => {
  it('counts as its language does', () => {
    const paints = '{n, plural, one {# paint} other {# paints}}'
    expect([0, 1, 2].map((n) => formatMessage(paints, { n }))).toEqual(['0 paints', '1 paint', '2 paints'])
    const russian = '{n, plural, one {# краска} few {# краски} other {# красок}}'
    expect([1, 3, 7].map((n) => formatMessage(russian, { n }, { ...METRIC, locale: 'ru' }))).toEqual([
      '1 краска',
      '3 краски',
      '7 красок',
    ])
  })
  it('in the locale that nobody speaks is longer and accented, with its values and its choices as they are', () => {
    const cut = '{n, plural, one {# part} other {# parts}} of {name} fit {where, select, open {outside} other {inside}}'
    const values = { n: 2, name: 'Otter', where: 'open' }
    const spoken = formatMessage(cut, values, NOBODYS)
    expect(spoken).toMatch(/^2 þåŕţš öƒ Otter ƒîţ öûţšîđé ~/)
    expect(spoken.length).toBeGreaterThan(1.1 * formatMessage(cut, values).length)
    for (const [id, message] of all) {
      const filled = Object.fromEntries([...needs(message)].map((name) => [name, 3]))
      expect(formatMessage(message, filled, NOBODYS), id).not.toMatch(/[a-z]{3}(?=[^~]* ~)/)
    }
  })
  it('without a value that it names is a fault, not a sentence with a hole', () => {
    expect(() => formatMessage('{n} mm')).toThrow(/n/)
  })
})
