import { say, type Said } from './say'

/** An error that says what is wrong with what somebody gave: whoever catches it says its message in the reader's language. */
export class SaidError extends Error {
  constructor(readonly said: Said) {
    super(say(said))
  }
}
