import type { z } from 'zod'

/**
 * What is wrong with a value, as a sentence: the field by its own name, and the limit that it is beyond where it has one.
 * Where in the request the field is says the `field` of a problem, for programs.
 */
export function issueSentence(issue: z.core.$ZodIssue): string {
  const at = issue.path.findLast((p) => typeof p === 'string')
  const field = at === undefined ? '' : `${String(at)}: `
  if (
    (issue.code === 'too_small' || issue.code === 'too_big') &&
    (issue.origin === 'number' || issue.origin === 'int') &&
    // A schema's own sentence says more than the limit.
    /^Too (small|big)/.test(issue.message)
  ) {
    const limit = issue.code === 'too_small' ? issue.minimum : issue.maximum
    const bound =
      issue.code === 'too_small'
        ? issue.inclusive
          ? 'at least'
          : 'more than'
        : issue.inclusive
          ? 'at most'
          : 'less than'
    return `${field}it must be ${bound} ${limit}.`
  }
  return `${field}${issue.message.replace(/\.$/, '')}.`
}
