import { z } from 'zod'
import type { MessageId } from '../core/words/catalogue'
import { words } from './issues'

/**
 * A name that somebody gives: any script, emoji, right to left. Its length is counted in characters (code points), as who
 * typed it counts, and not in units of UTF-16.
 *
 * @param missing what is said of a name that is empty
 */
export const nameOf = (max: number, missing: MessageId) =>
  z
    .string()
    .trim()
    .min(1, words(missing))
    .superRefine((text, at) => {
      if ([...text].length > max)
        at.addIssue({ code: 'too_big', origin: 'string', maximum: max, inclusive: true, input: text })
    })
