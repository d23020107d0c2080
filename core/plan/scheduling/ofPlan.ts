import type { PlanStep } from '../steps/types'
import type { Task } from './types'

type Step = Pick<PlanStep, 'key' | 'handsOn' | 'waiting' | 'after'> &
  Partial<Pick<PlanStep, 'setup' | 'window' | 'holds' | 'sprays'>> & { needs: string }

/** What a hand wants of a step over what the plan says: s, ms since the epoch, a person's name, ids of tasks. */
export interface Wish {
  handsOn?: number | null
  waiting?: number | null
  notBefore?: number | null
  by?: string | null
  /** sprayed whatever the air is */
  anyway?: boolean
  after?: readonly string[]
}

/** Under which closed hours sprayed steps are. */
export const SPRAY = 'spray'
/** The task that a step of a piece is. */
export const taskId = (piece: string, key: string): string => `${piece}: ${key}`

/**
 * What is still to be done of a piece, none of it before what is done has dried.
 *
 * @param done ms since the epoch at which steps were finished, by their keys
 * @param wishes by key
 * @param ready ms before which nothing begins, as the piece still prints
 */
export function tasksOf(
  piece: string,
  steps: readonly Step[],
  done: ReadonlyMap<string, number>,
  wishes: ReadonlyMap<string, Wish> = new Map(),
  ready = 0,
): Task[] {
  const waits = (s: Step): number => wishes.get(s.key)?.waiting ?? s.waiting
  const dry = new Map(steps.flatMap((s) => (done.has(s.key) ? [[s.key, done.get(s.key)! + waits(s) * 1000]] : [])))
  const known = new Map(steps.map((s) => [s.key, s]))
  /** What is open before a step; of what was done out of turn, what is open before that. */
  const openBefore = (s: Step, seen = new Set<string>()): string[] =>
    s.after.flatMap((a) => {
      if (seen.has(a)) return []
      seen.add(a)
      const before = known.get(a)
      return done.has(a) && before ? openBefore(before, seen) : [a]
    })
  return steps
    .filter((s) => !done.has(s.key))
    .map((s) => {
      const wish = wishes.get(s.key)
      return {
        id: taskId(piece, s.key),
        piece,
        work: wish?.handsOn ?? s.handsOn,
        waiting: waits(s),
        needs: s.needs,
        after: [...openBefore(s).map((a) => taskId(piece, a)), ...(wish?.after ?? [])],
        notBefore: Math.max(ready, wish?.notBefore ?? 0, ...s.after.flatMap((a) => dry.get(a) ?? [])),
        setup: s.setup ?? null,
        window: s.window ?? null,
        ...(s.holds ? { holds: true } : {}),
        ...(s.sprays && !wish?.anyway ? { shuns: SPRAY } : {}),
        ...(wish?.by ? { by: wish.by } : {}),
        ...(wish?.notBefore ? { wanted: wish.notBefore } : {}),
      }
    })
}
