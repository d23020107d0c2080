import { spoken, type Finding, type SpokenFinding } from './findings/finding'
import type { Message } from './words/message'
import { spokenBody } from './words/spokenBody'

/** A finding function whose findings are said in English, as tests read them. */
export const inWords =
  <A extends readonly unknown[]>(find: (...asked: A) => Finding[]) =>
  (...asked: A): SpokenFinding[] =>
    find(...asked).map((f) => spoken(f))

type Spoken<T> = T extends Message
  ? string
  : T extends readonly (infer U)[]
    ? Spoken<U>[]
    : T extends object
      ? { [K in keyof T]: Spoken<T[K]> }
      : T
/** A function whose answer is said in English, whatever messages are in it. */
export const spokenBy =
  <A extends readonly unknown[], R>(f: (...asked: A) => R) =>
  (...asked: A): Spoken<R> =>
    spokenBody(f(...asked)) as Spoken<R>
