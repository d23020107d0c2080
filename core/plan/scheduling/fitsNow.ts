import type { Problem, Task } from './types'

export interface FitOptions {
  /** s there are */
  seconds: number
  /** whose time it is; null: anybody's */
  person: string | null
  /** s until anybody is back at the bench: what waits meanwhile costs nobody anything */
  away: number
  /** s by which tasks may slip, by id; those that are not named may slip at will */
  slack: ReadonlyMap<string, number>
}
export interface FitNow {
  id: string
  /** ms since the epoch */
  start: number
  end: number
  /** s spared as what it needs is laid out already */
  saved: number
}

/** What an hour of waiting that is begun in time is worth beside an hour of work. */
const WAIT_WORTH = 0.35
/** s of slack at which pressing has halved, and how much more work that cannot slip is worth */
const EASY = 86_400,
  PRESSING = 1
/** Sequences that are looked at, at most. */
const NODES = 200_000
/** Tasks that are worth looking at: the best of those that could begin. */
const CANDIDATES = 40

/**
 * What is of most use in a stretch of time that begins now: a sequence of tasks, one after the other, each begun when all
 * before it has waited out and its tools are free, that is over in time. Worth is the work that is off the list, more where it
 * presses, and waits that go by while nobody is there. The best is found by branch and bound; same set-ups one after the other
 * are counted once.
 */
export function fitsNow(problem: Problem, o: FitOptions): { tasks: FitNow[]; worth: number } {
  const from = problem.start,
    until = from + o.seconds * 1000
  const open = new Map(problem.tasks.map((t) => [t.id, t]))
  const mine = (t: Task): boolean => t.by === undefined || o.person === null || t.by === o.person
  const worthOf = (t: Task): number => {
    const pressing = PRESSING * 2 ** (-(o.slack.get(t.id) ?? Infinity) / EASY)
    // A short wait is over before one has turned round.
    const passes = t.waiting > 600 ? Math.min(t.waiting, o.away) : 0
    return t.work * (1 + pressing) + WAIT_WORTH * passes
  }
  // Whatever ends in time, even when all before it is done in no time, may be part of the best.
  const tasks = problem.tasks
    .filter((t) => mine(t) && (t.notBefore ?? 0) <= until && spared(t, t) * 1000 <= until - from)
    .map((t) => ({ t, worth: worthOf(t), before: t.after.filter((a) => open.has(a)) }))
    .sort((a, b) => b.worth / (b.t.work + 60) - a.worth / (a.t.work + 60))
  const reachable = chained(tasks).slice(0, CANDIDATES)
  let best: { list: FitNow[]; worth: number } = { list: [], worth: 0 }
  const free = new Map<string, number>()
  const list: FitNow[] = []
  /** ms from which on a place is free again, of what is held while it waits; the person is one, and needs no place twice at once */
  const heldUntil = new Map<string, number[]>()
  const placeFree = (t: Task, at: number): number => {
    const taken = (heldUntil.get(t.needs) ?? []).filter((until) => until > at).sort((a, b) => a - b)
    const spare = (problem.resources[t.needs] ?? 1) - taken.length
    let start = spare > 0 ? at : taken[-spare]!
    // Rising and apart: one pass over each list is enough, and the later of both is tried by both again.
    for (let was = NaN; was !== start;) {
      was = start
      for (const name of [t.needs, t.shuns ?? ''])
        for (const [a, b] of problem.closed?.[name] ?? []) if (a < start + t.work * 1000 && b > start) start = b
    }
    return start
  }
  let nodes = 0
  const look = (at: number, worth: number, last: Task | null): void => {
    if (worth > best.worth) best = { list: [...list], worth }
    if (++nodes > NODES) return
    // No more than all that is left of the time at the best rate there is, and every wait once.
    const left = reachable.filter((c) => !free.has(c.t.id))
    if (worth + bound(left, until - at) <= best.worth) return
    for (const c of left) {
      if (!c.before.every((a) => free.has(a))) continue
      const start = placeFree(c.t, Math.max(at, c.t.notBefore ?? 0, ...c.before.map((a) => free.get(a)!)))
      const takes = last ? spared(c.t, last) : c.t.work
      const end = start + takes * 1000
      if (end > until) continue
      free.set(c.t.id, end + c.t.waiting * 1000)
      const held = heldUntil.get(c.t.needs)
      if (c.t.holds) heldUntil.set(c.t.needs, [...(held ?? []), end + c.t.waiting * 1000])
      list.push({ id: c.t.id, start, end, saved: c.t.work - takes })
      look(end, worth + c.worth, c.t)
      list.pop()
      if (c.t.holds) heldUntil.set(c.t.needs, held ?? [])
      free.delete(c.t.id)
    }
  }
  look(from, 0, null)
  return { tasks: best.list, worth: best.worth }
}

/** s that a task takes right after another. */
const spared = (t: Task, last: Task): number =>
  t.setup && last.setup?.key === t.setup.key ? Math.max(0, t.work - t.setup.seconds) : t.work

interface Candidate {
  t: Task
  worth: number
  before: string[]
}
/** Those whose predecessors are among them, to the first. */
function chained(list: readonly Candidate[]): Candidate[] {
  let kept = [...list]
  for (;;) {
    const ids = new Set(kept.map((c) => c.t.id))
    const next = kept.filter((c) => c.before.every((b) => ids.has(b)))
    if (next.length === kept.length) return next
    kept = next
  }
}

/** More than any choice of them can be worth in so many ms: the fractional knapsack, with every set-up spared. */
function bound(list: readonly Candidate[], ms: number): number {
  let left = ms / 1000,
    sum = 0
  const by = list
    .map((c) => ({ worth: c.worth, takes: spared(c.t, c.t) }))
    .sort((a, b) => b.worth * a.takes - a.worth * b.takes)
  for (const { worth, takes } of by) {
    if (takes >= left) return sum + (takes > 0 ? (worth * left) / takes : worth)
    sum += worth
    left -= takes
  }
  return sum
}
