import type { Problem } from '../core/answer'
import type { MessageId } from '../core/words/catalogue'
import type { Values } from '../core/words/format'
import { message } from '../core/words/message'
import { say } from '../core/words/say'

/** What a command is called with, and where it speaks. */
export interface Call {
  words: readonly string[]
  /** a flag without a value stands for '' */
  flags: ReadonlyMap<string, string>
  out: (s: string) => void
  /** says why in one line, and gives the exit code back: 1 refused, 2 unreadable or misused */
  fail: (p: Problem, code: number) => number
}
export const usage = (id: MessageId, values?: Values): Problem => ({ code: 'usage', message: message(id, values) })
/** A line of what a command tells. */
export const line = (id: MessageId, values?: Values): string => say(message(id, values))

/** A title, and rows of a name and a value. */
export const table = (title: string, rows: readonly (readonly [name: string, value: string])[]): string =>
  `${title}\n${rows.map(([k, v]) => `  ${k.padEnd(30)}${v}`).join('\n')}\n`
