import type { PlanStep } from '../steps/types'
import { improve } from './improve'
import { slackOf } from './slack'
import type { BenchHours, Problem, Task, Timetable } from './types'

type Step = Pick<PlanStep, 'key' | 'handsOn' | 'waiting' | 'after'> & { needs: string }

/**
 * What is still to be done of a piece, none of it before what is done has dried.
 *
 * @param done ms since the epoch at which steps were finished, by their keys
 */
export function tasksOf(piece: string, steps: readonly Step[], done: ReadonlyMap<string, number>): Task[] {
  const id = (key: string): string => `${piece}: ${key}`
  const dry = new Map(steps.flatMap((s) => (done.has(s.key) ? [[s.key, done.get(s.key)! + s.waiting * 1000]] : [])))
  return steps
    .filter((s) => !done.has(s.key))
    .map((s) => ({
      id: id(s.key),
      piece,
      work: s.handsOn,
      waiting: s.waiting,
      needs: s.needs,
      after: s.after.map(id),
      notBefore: Math.max(0, ...s.after.flatMap((a) => dry.get(a) ?? [])),
    }))
}

export interface PlanOnHours {
  /** by key; ms */
  slots: Map<string, { start: number; end: number; free: number; critical: boolean }>
  /** ms at which all is done, waiting included */
  finish: number
  /** keys */
  impossible: string[]
}

/** One piece on one person's hours: the best of the priority rules, which takes milliseconds. */
export function planOnHours(
  steps: readonly Step[],
  hours: readonly BenchHours[],
  start: number,
  done: ReadonlyMap<string, number> = new Map(),
): PlanOnHours {
  const tasks = tasksOf('', steps, done)
  const problem: Problem = { tasks, people: [{ name: '', hours, off: [] }], resources: {}, start, due: {} }
  const made: Timetable = improve(problem, { tries: 0, budget: Infinity, seed: 1 })
  const slack = slackOf(problem, made)
  const key = (id: string): string => id.slice(2)
  return {
    slots: new Map(
      made.placed.map(({ id, start: begin, end, free }) => [
        key(id),
        { start: begin, end, free, critical: slack.get(id) === 0 },
      ]),
    ),
    finish: Math.max(start, ...Object.values(made.finish)),
    impossible: made.impossible.map(key),
  }
}
