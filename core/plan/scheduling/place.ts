import type { Placed, Problem, Task, Schedule } from './types'
import { windowsOf, type Stretches } from './windows'

/** What lateness weighs beside an hour of the whole, what an hour of each piece's own end weighs, and one after what was wanted. */
const LATE = 20,
  PER_FINISH = 0.05,
  WANTED = 5

interface Hands {
  name: string
  windows: Stretches
  longest: number
}

/** Schedules tasks in an order given; made once for a problem, asked many times. */
export class Placer {
  private readonly hands: Hands[]
  private readonly at: Map<string, number>
  private readonly before: number[][]
  private readonly closed = new Map<string, Busy>()

  constructor(readonly problem: Problem) {
    this.hands = problem.people.map((p) => {
      const windows = windowsOf(p, problem.start, problem.zone)
      const longest = windows.from.reduce((most, from, i) => Math.max(most, windows.to[i]! - from), 0)
      return { name: p.name, windows, longest }
    })
    for (const [name, spans] of Object.entries(problem.closed ?? {})) {
      const shut = new Busy(1)
      for (const [from, to] of spans) shut.add(from, to)
      this.closed.set(name, shut)
    }
    this.at = new Map(problem.tasks.map((t, i) => [t.id, i]))
    // What is not among the tasks has been done, or is nobody's business here.
    this.before = problem.tasks.map((t) => t.after.flatMap((id) => this.at.get(id) ?? []))
  }

  /** For each task, the tasks that it must come after. */
  get predecessors(): readonly (readonly number[])[] {
    return this.before
  }

  /**
   * The serial schedule-generation scheme: each task, in its turn, at the first moment at which its predecessors have waited
   * out, a person has the hours for it in one go, and its place or machine is free; work longer than any window is done in as
   * many as it takes. For costs that only grow with time some order gives the best schedule there is (Kolisch 1996).
   *
   * @param order places in `problem.tasks`, each once, none before one it must come after
   * @param work s that each task takes, where it is not what was planned
   */
  schedule(order: readonly number[], work?: ArrayLike<number>): Schedule {
    const { tasks, start } = this.problem
    const free = new Float64Array(tasks.length).fill(start)
    const busy = new Map<string, Busy>()
    const placed: Placed[] = [],
      impossible: string[] = []
    const cannot = new Uint8Array(tasks.length)
    const used = this.hands.map(() => new Busy(1))
    for (const i of order) {
      const task = tasks[i]!
      let ready = Math.max(start, task.notBefore ?? start)
      for (const b of this.before[i]!) {
        if (cannot[b] === 1) cannot[i] = 1
        ready = Math.max(ready, free[b]!)
      }
      const takes = (work?.[i] ?? task.work) * 1000
      const place = cannot[i] === 1 ? null : this.first(task, takes, ready, used, this.busyOf(busy, task.needs))
      if (!place) {
        cannot[i] = 1
        impossible.push(task.id)
        continue
      }
      const { hand, pieces } = place
      const end = pieces.at(-1)![1]
      free[i] = end + task.waiting * 1000
      for (const [from, to] of pieces) {
        used[hand]!.add(from, to)
        this.busyOf(busy, task.needs).add(from, task.holds && to === end ? free[i]! : to)
      }
      placed.push({ id: task.id, person: this.hands[hand]!.name, start: pieces[0]![0], end, free: free[i]! })
    }
    return this.judged(placed, impossible, order)
  }

  private busyOf(busy: Map<string, Busy>, what: string): Busy {
    let b = busy.get(what)
    if (!b) busy.set(what, (b = new Busy(this.problem.resources[what] ?? 1)))
    return b
  }

  /** The earliest end over all people; of equal ones the person named first. */
  private first(
    task: Task,
    work: number,
    ready: number,
    used: readonly Busy[],
    place: Busy,
  ): { hand: number; pieces: [number, number][] } | null {
    let best: { hand: number; pieces: [number, number][] } | null = null
    const limits = [place, this.closed.get(task.needs) ?? [], this.closed.get(task.shuns ?? '') ?? []].flat()
    const hold = task.holds ? task.waiting * 1000 : 0
    for (const [hand, h] of this.hands.entries()) {
      if (task.by !== undefined && task.by !== h.name) continue
      const pieces = fitting(h, [used[hand]!, ...limits], place, ready, work, hold)
      if (pieces && (!best || pieces.at(-1)![1] < best.pieces.at(-1)![1])) best = { hand, pieces }
    }
    return best
  }

