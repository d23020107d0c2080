import { createI18n, type MessageContext } from 'vue-i18n'
import { english, type MessageId } from '../core/words/catalogue'
import vocabulary from '../core/words/en/vocabulary.json'
import { formatMessage, PSEUDO, type Values } from '../core/words/format'

type Texts = { readonly [key: string]: string | Texts }
type Spoken = { [key: string]: ((context: MessageContext) => string) | Spoken }

/** Messages in ICU MessageFormat as vue-i18n takes them: functions. Core and the command line read the same messages. */
const spoken = (texts: Texts, locale: string): Spoken =>
  Object.fromEntries(
    Object.entries(texts).map(([key, text]) => [
      key,
      typeof text === 'string'
        ? ({ values }: MessageContext) => formatMessage(text, values, locale)
        : spoken(text, locale),
    ]),
  )

/** What was chosen in this browser; a page is spoken in one language from its start to its end. */
const chosen = typeof localStorage === 'undefined' ? null : localStorage.getItem('undercut.language')
const locale = chosen === PSEUDO ? PSEUDO : 'en'

export const i18n = createI18n({ legacy: false, locale, messages: { [locale]: spoken(english, locale) } })

/** A message of the catalogue in the user's language; for scripts, as $t is for templates. */
export const text = (id: MessageId, values: Values = {}): string => i18n.global.t(id, values)

type Words = Omit<typeof vocabulary, 'school'>
/** What a term of a stored record is called: a technique, a kind of paint, a process. */
export const term = <K extends keyof Words>(kind: K, key: keyof Words[K] & string): string =>
  formatMessage(vocabulary[kind][key as never] as string, {}, locale)

type School = keyof typeof vocabulary.school
/** The question that a school answers, and its answers, on which practitioners differ. */
export const questionOf = (school: School): string => formatMessage(vocabulary.school[school].question, {}, locale)
export const choicesOf = <S extends School>(school: S): (typeof vocabulary.school)[S]['choices'] =>
  Object.fromEntries(
    Object.entries(vocabulary.school[school].choices).map(([key, text]) => [key, formatMessage(text, {}, locale)]),
  ) as (typeof vocabulary.school)[S]['choices']
