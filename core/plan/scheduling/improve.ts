import { evenNumbers } from '../../math/random'
import { Placer } from './place'
import type { Problem, Task, Schedule } from './types'

export interface ImproveOptions {
  /** how many schedules are made, and ms that may be spent on it */
  tries: number
  budget: number
  seed: number
  /** ids in the order of a schedule that was good before: where improving begins; tasks that it does not know are put in */
  hint?: readonly string[]
  /** told of each better schedule as it is found */
  onBetter?: (made: Schedule) => void
}
export const improveDefaults: ImproveOptions = { tries: 100_000, budget: 5000, seed: 1 }

/** How many of the tries are begun again by a rule with luck, instead of changing the best. */
const FRESH = 0.15
/** What a worse schedule may cost, beside the last taken, at the beginning; it falls to nothing. */
const ACCEPTED = 0.03

/**
 * Finds a good order for a schedule: priority rules first (by the day due less what is still to come, by the longest way to
 * the end, piece by piece), each blurred by luck, then tasks taken out of the best order and put elsewhere between what they
 * come after and what comes after them. Worse ones are taken as well while it is early (Dueck 1993, threshold accepting). Never a
 * precedence, a window or a calendar is broken: every order is laid by the same scheme.
 *
 * @param now ms, a clock; only for the budget
 */
export function improve(problem: Problem, options: ImproveOptions = improveDefaults, now = () => Date.now()): Schedule {
  const placer = new Placer(problem)
  const random = evenNumbers(options.seed)
  const n = problem.tasks.length
  const rules = prioritiesOf(problem, placer)
  if (problem.tasks.some((t) => t.wanted !== undefined))
    rules.push(...rules.slice(0, 2).map((r) => wantedFirst(problem, placer, r)))
  if (options.hint && options.hint.length > 0) rules.push(hintedBy(problem, options.hint))
  const ends = now() + options.budget
  let best: { order: number[]; made: Schedule } | null = null,
    last: { order: number[]; made: Schedule } | null = null
  const take = (order: number[], threshold: number): void => {
    const made = placer.schedule(order)
    if (!last || made.cost <= last.made.cost * (1 + threshold)) last = { order, made }
    if (!best || made.cost < best.made.cost) {
      best = last = { order, made }
      options.onBetter?.(made)
    }
  }
  for (const rule of rules)
    take(
      listed(placer, rule, () => 0),
      0,
    )
  const successors = reversedOf(placer.predecessors)
  for (let k = 0; k < options.tries && n > 1 && now() < ends; k++) {
    const cooled = 1 - Math.max(k / options.tries, 1 - (ends - now()) / options.budget)
    if (random() < FRESH * cooled) {
      const rule = rules[(random() * rules.length) | 0]!
      const spread = 0.3 * (Math.max(...rule) - Math.min(...rule))
      take(
        listed(placer, rule, () => spread * random()),
        ACCEPTED * cooled,
      )
    } else take(moved(last!.order, placer.predecessors, successors, random), ACCEPTED * cooled)
  }
  return best!.made
}

/** Least first. */
function prioritiesOf({ tasks, due }: Problem, placer: Placer): number[][] {
  const tail = new Float64Array(tasks.length)
  const successors = reversedOf(placer.predecessors)
  // Tasks may stand in any order; the longest way to an end is settled from the ends back.
  const order = listed(
    placer,
    tasks.map(() => 0),
    () => 0,
  )
  for (const i of order.reverse())
    tail[i] = tasks[i]!.work + tasks[i]!.waiting + Math.max(0, ...successors[i]!.map((s) => tail[s]!))
  const pieces = [...new Set(tasks.map((t) => t.piece))]
  return [
    tasks.map((_, i) => -tail[i]!),
    tasks.map((t, i) => (due[t.piece] ?? 1e13) / 1000 - tail[i]!),
    tasks.map((t, i) => 1e9 * pieces.indexOf(t.piece) - tail[i]!),
    tasks.map((t, i) => -t.waiting - 1e-3 * tail[i]!),
  ]
}

