import type { z } from 'zod'
import type { MessageId } from '../core/words/catalogue'
import { message } from '../core/words/message'
import { say, type Said } from '../core/words/say'

/** A sentence of a schema: Zod carries it as text, and it is said when somebody reads it. */
export const words = (id: MessageId): string => id
/** Whether a schema's own sentence is one of the catalogue. */
const OWN = /^forms\.\w+$/

/**
 * What is wrong with a value: the field by its own name, and the limit that it is beyond where it has one. Where in the
 * request the field is says the `field` of a problem, for programs.
 *
 * @param named false where it is shown beside its field
 */
export function issueSaid(issue: z.core.$ZodIssue, named = true): Said {
  const at = issue.path.findLast((p) => typeof p === 'string')
  const field = at === undefined || !named ? 'none' : String(at)
  if (OWN.test(issue.message)) {
    const own = message(issue.message as MessageId)
    return field === 'none' ? own : message('forms.ofField', { field, message: own })
  }
  const small = issue.code === 'too_small'
  // A schema's own sentence says more than the limit.
  if ((small || issue.code === 'too_big') && /^Too (small|big)/.test(issue.message)) {
    const limit = Number(small ? issue.minimum : issue.maximum)
    if (issue.origin === 'number' || issue.origin === 'int') {
      const bound = small ? (issue.inclusive ? 'atLeast' : 'moreThan') : issue.inclusive ? 'atMost' : 'lessThan'
      return message('forms.limit', { field, bound, limit })
    }
    if (issue.origin === 'string' && small) return message('forms.tooShort', { field, limit })
    if (issue.origin === 'string')
      // How long it is can be said where Zod was asked to report what it read.
      return message('forms.tooLong', { field, limit, length: [...String(issue.input ?? '')].length })
  }
  return `${field === 'none' ? '' : `${field}: `}${issue.message.replace(/\.$/, '')}.`
}
/** The same in English, as the command line says it. */
export const issueSentence = (issue: z.core.$ZodIssue): string => say(issueSaid(issue))
