import { mannerTag, METRIC, numberText, quantityText, shownUnit, shownValue, type Manner } from '../core/words/manner'
import { PSEUDO } from '../core/words/format'

/** What somebody chose in this browser, each by its own key of the local storage. */
export const CHOICES = {
  language: 'undercut.language',
  region: 'undercut.region',
  length: 'undercut.length',
  mass: 'undercut.mass',
  volume: 'undercut.volume',
  temperature: 'undercut.temperature',
} as const
const chosen = (key: keyof typeof CHOICES): string | null =>
  typeof localStorage === 'undefined' ? null : localStorage.getItem(CHOICES[key])

/** The region that the browser is set to, as "DE"; the language of the texts is not its business. */
export const browserRegion = (): string | undefined =>
  typeof navigator === 'undefined' ? undefined : new Intl.Locale(navigator.language || 'en').region

/** English as it is written in a region: "en-DE" has 1.234,5 and 30 Nov. */
const localeOf = (region: string | null | undefined): string => {
  const locale = region ? `en-${region}` : 'en'
  return Intl.NumberFormat.supportedLocalesOf(locale).length > 0 ? locale : 'en'
}

/** How this page writes, from its start to its end: another choice loads it again, so that texts in constants are right too. */
export const manner: Manner = {
  locale: chosen('language') === PSEUDO ? PSEUDO : localeOf(chosen('region') ?? browserRegion()),
  length: chosen('length') === 'in' ? 'in' : METRIC.length,
  mass: chosen('mass') === 'oz' ? 'oz' : METRIC.mass,
  volume: chosen('volume') === 'fl oz' ? 'fl oz' : METRIC.volume,
  temperature: chosen('temperature') === '°F' ? '°F' : METRIC.temperature,
}

/**
 * A number as one reads it here.
 *
 * @param unit in which it is kept: it is shown in the unit that was chosen for such, whose name is `unitName(unit)`
 */
export const figure = (value: number, digits?: number, unit = ''): string => {
  const shown = shownValue(value, unit, manner)
  return numberText(shown.value, digits === undefined ? undefined : digits + shown.more, manner)
}
/** A number with its unit, "3.2 mm". */
export const quantity = (value: number, digits: number | undefined, unit: string): string =>
  quantityText(value, digits, unit, manner)
/** Values as a chart shows them, in the unit that was chosen for such. */
export const charted = (unit: string, values: readonly number[]): number[] =>
  values.map((v) => shownValue(v, unit, manner).value)
/** The unit in which what is kept in `unit` is shown, for the head of a column or an axis. */
export const unitName = (unit: string): string => shownUnit(unit, manner)

/** The locale of dates and times. */
export const dateLocale = manner.locale === PSEUDO ? 'en' : manner.locale
const locale = dateLocale
/** "09:00" where a day has 24 hours, "9:00 AM" where it has twice twelve. */
const hour =
  new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions().hourCycle === 'h23' ? '2-digit' : 'numeric'
const STYLES = {
  /** 30 Nov */
  day: { day: 'numeric', month: 'short' },
  /** 30 Nov 26 */
  dayOfYear: { day: 'numeric', month: 'short', year: '2-digit' },
  /** Mon 30 */
  weekdayNumber: { weekday: 'short', day: 'numeric' },
  /** Mon, 30 Nov */
  weekday: { weekday: 'short', day: 'numeric', month: 'short' },
  /** Monday, 30 November */
  longDay: { weekday: 'long', day: 'numeric', month: 'long' },
  /** 30 Nov 2026 */
  date: { dateStyle: 'medium' },
  /** 30 Nov 2026, 14:05 */
  moment: { dateStyle: 'medium', timeStyle: 'short' },
  /** 14:05 */
  time: { hour, minute: '2-digit' },
  /** Mon 14:05 */
  weekdayTime: { weekday: 'short', hour, minute: '2-digit' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>
const dates = new Map<string, Intl.DateTimeFormat>()
/** A day or a time as one reads it here; a day without a time is that day wherever one is. */
export function dateText(at: Date | string | number, style: keyof typeof STYLES): string {
  let format = dates.get(style)
  if (!format) dates.set(style, (format = new Intl.DateTimeFormat(locale, STYLES[style])))
  const date = new Date(typeof at === 'string' && at.length === 10 ? `${at}T12:00` : at)
  if (style !== 'weekdayNumber') return format.format(date)
  // The weekday comes first wherever one is: the rows of a calendar are read by it.
  const part = Object.fromEntries(format.formatToParts(date).map((p) => [p.type, p.value]))
  return `${part.weekday} ${part.day}`
}
/** "18:00–18:15" */
export const timeRange = (from: number, to: number): string =>
  new Intl.DateTimeFormat(locale, STYLES.time).formatRange(from, to).replace(/\s*–\s*/, '–')
/** How the server is asked to speak to this page. */
export const acceptLanguage = mannerTag(manner)
/** The day with which a week begins here: 1 is Monday, 7 is Sunday. */
export const firstWeekday = (): number => {
  const own = new Intl.Locale(locale).maximize() as Intl.Locale & {
    getWeekInfo?(): { firstDay: number }
    weekInfo?: { firstDay: number }
  }
  return own.getWeekInfo?.().firstDay ?? own.weekInfo?.firstDay ?? 1
}
