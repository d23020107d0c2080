import { inSequence, cycleAmong } from './improve'
import type { Problem, Task } from './types'

/** Tasks of several pieces that are done in one go, as their set-up is the same. */
export interface TaskBatch {
  id: string
  key: string
  /** ids of tasks */
  tasks: string[]
  /** s that are spared */
  saved: number
}

/** Share of the working time that is planned for: the last of a mix drags. */
const USABLE = 0.8

/**
 * What could be done in one go over several pieces: for each set-up, of every piece the first task that has it. Never more than
 * a mix can be worked with, and nothing that would have to wait for itself.
 */
export function proposeBatches(tasks: readonly Task[]): TaskBatch[] {
  const groups = new Map<string, Task[]>()
  for (const t of inSequence(tasks).order) {
    if (!t.setup) continue
    const group = groups.get(t.setup.key) ?? []
    if (!group.some((g) => g.piece === t.piece)) groups.set(t.setup.key, [...group, t])
  }
  return [...groups]
    .flatMap(([key, group]) => withinWindow(group).map((g, k) => batchOf(`${key}${k > 0 ? ` ${k + 1}` : ''}`, key, g)))
    .filter((b) => b.tasks.length > 1 && cycleAmong(merged(tasks, [b])).length === 0)
    .sort((a, b) => b.saved - a.saved)
}

const batchOf = (id: string, key: string, group: readonly Task[]): TaskBatch => ({
  id,
  key,
  tasks: group.map((t) => t.id),
  saved: group.slice(1).reduce((s, t) => s + Math.min(t.work, t.setup!.seconds), 0),
})

/** Cut where the mix would set. */
function withinWindow(group: readonly Task[]): Task[][] {
  const out: Task[][] = [[]]
  let sum = 0
  for (const t of group) {
    const limit = USABLE * (t.window ?? Infinity)
    if (out.at(-1)!.length > 0 && sum + t.work > limit) {
      out.push([])
      sum = 0
    }
    out.at(-1)!.push(t)
    sum += t.work
  }
  return out
}

export const BATCH = 'batch: '

/**
 * The tasks with each batch as one of them, under `batch: ` and its id: as much work as all of them less what is spared, ready when the
 * last of them is, over when the longest wait is. Batches of which less than two tasks are left are none.
 */
export function merged(tasks: readonly Task[], batches: readonly TaskBatch[]): Task[] {
  const known = new Map(tasks.map((t) => [t.id, t]))
  const instead = new Map<string, string>()
  const made: Task[] = []
  for (const b of batches) {
    const own = b.tasks.flatMap((id) => (instead.has(id) ? [] : (known.get(id) ?? [])))
    if (own.length < 2) continue
    const [first] = own as [Task]
    const saved = own.slice(1).reduce((s, t) => s + Math.min(t.work, t.setup?.seconds ?? 0), 0)
    for (const t of own) instead.set(t.id, BATCH + b.id)
    made.push({
      ...first,
      id: BATCH + b.id,
      also: [...new Set(own.map((t) => t.piece))].filter((p) => p !== first.piece),
      work: own.reduce((s, t) => s + t.work, 0) - saved,
      waiting: Math.max(...own.map((t) => t.waiting)),
      after: [...new Set(own.flatMap((t) => t.after))],
      notBefore: Math.max(...own.map((t) => t.notBefore ?? 0)),
    })
  }
  const swapped = [...tasks.filter((t) => !instead.has(t.id)), ...made]
  return swapped.map((t) => ({ ...t, after: [...new Set(t.after.map((a) => instead.get(a) ?? a))] }))
}

/** Batches that can be taken together: each in turn unless something would have to wait for itself. */
export function possible(tasks: readonly Task[], batches: readonly TaskBatch[]): TaskBatch[] {
  const kept: TaskBatch[] = []
  for (const b of batches) if (cycleAmong(merged(tasks, [...kept, b])).length === 0) kept.push(b)
  return kept
}

/** A problem with its batches merged. */
export const withBatches = (problem: Problem, batches: readonly TaskBatch[]): Problem =>
  batches.length === 0 ? problem : { ...problem, tasks: merged(problem.tasks, possible(problem.tasks, batches)) }
