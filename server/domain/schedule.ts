import { now } from '../data/clock'
import { Op } from 'sequelize'
import { stepEdit, type CalendarRecord, type StepEdit } from '../../contract/bench'
import { newPiece } from '../../contract/pieces'
import { shutToSpray } from '../../core/plan/scheduling/air'
import { cycleAmong } from '../../core/plan/scheduling/improve'
import { kindOf } from '../../core/plan/scheduling/lateness'
import { SPRAY, taskId, tasksOf, type Wish } from '../../core/plan/scheduling/ofPlan'
import { planSteps } from '../../core/plan/steps/planSteps'
import type { PlanFacts, PlanStep } from '../../core/plan/steps/types'
import { scheduleWorkshop, type WorkshopSchedule } from '../../core/plan/scheduling/workshop'
import { dueAt } from '../../core/math/wallClock'
import { BatchRow, StepEditRow, Tick, StepOrderRow } from '../data/benchModels'
import { onChange } from '../data/events'
import { forecast } from './air'
import { Piece } from '../data/models'
import { planFacts } from './planFacts'
import { readRoom } from './room'
import { hurriedFrom, readWorkshop, zoneOf } from './workshop'
import type { Said } from '../../core/words/say'

export interface PlannedPiece {
  facts: PlanFacts
  steps: PlanStep[]
  /** keys of derivations by which it will be surer, and of all whose end would change it */
  pending: string[]
  awaits: string[]
  /** ms at which what prints now is done */
  printing: number
  /** ms until which it holds while nothing changes: then the piece is due soon */
  holds: number
}

/** Plans as they were last made. Whatever is told to have changed is made again when it is next asked for. */
const made = new Map<string, PlannedPiece>()
/** Counts what may have changed a plan or the schedule. */
let age = 0
onChange((c) => {
  if (c.type === 'timers' || c.type === 'devices') return
  if (c.type === 'derivation' && c.status !== 'done' && c.status !== 'failed') return
  age++
  if (c.type === 'piece' || c.type === 'run') made.delete(c.id)
  else if (c.type === 'derivation') {
    for (const [id, p] of made) if (p.awaits.includes(c.key)) made.delete(id)
  } else if (c.type !== 'calendar') made.clear()
})

/**
 * The plan of a piece from what is known; `measure` has measured what is not.
 *
 * The piece is read here and not by the caller: between his reading and this it may have been changed, and what was planned
 * from the older one would be kept as if it were of the newer.
 *
 * @throws EmptyResultError when there is no such piece
 */
export async function plannedPiece(id: string, measure = false): Promise<PlannedPiece> {
  const known = made.get(id)
  if (known && !measure && now() < known.holds) return known
  const began = age
  const { data } = await Piece.findByPk(id, { rejectOnEmpty: true })
  const { facts, pending, awaits, printing } = await planFacts(id, data, measure)
  const { deadline } = newPiece.parse(data)
  const holds = facts.hurried || !deadline ? Infinity : hurriedFrom(deadline, zoneOf(await readWorkshop()))
  const plan = { facts, pending, awaits, printing, holds, steps: facts.parts.length === 0 ? [] : planSteps(facts) }
  // What changed while it was made may not be in it.
  if (age === began) made.set(id, plan)
  return plan
}

/** The calendar before its titles are said. */
export type Calendar = Omit<CalendarRecord, 'tasks' | 'broken'> & { tasks: Task[]; broken: Said[] }
type Task = Omit<CalendarRecord['tasks'][number], 'title' | 'risks'> & { title: Said; risks: PlanStep['risks'] }

/** ms for which a schedule stands while nothing changes: it begins at most so long ago. */
const STANDS = 30_000
let lastScheduled: { at: number; age: number; value: { calendar: Calendar; scheduled: WorkshopSchedule } } | null = null

/** The schedule of the workshop in the order that was kept, made again when anything changed. */
export async function workshopSchedule(): Promise<{ calendar: Calendar; scheduled: WorkshopSchedule }> {
  const at = now()
  if (lastScheduled?.age === age && at - lastScheduled.at < STANDS) return lastScheduled.value
  const began = age
  const calendar = await workshopPlan()
  const value = { calendar, scheduled: scheduleWorkshop(calendar) }
  if (age === began) lastScheduled = { at, age, value }
  return value
}

