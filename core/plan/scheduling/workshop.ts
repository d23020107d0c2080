import { BATCH, possible, proposeBatches, withBatches, type TaskBatch } from './batching'
import { fitsNow, type FitNow } from './fitsNow'
import { improve, type ImproveOptions } from './improve'
import { kindOf, lateness, spreadsOf, type Logged, type PieceRisk } from './lateness'
import { slackOf } from './slack'
import type { Person, Placed, Problem, Task } from './types'
import { windowsOf } from './windows'
import type { Said } from '../../words/say'

export interface WorkshopTask extends Task {
  /** of its step */
  key: string
  title: Said
  risks: readonly { chance: number; costs: number }[]
}
/** All pieces of a workshop, its people and its hours. */
export interface Workshop {
  /** ms since the epoch from which on it is scheduled */
  now: number
  zone: string
  people: readonly Person[]
  resources: Readonly<Record<string, number>>
  closed: Readonly<Record<string, readonly (readonly [number, number])[]>>
  pieces: readonly { id: string; due: number | null }[]
  tasks: readonly WorkshopTask[]
  /** done in one go, by ids of tasks */
  batches: readonly { id: string; key: string; tasks: readonly string[] }[]
  /** ids, of a schedule that was good before */
  order: readonly string[]
}

export interface Slot extends Placed {
  /** s by which it may slip */
  slack: number
}
export interface WorkshopSchedule {
  /** by task, those done in one go each with the whole of it */
  slots: Map<string, Slot>
  /** batches as one */
  placed: Placed[]
  /** ms at which each piece is done */
  finish: Record<string, number>
  impossible: Set<string>
  /** s of lateness over all pieces */
  late: number
  cost: number
  order: string[]
}

export const problemOf = (w: Workshop): Problem => ({
  tasks: w.tasks,
  people: w.people,
  resources: w.resources,
  start: w.now,
  due: Object.fromEntries(w.pieces.flatMap((p) => (p.due === null ? [] : [[p.id, p.due]]))),
  closed: w.closed,
  zone: w.zone,
})
const batchesOf = (w: Workshop): TaskBatch[] => w.batches.map((b) => ({ ...b, tasks: [...b.tasks], saved: 0 }))
/** With what is done in one go as one task. */
const inOneGo = (w: Workshop): Problem => withBatches(problemOf(w), batchesOf(w))

/** In the order that was kept, in milliseconds; or improved from there. */
export function scheduleWorkshop(w: Workshop, how: Partial<ImproveOptions> = {}): WorkshopSchedule {
  const problem = inOneGo(w)
  const made = improve(problem, { tries: 0, budget: Infinity, seed: 1, ...how, hint: w.order })
  const slack = slackOf(problem, made)
  const open = new Set(w.tasks.map((t) => t.id))
  const together = new Map(possible(w.tasks, batchesOf(w)).map((b) => [BATCH + b.id, b.tasks]))
  const each = (id: string): string[] => (together.get(id) ?? [id]).filter((t) => open.has(t))
  return {
    placed: made.placed,
    finish: made.finish,
    late: made.late,
    cost: made.cost,
    order: made.order,
    slots: new Map(made.placed.flatMap((p) => each(p.id).map((id) => [id, { ...p, slack: slack.get(p.id) ?? 0 }]))),
    impossible: new Set(made.impossible.flatMap(each)),
  }
}

/** By when each piece is likely done, by the spread of what was logged. */
export function risksOf(w: Workshop, order: readonly string[], record: readonly Logged[]): Record<string, PieceRisk> {
  const members = new Map(w.batches.map((b) => [BATCH + b.id, b.tasks]))
  const task = new Map(w.tasks.map((t) => [t.id, t]))
  const of = (id: string): WorkshopTask[] => (members.get(id) ?? [id]).flatMap((m) => task.get(m) ?? [])
  return lateness(
    inOneGo(w),
    order,
    new Map(order.map((id) => [id, kindOf(of(id)[0]?.key ?? '')])),
    spreadsOf(record),
    new Map(order.map((id) => [id, of(id).flatMap((t) => t.risks)])),
  )
}

/** Steps that could be done in one go and are not yet. */
export function batchesToTake(w: Workshop): TaskBatch[] {
  const taken = new Set(w.batches.flatMap((b) => b.tasks))
  return proposeBatches(w.tasks).filter((b) => !b.tasks.some((t) => taken.has(t)))
}

/** What is of most use in so many seconds from now on. */
export function useOfTime(w: Workshop, scheduled: WorkshopSchedule, seconds: number, person: string | null): FitNow[] {
  const end = w.now + seconds * 1000
  const next = w.people
    .filter((p) => person === null || p.name === person)
    .flatMap((p) => {
      const { from, to } = windowsOf(p, end, w.zone, 15)
      // Hours that go on are there already.
      return from.length > 0 ? [from[0]! <= end && to[0]! > end ? (from[1] ?? end) : from[0]!] : []
    })
  return fitsNow(problemOf(w), {
    seconds,
    person,
    away: next.length > 0 ? Math.max(0, (Math.min(...next) - end) / 1000) : 86_400,
    slack: new Map([...scheduled.slots].map(([id, s]) => [id, s.slack])),
  }).tasks
}

export interface Shift {
  /** ids of tasks that begin at another time, and ms by which later */
  moved: { id: string; by: number }[]
  /** pieces that are done at another time, and ms by which later */
  finishes: { piece: string; by: number }[]
}
/** What one schedule has at other times than another. */
export function shiftOf(before: WorkshopSchedule, after: WorkshopSchedule): Shift {
  const moved = [...after.slots].flatMap(([id, s]) => {
    const was = before.slots.get(id)
    return was && was.start !== s.start ? [{ id, by: s.start - was.start }] : []
  })
  const finishes = Object.entries(after.finish).flatMap(([piece, end]) => {
    const was = before.finish[piece]
    return was !== undefined && was !== end ? [{ piece, by: end - was }] : []
  })
  return { moved, finishes }
}
