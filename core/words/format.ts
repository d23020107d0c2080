import { IntlMessageFormat } from 'intl-messageformat'
import { METRIC, numberText, quantityText, type Manner } from './manner'
import { accented } from './pseudo'

type Elements = ReturnType<IntlMessageFormat['getAst']>
type Element = Elements[number]

/** A number with so many decimals, which each locale writes in its own way; plain, so that it can be sent and stored. */
export interface Fixed {
  readonly fixed: number
  readonly digits: number
}
export const fixed = (value: number, digits: number): Fixed => ({ fixed: value, digits })
/** The same with more decimals where fewer would leave nothing of it: 0.003 is not 0.0. */
export const told = (value: number, digits: number): Fixed =>
  fixed(value, value === 0 ? digits : Math.max(digits, 1 - Math.floor(Math.log10(Math.abs(value)))))
const isFixed = (v: unknown): v is Fixed => typeof v === 'object' && v !== null && 'fixed' in v && 'digits' in v

/** What a message is filled with: text as it is; numbers, alone or in a row, are written as the locale writes them. */
export type Values = Readonly<Record<string, unknown>>

/** A locale that nobody speaks: English, accented and longer, to see what is not in the catalogue and what does not fit. */
export const PSEUDO = 'en-XA'

/** A value that is shown as it is, with the unit that follows it in the message. */
interface Shown {
  key: string
  name: string
  unit: string
}
interface Compiled {
  format: IntlMessageFormat
  shown: Shown[]
}
const compiled = new Map<string, Compiled>()

/** Units that stand behind a value and may be shown in others. */
const UNIT = /^\s(mm²|mm|cm²|cm|m|g|kg|ml|l|°C)(?![\p{L}\d/³²])/u
/** What stands between two values of one unit, as in "12 × 8 mm" or "2 to 3 mm". */
const BETWEEN = /^(\s?[×–,/]\s?|\sto\s|\sby\s|\sand\s)$/
/** A number that the sentence itself names, with its unit: "a hole of 2 mm or more". */
const SPOKEN = /(?<![\w.,])(\d+(?:\.\d+)?) (mm|cm|ml|g|kg|°C)(?![\p{L}\d/³²])/gu

/** Takes the units of values out of the text that follows them: they belong to the value, and change with it. */
function withUnits(elements: Elements, shown: Shown[], manner: Manner): Elements {
  const out: Element[] = elements.map((e) =>
    'options' in e
      ? ({
          ...e,
          options: Object.fromEntries(
            Object.entries(e.options).map(([k, o]) => [k, { ...o, value: withUnits(o.value, shown, manner) }]),
          ),
        } as Element)
      : e,
  )
  for (let i = out.length - 1; i >= 0; i--) {
    const e = out[i]!
    if (e.type === 0) {
      out[i] = { ...e, value: e.value.replace(SPOKEN, (_, n, u) => quantityText(Number(n), undefined, u, manner)) }
      continue
    }
    if (e.type !== 1) continue
    const next = out[i + 1]
    const own = next?.type === 0 ? (UNIT.exec(next.value)?.[1] ?? '') : ''
    if (own !== '') out[i + 1] = { ...next, value: (next as { value: string }).value.slice(own.length + 1) } as Element
    const key = `${e.value}\u0000${own}`
    out[i] = { ...e, value: key }
    shown.push({ key, name: e.value, unit: own })
    for (let k = i; own !== '' && k >= 2; k -= 2) {
      const [text, before] = [out[k - 1]!, out[k - 2]!]
      if (text.type !== 0 || !BETWEEN.test(text.value) || before.type !== 1) break
      // Converted like its neighbour, whose unit is said once.
      const bare = `${before.value}\u0000${own}\u0000`
      out[k - 2] = { ...before, value: bare }
      shown.push({ key: bare, name: before.value, unit: own })
      i = k - 2
    }
  }
  return out
}

function compile(message: string, manner: Manner): Compiled {
  const shown: Shown[] = []
  const pseudo = manner.locale === PSEUDO
  const locale = pseudo ? 'en' : manner.locale
  let ast = new IntlMessageFormat(message, locale, undefined, { ignoreTag: true }).getAst()
  ast = withUnits(ast, shown, manner)
  return { format: new IntlMessageFormat(pseudo ? accented(ast) : ast, locale), shown }
}

/** Letters that run from right to left: Hebrew, Arabic and their neighbours, and their forms for presentation. */
const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/
/** A name that runs the other way keeps to itself: without the marks it would pull the signs beside it along (UAX 9, 2.4). */
const isolated = (text: string): string => (RIGHT_TO_LEFT.test(text) ? `\u2068${text}\u2069` : text)

/** Several in a row, "a, b and c". */
export const listed = (all: readonly string[], m: Manner): string =>
  new Intl.ListFormat(m.locale.startsWith('en') ? 'en-GB' : m.locale, { type: 'conjunction' }).format(all)

/** One value as it is shown in the middle of a sentence. */
function shownText(v: unknown, unit: string, bare: boolean, manner: Manner): string {
  if (Array.isArray(v)) {
    // Names are listed as the language lists; numbers in a row are sides of one thing.
    if (v.some((x) => typeof x === 'string'))
      return listed(
        v.map((x) => shownText(x, '', true, manner)),
        manner,
      )
    return v.map((x, i) => shownText(x, unit, bare || i < v.length - 1, manner)).join(' × ')
  }
  const [value, digits] = isFixed(v) ? [v.fixed, v.digits] : [v, undefined]
  if (typeof value !== 'number') return unit && !bare ? `${String(v)} ${unit}` : isolated(String(v))
  if (!unit) return numberText(value, digits, manner)
  const text = quantityText(value, digits, unit, manner)
  return bare ? text.slice(0, text.indexOf(' ')) : text
}

/**
 * A message of the catalogue as a sentence.
 *
 * A value that is followed by a unit, as in "{length} mm", is a quantity in that unit: it is shown in the unit that the
 * manner asks for, if it was given as a number.
 *
 * @param message in ICU MessageFormat, as "{n, plural, one {# paint} other {# paints}}"; tags are taken as they stand
 * @throws where the message is none, or a value that it needs is missing: both are faults of the program
 */
export function formatMessage(message: string, values: Values = {}, manner: Manner = METRIC): string {
  const key = `${manner.locale} ${manner.length} ${manner.mass} ${manner.volume} ${manner.temperature} ${message}`
  let found = compiled.get(key)
  if (!found) compiled.set(key, (found = compile(message, manner)))
  const given: Record<string, unknown> = { ...values }
  for (const [name, v] of Object.entries(given)) if (isFixed(v)) given[name] = v.fixed
  for (const s of found.shown)
    if (s.name in values)
      given[s.key] = shownText(values[s.name], s.unit, s.key.endsWith('\u0000') && s.unit !== '', manner)
  return found.format.format(given as Record<string, string>) as string
}