/** By a rule, but before all what is wanted at a time, soonest first, and what that comes after. */
function wantedFirst({ tasks }: Problem, placer: Placer, rule: readonly number[]): number[] {
  const by = tasks.map((t) => t.wanted ?? Infinity)
  const hand = (i: number, when: number): void => {
    for (const b of placer.predecessors[i]!) {
      if (by[b]! <= when) continue
      by[b] = when
      hand(b, when)
    }
  }
  tasks.forEach((t, i) => {
    if (t.wanted !== undefined) hand(i, t.wanted)
  })
  // Less than whatever a rule says.
  return rule.map((r, i) => (by[i] === Infinity ? r : by[i]! - 1e15))
}

/** As they stood before; of a piece, what is new comes after what it had; what is of a new piece comes last. */
function hintedBy({ tasks }: Problem, hint: readonly string[]): number[] {
  const at = new Map(hint.map((id, k) => [id, k]))
  const lastOf = new Map<string, number>()
  for (const t of tasks) lastOf.set(t.piece, Math.max(lastOf.get(t.piece) ?? -1, at.get(t.id) ?? -1))
  return tasks.map((t) => {
    const last = lastOf.get(t.piece)!
    return at.get(t.id) ?? (last >= 0 ? last + 0.5 : hint.length)
  })
}

/**
 * All tasks, each after those it must come after, by least priority among those that may be next.
 *
 * @throws RangeError when tasks wait for each other in a ring; `cycleAmong` names them
 */
function listed(placer: Placer, priority: readonly number[], luck: () => number): number[] {
  const before = placer.predecessors
  const left = Int32Array.from(before, (b) => b.length)
  const successors = reversedOf(before)
  const open: { i: number; p: number }[] = []
  left.forEach((count, i) => {
    if (count === 0) open.push({ i, p: priority[i]! + luck() })
  })
  const out: number[] = []
  while (open.length > 0) {
    let k = 0
    for (let m = 1; m < open.length; m++) if (open[m]!.p < open[k]!.p) k = m
    const [{ i }] = open.splice(k, 1) as [{ i: number; p: number }]
    out.push(i)
    for (const s of successors[i]!) if (--left[s]! === 0) open.push({ i: s, p: priority[s]! + luck() })
  }
  if (out.length < before.length) throw new RangeError('Some steps wait for each other in a ring.')
  return out
}

/** Tasks each after what it comes after, and by id those that no turn comes to, as they wait for a ring. */
export function inSequence<T extends Pick<Task, 'id' | 'after'>>(
  tasks: readonly T[],
): { order: T[]; left: Map<string, T> } {
  const left = new Map(tasks.map((t) => [t.id, t]))
  const order: T[] = []
  for (let gone = true; gone;) {
    gone = false
    for (const [id, t] of left)
      if (t.after.every((a) => !left.has(a))) {
        left.delete(id)
        order.push(t)
        gone = true
      }
  }
  return { order, left }
}

/** Ids of tasks that wait for each other in a ring; none when there is no ring. */
export function cycleAmong(tasks: Problem['tasks']): string[] {
  const { left } = inSequence(tasks)
  // What only waits for a ring is not in it.
  for (let gone = true; gone;) {
    gone = false
    for (const id of left.keys())
      if (![...left.values()].some((t) => t.after.includes(id))) {
        left.delete(id)
        gone = true
      }
  }
  return [...left.keys()]
}

function reversedOf(before: readonly (readonly number[])[]): number[][] {
  const out: number[][] = before.map(() => [])
  before.forEach((list, i) => list.forEach((b) => out[b]!.push(i)))
  return out
}

/** One task taken to another place in the order, between what it comes after and what comes after it. */
function moved(
  order: readonly number[],
  before: readonly (readonly number[])[],
  successors: readonly (readonly number[])[],
  random: () => number,
): number[] {
  const n = order.length
  const where = new Int32Array(n)
  order.forEach((i, k) => {
    where[i] = k
  })
  const k = (random() * n) | 0,
    i = order[k]!
  const low = Math.max(-1, ...before[i]!.map((b) => where[b]!)) + 1,
    high = Math.min(n, ...successors[i]!.map((s) => where[s]!)) - 1
  const to = low + ((random() * (high - low + 1)) | 0)
  const out = [...order]
  out.splice(k, 1)
  out.splice(to, 0, i)
  return out
}