/** Everything a schedule of all pieces is made from. */
export async function workshopPlan(): Promise<Calendar> {
  const began = now()
  const [shop, room, air, pieces, ticks, edits, batchRows, kept] = await Promise.all([
    readWorkshop(),
    readRoom(),
    forecast(),
    Piece.findAll({ where: { deletedAt: null }, order: [['createdAt', 'ASC']] }),
    Tick.findAll({ where: { doneAt: { [Op.ne]: null } } }),
    StepEditRow.findAll(),
    BatchRow.findAll({ order: [['createdAt', 'ASC']] }),
    StepOrderRow.findByPk(1),
  ])
  const closed: CalendarRecord['closed'] = { [SPRAY]: shutToSpray(air, shop.spraysIn) }
  const tasks: Task[] = []
  for (const p of pieces) {
    if (newPiece.parse(p.data).resting) continue
    const plan = await plannedPiece(p.id)
    if (plan.printing > began)
      for (const printer of plan.facts.running) (closed[printer] ??= []).push([began - 1, plan.printing])
    tasks.push(...calendarTasks(p.id, plan, ticks, edits))
  }
  const { sound, broken } = withoutRings(tasks)
  const zone = zoneOf(shop)
  return {
    now: began,
    zone,
    people: (shop.people.length > 0 ? shop.people : [{ name: '', hours: null, off: [] }]).map((p) => ({
      name: p.name,
      hours: p.hours ?? shop.benchHours,
      off: p.off,
    })),
    resources: shop.places,
    closed,
    pieces: pieces.map((p) => {
      const { name, deadline, resting } = newPiece.parse(p.data)
      // Due on a day is due at its end.
      const due = deadline ? dueAt(deadline, zone) : null
      return { id: p.id, name, due, resting, done: ticks.filter((t) => t.pieceId === p.id).length, version: p.version }
    }),
    tasks: sound,
    batches: batchRows.map((b) => ({ id: b.id, ...(b.data as { key: string; tasks: string[] }) })),
    order: kept?.stepOrder ?? [],
    record: ticks.flatMap((t) =>
      t.took && t.planned ? [{ kind: kindOf(t.stepKey), planned: t.planned, took: t.took }] : [],
    ),
    broken,
    room,
    forecast: air,
  }
}

function calendarTasks(
  piece: string,
  plan: PlannedPiece,
  ticks: readonly Tick[],
  edits: readonly StepEditRow[],
): Task[] {
  const done = new Map(ticks.flatMap((t) => (t.pieceId === piece ? [[t.stepKey, t.doneAt!.getTime()] as const] : [])))
  const own = new Map(edits.flatMap((e) => (e.pieceId === piece ? [[e.stepKey, stepEdit.parse(e.data)] as const] : [])))
  const wishes = new Map([...own].map(([key, e]) => [key, wishOf(e)]))
  const steps = new Map(plan.steps.map((s) => [taskId(piece, s.key), s]))
  return tasksOf(piece, plan.steps, done, wishes, plan.printing).map((t) => {
    const s = steps.get(t.id)!
    return {
      ...t,
      after: [...t.after],
      key: s.key,
      title: s.title,
      phase: s.phase,
      risks: s.risks,
      edit: own.get(s.key) ?? null,
    }
  })
}

const wishOf = (e: StepEdit): Wish => ({
  handsOn: e.handsOn,
  waiting: e.waiting,
  notBefore: e.notBefore ? new Date(e.notBefore).getTime() : null,
  by: e.by,
  anyway: e.anyway,
  after: e.after.map((a) => taskId(a.piece, a.step)),
})

/** A plan may change under what was put in order by hand: what then waits for itself keeps the plan's order only. */
function withoutRings(tasks: Task[]): { sound: Task[]; broken: Said[] } {
  const ring = new Set(cycleAmong(tasks))
  if (ring.size === 0) return { sound: tasks, broken: [] }
  const broken: Said[] = []
  const sound = tasks.map((t) => {
    const byHand = new Set(t.edit?.after.map((a) => taskId(a.piece, a.step)))
    if (!ring.has(t.id) || byHand.size === 0) return t
    broken.push(t.title)
    return { ...t, after: t.after.filter((a) => !byHand.has(a)) }
  })
  return { sound, broken }
}
