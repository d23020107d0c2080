import type { z } from 'zod'
import type { Answer } from '../core/answer'
import { issueSaid } from './issues'

/** Reads a value by a schema; what is wrong is said in a sentence, with the field that it is about. */
export const readBy =
  <S extends z.ZodType>(schema: S) =>
  (value: unknown): Answer<z.output<S>> => {
    const r = schema.safeParse(value)
    if (r.success) return { ok: true, value: r.data }
    return { ok: false, problem: { code: 'invalid', message: issueSaid(r.error.issues[0]!) } }
  }
