import { createI18n, type MessageContext } from 'vue-i18n'
import { english, type MessageId } from '../core/words/catalogue'
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
