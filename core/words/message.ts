import type { MessageId } from './catalogue'
import type { Values } from './format'

/**
 * What is to be said, before anybody says it: a message of the catalogue and its values. Values may be messages themselves,
 * or rows of them. Plain, so that it can be sent and stored.
 */
export interface Message {
  readonly id: MessageId
  readonly values?: Values
}
export const message = (id: MessageId, values?: Values): Message => (values ? { id, values } : { id })
/** Whether it is a message and not some record that has an id: those are no words with dots between them, or have more fields. */
export const isMessage = (v: unknown): v is Message =>
  typeof v === 'object' &&
  v !== null &&
  'id' in v &&
  typeof v.id === 'string' &&
  /^[a-z]\w*(\.\w[\w ]*)+$/i.test(v.id) &&
  Object.keys(v).every((key) => key === 'id' || key === 'values')
/** Sentences one after the other. */
export const sentences = (all: readonly Message[]): Message =>
  all.length === 0 ? message('problems.words.none') : all.reduce((a, b) => message('problems.words.both', { a, b }))
/** Several as a sum, "3 ochre + 1 white"; there is one at least. */
export const sum = (all: readonly Message[]): Message => all.reduce((a, b) => message('supplies.sum', { a, b }))
