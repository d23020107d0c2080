import type { Problem } from '../core/answer'

/** What a command is called with, and where it speaks. */
export interface Call {
  words: readonly string[]
  /** a flag without a value stands for '' */
  flags: ReadonlyMap<string, string>
  out: (s: string) => void
  /** says why in one line, and gives the exit code back: 1 refused, 2 unreadable or misused */
  fail: (p: Problem, code: number) => number
}
export const usage = (message: string): Problem => ({ code: 'usage', message })
