import { createI18n, type MessageContext } from 'vue-i18n'
import { english, type MessageId } from '../core/words/catalogue'
import vocabulary from '../core/words/en/vocabulary.json' with { type: 'json' }
import { formatMessage, type Values } from '../core/words/format'
import { manner } from './manner'

export { fixed, told, type Fixed } from '../core/words/format'

type Texts = { readonly [key: string]: string | Texts }
type Spoken = { [key: string]: ((context: MessageContext) => string) | Spoken }

/** Messages in ICU MessageFormat as vue-i18n takes them: functions. Core and the command line read the same messages. */
const spoken = (texts: Texts): Spoken =>
  Object.fromEntries(
    Object.entries(texts).map(([key, text]) => [
      key,
      typeof text === 'string' ? ({ values }: MessageContext) => formatMessage(text, values, manner) : spoken(text),
    ]),
  )

export const i18n = createI18n({
  legacy: false,
  locale: manner.locale,
  messages: { [manner.locale]: spoken(english) },
})

/** A message of the catalogue in the user's language; for scripts, as $t is for templates. */
export const text = (id: MessageId, values: Values = {}): string => i18n.global.t(id, values)

type Words = Omit<typeof vocabulary, 'school'>
/** What a term of a stored record is called: a technique, a kind of paint, a process. */
export const term = <K extends keyof Words>(kind: K, key: keyof Words[K] & string): string =>
  formatMessage(vocabulary[kind][key as never] as string, {}, manner)

type School = keyof typeof vocabulary.school
/** The question that a school answers, and its answers, on which practitioners differ. */
export const questionOf = (school: School): string => formatMessage(vocabulary.school[school].question, {}, manner)
export const choicesOf = <S extends School>(school: S): (typeof vocabulary.school)[S]['choices'] =>
  Object.fromEntries(
    Object.entries(vocabulary.school[school].choices).map(([key, text]) => [key, formatMessage(text, {}, manner)]),
  ) as (typeof vocabulary.school)[S]['choices']