  private judged(placed: Placed[], impossible: string[], order: readonly number[]): Schedule {
    const { tasks, due, start } = this.problem
    const finish: Record<string, number> = {}
    let missed = 0
    for (const p of placed) {
      const { piece, also = [], wanted = Infinity } = tasks[this.at.get(p.id)!]!
      missed += Math.max(0, p.start - wanted)
      for (const of of [piece, ...also]) finish[of] = Math.max(finish[of] ?? start, p.free)
    }
    let late = 0,
      whole = start,
      sum = 0
    for (const [piece, end] of Object.entries(finish)) {
      late += Math.max(0, end - (due[piece] ?? Infinity))
      whole = Math.max(whole, end)
      sum += end - start
    }
    const cost = (LATE * late + (whole - start) + PER_FINISH * sum + WANTED * missed) / 1000
    return { placed, impossible, finish, late: late / 1000, cost, order: order.map((i) => tasks[i]!.id) }
  }
}

/** Stretches of time that are taken, rising; of a thing of which there are several, as many may overlap. */
class Busy {
  private readonly spans: [number, number][] = []
  private longest = 0
  constructor(private readonly count: number) {}

  add(from: number, to: number): void {
    this.spans.splice(this.before(from), 0, [from, to])
    this.longest = Math.max(this.longest, to - from)
  }

  /** How many begin before a moment. */
  private before(moment: number): number {
    let lo = 0,
      hi = this.spans.length
    while (lo < hi) {
      const m = (lo + hi) >> 1
      if (this.spans[m]![0] < moment) lo = m + 1
      else hi = m
    }
    return lo
  }

  /** `from` when all of [from, from + work) is free; else the moment from which it is worth asking again. */
  clear(from: number, work: number): number {
    const over: [number, number][] = []
    // None that reaches into it begins longer ago than the longest lasts.
    for (let i = this.before(from + work) - 1; i >= 0 && this.spans[i]![0] > from - this.longest; i--)
      if (this.spans[i]![1] > from) over.push(this.spans[i]!)
    if (over.length < this.count) return from
    // As many as there are at one moment: only then there is none left.
    const moments = [from, ...over.map(([a]) => a).filter((a) => a > from)]
    for (const m of moments) {
      const now = over.filter(([a, b]) => a <= m && b > m)
      if (now.length >= this.count) return Math.min(...now.map(([, b]) => b))
    }
    return from
  }
}

/**
 * Where work fits first: whole in one window, or, where no window is long enough, over several.
 *
 * @param all that must be clear while it is worked at
 * @param place that must stay clear for `hold` ms after it as well
 */
function fitting(
  { windows, longest }: Hands,
  all: readonly Busy[],
  place: Busy,
  ready: number,
  work: number,
  hold: number,
): [number, number][] | null {
  const { from, to } = windows
  const whole = work <= longest
  const pieces: [number, number][] = []
  let left = work
  for (let i = after(to, ready); i < from.length; i++) {
    let at = Math.max(ready, from[i]!)
    while (at < to[i]!) {
      const want = whole ? work : Math.min(left, to[i]! - at)
      if (whole && at + work > to[i]!) break
      let next = want === left && hold > 0 ? place.clear(at, want + hold) : at
      for (const busy of all) next = Math.max(next, busy.clear(at, want))
      if (next > at) {
        at = next
        continue
      }
      pieces.push([at, at + want])
      left -= want
      if (left <= 0 || whole) return pieces
      at += want
    }
  }
  return null
}

/** First window that ends after a moment. */
function after(to: Float64Array, moment: number): number {
  let lo = 0,
    hi = to.length
  while (lo < hi) {
    const m = (lo + hi) >> 1
    if (to[m]! > moment) hi = m
    else lo = m + 1
  }
  return lo
}
