import type { Said } from './words/say'

/**
 * Answers and problems. A bad file, a hole that misses, a colour that no mix reaches are answers, not
 * exceptions: functions that a user's data can defeat return an `Answer`. Exceptions are for bugs and for
 * cancelling.
 */
export interface Problem {
  /** Stable identifier, kebab case, e.g. `stl-truncated`. */
  code: string
  /** One sentence a bench worker understands: what is wrong, where, and what to do. */
  message: Said
}

export type Answer<T> = { ok: true; value: T } | { ok: false; problem: Problem }

export const good = <T>(value: T): Answer<T> => ({ ok: true, value })
export const bad = (code: string, message: Said): { ok: false; problem: Problem } => ({
  ok: false,
  problem: { code, message },
})

/** Long kernels call this with the fraction done, 0 to 1. It throws `Cancelled` to stop the kernel. */
export type Report = (fraction: number) => void
export const silent: Report = () => undefined

/** Thrown through a kernel by its `Report` when the user has cancelled. */
export class Cancelled extends Error {
  constructor() {
    super('Cancelled')
    this.name = 'Cancelled'
  }
}

/** Maps a kernel's own 0..1 progress to a slice of its caller's. */
export function part(report: Report, from: number, to: number): Report {
  return (fraction) => report(from + (to - from) * fraction)
}
