import { IntlMessageFormat } from 'intl-messageformat'
import { accented } from './pseudo'

/** What a message is filled with; numbers and dates are written as the locale writes them where the message says so. */
export type Values = Readonly<Record<string, unknown>>

/** A locale that nobody speaks: English, accented and longer, to see what is not in the catalogue and what does not fit. */
export const PSEUDO = 'en-XA'

const compiled = new Map<string, IntlMessageFormat>()

/**
 * A message of the catalogue as a sentence.
 *
 * @param message in ICU MessageFormat, as "{n, plural, one {# paint} other {# paints}}"; tags are taken as they stand
 * @param locale BCP 47, for plurals, numbers and dates
 * @throws where the message is none, or a value that it needs is missing: both are faults of the program
 */
export function formatMessage(message: string, values: Values = {}, locale = 'en'): string {
  const key = `${locale} ${message}`
  let format = compiled.get(key)
  if (!format) {
    format = new IntlMessageFormat(message, locale, undefined, { ignoreTag: true })
    if (locale === PSEUDO) format = new IntlMessageFormat(accented(format.getAst()), 'en')
    compiled.set(key, format)
  }
  return format.format(values as Record<string, string>) as string
}
