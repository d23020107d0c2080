import { english, type MessageId } from './catalogue'
import { formatMessage, type Values } from './format'
import { isMessage, message, type Message } from './message'
import { METRIC, type Manner } from './manner'

const texts = new Map<string, string>()
/** A message of the catalogue by its name, as it stands there. @throws where there is none: a fault of the program */
export function textOf(id: MessageId): string {
  let found = texts.get(id)
  if (found === undefined) {
    const at = id.split('.').reduce<unknown>((t, key) => (t as Record<string, unknown> | undefined)?.[key], english)
    if (typeof at !== 'string') throw new Error(`The catalogue has no message ${id}.`)
    texts.set(id, (found = at))
  }
  return found
}

/** A value in which messages are sentences by now. */
const spokenValue = (v: unknown, m: Manner): unknown =>
  isMessage(v) ? say(v, m) : Array.isArray(v) ? v.map((x) => spokenValue(x, m)) : v
const spokenValues = (values: Values, m: Manner): Values =>
  Object.fromEntries(Object.entries(values).map(([name, v]) => [name, spokenValue(v, m)]))

/** What is said by a message; text that somebody typed, as a name, is its own message. */
export type Said = Message | string
/** A message as a sentence; what is text already stays as it is. */
export const say = (said: Said, m: Manner = METRIC): string =>
  typeof said === 'string' ? said : formatMessage(textOf(said.id), spokenValues(said.values ?? {}, m), m)

/**
 * The same of what was stored or sent: another version of the program may have called its messages otherwise, or filled
 * them with other values. Then it is said that the sentence is not known here, and nothing is lost but its words.
 */
export function sayStored(said: Said, m: Manner = METRIC): string {
  try {
    return say(said, m)
  } catch {
    return say(message('problems.words.ofAnotherVersion'), m)
  }
}
