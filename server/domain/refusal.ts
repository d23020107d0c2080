import { say, type Said } from '../../core/words/say'
import { message } from '../../core/words/message'

/** A request that is refused: an HTTP status, a stable code and a sentence that a bench worker understands. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    /** said to who asked in his own language and units */
    readonly said: Said,
    readonly extra: Record<string, unknown> = {},
  ) {
    super(say(said))
  }
}
/** What may be gone; a name in the message for each. */
type Gone =
  | 'address'
  | 'mesh'
  | 'result'
  | 'file'
  | 'layer'
  | 'part'
  | 'flaw'
  | 'device'
  | 'run'
  | 'partOnPlate'
  | 'sculpt'
  | 'mix'
  | 'item'
  | 'piece'
  | 'listPiece'
  | 'original'
  | 'plate'
  | 'resin'
  | 'printer'
  | 'partNamed'
export const notFound = (what: Gone, name = ''): Refusal =>
  new Refusal(404, 'not-found', message('refusals.refusal.isNotThereAnyMore', { what, name }))
export const stale = (current: unknown): Refusal =>
  new Refusal(409, 'stale-version', message('refusals.refusal.thisWasChangedInAnother'), {
    current,
  })
