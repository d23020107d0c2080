import { SaidError } from '../core/words/saidError'
import { say } from '../core/words/say'
import { manner } from './manner'

/** What an error says to the user. */
export const messageOf = (e: unknown): string =>
  e instanceof SaidError ? say(e.said, manner) : e instanceof Error ? e.message : String(e)
