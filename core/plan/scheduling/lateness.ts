import { evenNumbers, normalNumbers } from '../../math/random'
import { Placer } from './place'
import type { Problem } from './types'

/** A step that was done: what kind it was, and s of hands-on work planned and taken. */
export interface Logged {
  kind: string
  planned: number
  took: number
}

/**
 * What is thought of ln(taken / planned) before anything was logged: as planned, within a factor of about 1.35, on the weight
 * of two logged steps (a normal-inverse-gamma prior; Murphy 2007, section 3).
 */
const PRIOR = { mean: 0, weight: 2, shape: 2, scale: 0.09 }

/** What the next step of a kind will take over what is planned: ln of it is Student's t. */
export interface DurationSpread {
  /** of ln(taken / planned): middle, width, degrees of freedom */
  middle: number
  width: number
  freedom: number
  /** how many logged steps it rests on */
  from: number
}

/** Of what kind a step is: the first word of its key, whatever joint, surface or pass it is of. */
export const kindOf = (key: string): string => /^[a-z]+/i.exec(key)?.[0] ?? key

/**
 * What the record says of each kind of step. A kind with few logged leans on all that was logged, and where nothing was, on the
 * prior.
 */
export function spreadsOf(logged: readonly Logged[]): (kind: string) => DurationSpread {
  const usable = logged.filter((l) => l.planned > 0 && l.took > 0)
  const all = posterior(
    usable.map((l) => Math.log(l.took / l.planned)),
    PRIOR.mean,
  )
  const by = new Map<string, DurationSpread>()
  return (kind) => {
    let s = by.get(kind)
    if (!s) {
      const own = usable.filter((l) => l.kind === kind).map((l) => Math.log(l.took / l.planned))
      s = own.length > 0 ? posterior(own, all.middle) : { ...all, from: 0 }
      by.set(kind, s)
    }
    return s
  }
}

function posterior(y: readonly number[], mean: number): DurationSpread {
  const n = y.length
  const average = n > 0 ? y.reduce((s, v) => s + v, 0) / n : mean
  const squares = y.reduce((s, v) => s + (v - average) ** 2, 0)
  const weight = PRIOR.weight + n,
    shape = PRIOR.shape + n / 2,
    scale = PRIOR.scale + squares / 2 + (PRIOR.weight * n * (average - mean) ** 2) / (2 * weight)
  return {
    middle: (PRIOR.weight * mean + n * average) / weight,
    width: Math.sqrt((scale * (weight + 1)) / (shape * weight)),
    freedom: 2 * shape,
    from: n,
  }
}

export interface PieceRisk {
  /** ms since the epoch by which it is done in half, and in nine tenths, of the ways it may go */
  half: number
  most: number
  /** chance of being late; null where it is not due */
  late: number | null
}
/** What may go wrong in a task, and s that it then costs. */
export type Mishaps = ReadonlyMap<string, readonly { chance: number; costs: number }[]>

/**
 * Lays the tasks in their order again and again, each time with durations drawn from what the record says of their kind, and
 * with what may go wrong going wrong as often as it does (Monte Carlo).
 *
 * @param order ids, as a schedule has them
 * @param kinds of tasks, by id
 */
export function lateness(
  problem: Problem,
  order: readonly string[],
  kinds: ReadonlyMap<string, string>,
  spread: (kind: string) => DurationSpread,
  mishaps: Mishaps,
  samples = 200,
  seed = 1,
): Record<string, PieceRisk> {
  const placer = new Placer(problem)
  const at = new Map(problem.tasks.map((t, i) => [t.id, i]))
  const places = order.flatMap((id) => at.get(id) ?? [])
  const even = evenNumbers(seed),
    normal = normalNumbers(even)
  const student = (freedom: number): number => {
    let squares = 0
    const whole = Math.min(60, Math.round(freedom))
    for (let k = 0; k < whole; k++) squares += normal() ** 2
    return normal() / Math.sqrt(squares / whole)
  }
  const ends = new Map<string, number[]>()
  const work = new Float64Array(problem.tasks.length)
  for (let k = 0; k < samples; k++) {
    problem.tasks.forEach((t, i) => {
      const s = spread(kinds.get(t.id) ?? '')
      // A day's work may become two weeks', not more: the tail of few records is fat.
      const factor = Math.min(14, Math.exp(s.middle + s.width * student(s.freedom)))
      const wrong = (mishaps.get(t.id) ?? []).reduce((sum, m) => sum + (even() < m.chance ? m.costs : 0), 0)
      work[i] = t.work * factor + wrong
    })
    for (const [piece, end] of Object.entries(placer.schedule(places, work).finish)) {
      const list = ends.get(piece)
      if (list) list.push(end)
      else ends.set(piece, [end])
    }
  }
  return Object.fromEntries(
    [...ends].map(([piece, list]) => {
      list.sort((a, b) => a - b)
      const due = problem.due[piece]
      const share = (q: number): number => list[Math.min(list.length - 1, Math.floor(q * list.length))]!
      return [
        piece,
        {
          half: share(0.5),
          most: share(0.9),
          late: due === undefined ? null : list.filter((e) => e > due).length / list.length,
        },
      ]
    }),
  )
}
