import { converted } from './units'

/** How numbers, dates and quantities are written: by a locale, in the units that somebody thinks in. */
export interface Manner {
  /** BCP 47; for plurals, numbers and dates */
  locale: string
  length: 'mm' | 'in'
  mass: 'g' | 'oz'
  volume: 'ml' | 'fl oz'
  temperature: '°C' | '°F'
}
/**
 * A manner as a language tag, for the header Accept-Language: units that are not metric follow as private subtags (RFC 5646,
 * 2.2.7), "en-DE-x-in-oz".
 */
export const mannerTag = (m: Manner): string => {
  const units = [m.length, m.mass, m.volume, m.temperature].flatMap((u) => SUBTAGS[u] ?? [])
  return units.length > 0 ? `${m.locale}-x-${units.join('-')}` : m.locale
}
const SUBTAGS: Readonly<Record<string, string>> = { in: 'in', oz: 'oz', 'fl oz': 'floz', '°F': 'f' }
/** The manner that a tag names, as far as it is understood: others speak English, in metric units. */
export function mannerNamed(tag: string): Manner {
  const first = tag.split(',')[0]!.split(';')[0]!.trim()
  const [locale = '', units = ''] = first.split(/-x-/i)
  const has = (u: string): boolean => units.toLowerCase().split('-').includes(u)
  return {
    locale: /^en(-[a-z]{2})?$/i.test(locale) ? Intl.getCanonicalLocales(locale)[0]! : 'en',
    length: has('in') ? 'in' : 'mm',
    mass: has('oz') ? 'oz' : 'g',
    volume: has('floz') ? 'fl oz' : 'ml',
    temperature: has('f') ? '°F' : '°C',
  }
}

export const METRIC: Manner = { locale: 'en', length: 'mm', mass: 'g', volume: 'ml', temperature: '°C' }

/**
 * Of units that somebody may have chosen others for: which, and how many more decimals the other needs to be no coarser.
 * Micrometres stay, and so do newtons and densities: layers and pixels are given in µm wherever one prints.
 */
const OTHERS: Readonly<Record<string, (m: Manner) => readonly [unit: string, decimals: number] | null>> = {
  mm: (m) => (m.length === 'in' ? ['in', 2] : null),
  cm: (m) => (m.length === 'in' ? ['in', 1] : null),
  m: (m) => (m.length === 'in' ? ['ft', 1] : null),
  'mm²': (m) => (m.length === 'in' ? ['in²', 3] : null),
  'cm²': (m) => (m.length === 'in' ? ['in²', 1] : null),
  g: (m) => (m.mass === 'oz' ? ['oz', 2] : null),
  kg: (m) => (m.mass === 'oz' ? ['lb', 1] : null),
  ml: (m) => (m.volume === 'fl oz' ? ['fl oz', 2] : null),
  l: (m) => (m.volume === 'fl oz' ? ['fl oz', 0] : null),
  '°C': (m) => (m.temperature === '°F' ? ['°F', 0] : null),
}

/** The unit in which a quantity is shown that is kept in `unit`. */
export const shownUnit = (unit: string, m: Manner): string => OTHERS[unit]?.(m)?.[0] ?? unit
/** A value as it is shown, and how many more decimals it then needs. */
export function shownValue(value: number, unit: string, m: Manner): { value: number; unit: string; more: number } {
  const other = OTHERS[unit]?.(m)
  return other ? { value: converted(value, unit, other[0])!, unit: other[0], more: other[1] } : { value, unit, more: 0 }
}
/** What was shown or typed in the shown unit, in the unit in which it is kept. */
export const keptValue = (shown: number, unit: string, m: Manner): number =>
  converted(shown, shownUnit(unit, m), unit) ?? shown

const formats = new Map<string, Intl.NumberFormat>()
function numberFormat(locale: string, digits: number | undefined, useGrouping: boolean): Intl.NumberFormat {
  const key = `${locale} ${digits} ${useGrouping}`
  let found = formats.get(key)
  if (!found) {
    const decimals =
      digits === undefined
        ? { maximumFractionDigits: 12 }
        : { minimumFractionDigits: digits, maximumFractionDigits: digits }
    formats.set(key, (found = new Intl.NumberFormat(locale, { useGrouping, ...decimals })))
  }
  return found
}
/**
 * A number as the locale writes it, with a true minus sign.
 *
 * @param digits decimals that are always shown; undefined: as many as it has
 */
export function numberText(value: number, digits: number | undefined, m: Manner): string {
  const { format } = numberFormat(m.locale, digits, true)
  // "−0.0" says nothing that "0.0" does not.
  return format(value)
    .replace(/^[-−](?=[0.,]*$)/, '')
    .replace('-', '−')
}

/** A quantity that is kept in `unit`, with the unit in which it is shown: "3.20 mm" or "0.1260 in". */
export function quantityText(value: number, digits: number | undefined, unit: string, m: Manner): string {
  const shown = shownValue(value, unit, m)
  const decimals = digits === undefined && shown.more > 0 ? decimalsOf(value) : digits
  return `${numberText(shown.value, decimals === undefined ? undefined : decimals + shown.more, m)} ${shown.unit}`
}
/** Decimals that a number is written with. */
const decimalsOf = (value: number): number => (/\.(\d+)$/.exec(String(value))?.[1] ?? '').length

/** A number as it stands in a field that is typed into: without groups, with the decimal mark of the locale. */
export const plainNumber = (value: number, m: Manner): string => numberFormat(m.locale, undefined, false).format(value)
