/** A day as it is kept: "2026-11-30". */
const iso = (year: number, month: number, day: number): string | null => {
  const date = new Date(Date.UTC(year, month - 1, day))
  // A month is counted on by the calendar: the 31st of April would be the 1st of May.
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day && year >= 1900 && year < 2200
    ? [year, month, day].map((v) => String(v).padStart(2, '0')).join('-')
    : null
}
type Field = 'day' | 'month' | 'year'
/** In which order a region writes day, month and year, all in numbers or with the month by its name. */
const orderOf = (locale: string, dateStyle: 'short' | 'long'): Field[] =>
  new Intl.DateTimeFormat(locale, { dateStyle })
    .formatToParts(new Date(2026, 10, 30))
    .flatMap((p) => (p.type === 'day' || p.type === 'month' || p.type === 'year' ? [p.type] : []))

/** Months by their first three letters. */
const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ')

/**
 * Reads a day as somebody types it: "30/11/2026" or "11/30/26" as the region orders them, "30.11.", "30 Nov", "Nov 30,
 * 2026", or "2026-11-30" anywhere. A year that is not given is this year's; of two digits it is in this century.
 *
 * @param locale BCP 47, for the order of the numbers
 * @param today "2026-11-30"
 * @returns the day as "2026-11-30", or null of what is none
 */
export function dateTyped(text: string, locale: string, today: string): string | null {
  const typed = text.trim().toLowerCase()
  const thisYear = Number(today.slice(0, 4))
  const whole = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed)
  if (whole) return iso(Number(whole[1]), Number(whole[2]), Number(whole[3]))
  if (!/^[\p{L}\d\s.,/-]+$/u.test(typed)) return null
  const words = typed.match(/\p{L}+/gu) ?? []
  const numbers = typed.match(/\d+/g) ?? []
  const month = MONTHS.findIndex((m) => words.some((w) => w.length >= 3 && w.startsWith(m))) + 1
  const order = month > 0 ? orderOf(locale, 'long').filter((f) => f !== 'month') : orderOf(locale, 'short')
  // Four figures are a year, wherever they are.
  const year4 = numbers.findIndex((n) => n.length === 4)
  if (year4 >= 0 && order[year4] !== 'year') {
    order.splice(order.indexOf('year'), 1)
    order.splice(year4, 0, 'year')
  }
  if (numbers.length === 0 || numbers.length > order.length || (words.length > 0 && month === 0)) return null
  const named = numbers.length === order.length ? order : order.filter((f) => f !== 'year')
  if (numbers.length !== named.length) return null
  const value = Object.fromEntries(named.map((f, i) => [f, Number(numbers[i])])) as Partial<Record<Field, number>>
  const year = value.year ?? thisYear
  return iso(year < 100 ? 2000 + year : year, month > 0 ? month : value.month!, value.day!)
}

/** Reads a time of day, "9:05", "21.30", "9 pm" or "0905", as "09:05"; null of what is none. */
export function timeTyped(text: string): string | null {
  const m = /^(\d{1,2})(?:[:.h]?(\d{2}))?\s*(am|pm|a\.m\.|p\.m\.)?$/i.exec(text.trim())
  if (!m) return null
  const half = m[3]?.[0]?.toLowerCase()
  const hour = Number(m[1]),
    minute = Number(m[2] ?? 0)
  if (minute > 59 || hour > (half ? 12 : 23) || (half && hour === 0)) return null
  const of24 = half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour
  return `${String(of24).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}

/** Reads a day and a time after it, "30/11/2026, 14:05", as "2026-11-30T14:05"; null of what is none. */
export function momentTyped(text: string, locale: string, today: string): string | null {
  const m = /^(.*?)[\s,t]+(\d{1,2}(?:[:.h]\d{2})?\s*(?:am|pm|a\.m\.|p\.m\.)?)$/i.exec(text.trim())
  const [day, time] = m ? [dateTyped(m[1]!, locale, today), timeTyped(m[2]!)] : [null, null]
  return day && time ? `${day}T${time}` : null
}

/** A day, a time or both in numbers, as the region writes them and `dateTyped`, `timeTyped` and `momentTyped` read them. */
export function typedAs(kept: string, locale: string): string {
  const [day, time] = kept.includes('T') ? kept.split('T') : kept.includes(':') ? ['', kept] : [kept, '']
  const at = new Date(`${day || '2026-01-01'}T${time || '12:00'}Z`)
  const format = (options: Intl.DateTimeFormatOptions): string =>
    new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' }).format(at).replace(/[\u00a0\u202f]/g, ' ')
  return [
    ...(day ? [format({ day: '2-digit', month: '2-digit', year: 'numeric' })] : []),
    ...(time ? [format({ hour: '2-digit', minute: '2-digit' })] : []),
  ].join(', ')
}
