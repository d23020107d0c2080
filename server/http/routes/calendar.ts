import { rightNow } from '../../data/clock'
import { Router } from 'express'
import { z } from 'zod'
import { calendar, newBatch, stepEdit, stepOrder } from '../../../contract/bench'
import { cycleAmong } from '../../../core/plan/scheduling/improve'
import { merged } from '../../../core/plan/scheduling/batching'
import { taskId } from '../../../core/plan/scheduling/ofPlan'
import { BatchRow, StepEditRow, StepOrderRow } from '../../data/benchModels'
import { announce } from '../../data/events'
import { icsOf } from '../../domain/ics'
import { Refusal } from '../../domain/refusal'
import { describe, endpoint } from '../route'
import { workshopSchedule, workshopPlan } from '../../domain/schedule'
import { findPiece } from './pieces'
import type { Said } from '../../../core/words/say'
import type { Calendar } from '../../domain/schedule'
import { message } from '../../../core/words/message'

/** The schedule of the whole workshop: what it is made from, and what hands want of it. */
export const calendarRoutes = Router()

endpoint(
  calendarRoutes,
  'get',
  '/calendar',
  'Everything a schedule of all pieces is made from',
  { reply: calendar },
  workshopPlan,
)

const titled = (c: Calendar, ids: readonly string[]): Said[] =>
  ids.map((id) => c.tasks.find((t) => t.id === id)?.title ?? id)

endpoint(
  calendarRoutes,
  'put',
  '/pieces/:id/steps/:key/wish',
  'What a hand wants of a step over what the plan says; nothing wanted takes it back',
  { body: stepEdit, reply: stepEdit },
  async (req, body) => {
    const p = await findPiece(req.params.id!),
      stepKey = req.params.key!
    const at = { pieceId: p.id, stepKey }
    const c = await workshopPlan()
    const id = taskId(p.id, stepKey)
    const before = body.after.map((a) => taskId(a.piece, a.step))
    if (body.by !== null && !c.people.some((x) => x.name === body.by))
      throw new Refusal(422, 'nobody-of-that-name', message('refusals.calendar.doesNotWorkHereName', { by: body.by }))
    const was = c.tasks.find((t) => t.id === id)
    const byHand = new Set(was?.edit?.after.map((a) => taskId(a.piece, a.step)))
    const ring = cycleAmong(
      c.tasks.map((t) => (t.id === id ? { ...t, after: [...t.after.filter((a) => !byHand.has(a)), ...before] } : t)),
    )
    if (ring.length > 0)
      throw new Refusal(409, 'ring', message('refusals.calendar.thenTheseWouldWaitFor', { titled: titled(c, ring) }))
    const nothing = JSON.stringify(body) === JSON.stringify(stepEdit.parse({}))
    if (nothing) await StepEditRow.destroy({ where: at })
    else await StepEditRow.upsert({ ...at, data: body })
    await announce({ type: 'calendar' })
    await announce({ type: 'piece', id: p.id })
    return body
  },
)

endpoint(
  calendarRoutes,
  'post',
  '/batches',
  'Do steps of several pieces in one go',
  { body: newBatch },
  async (_req, body) => {
    const c = await workshopPlan()
    const tasks = body.steps.map((s) => taskId(s.piece, s.step))
    const gone = tasks.filter((id) => !c.tasks.some((t) => t.id === id))
    if (gone.length > 0) throw new Refusal(409, 'step-gone', message('refusals.calendar.oneOfTheseStepsIs'))
    const taken = c.batches.flatMap((b) => b.tasks)
    if (tasks.some((t) => taken.includes(t)))
      throw new Refusal(409, 'in-a-batch', message('refusals.calendar.oneOfTheseStepsIs2'))
    const batch = { id: body.id, key: body.key, tasks, saved: 0 }
    const ring = cycleAmong(merged(c.tasks, [...c.batches.map((b) => ({ ...b, saved: 0 })), batch]))
    if (ring.length > 0) throw new Refusal(409, 'ring', message('refusals.calendar.oneOfTheseStepsHas'))
    await BatchRow.findOrCreate({ where: { id: body.id }, defaults: { id: body.id, data: { key: body.key, tasks } } })
    await announce({ type: 'calendar' })
    return undefined
  },
)
endpoint(calendarRoutes, 'delete', '/batches/:id', 'Take a batch apart', {}, async (req) => {
  await BatchRow.destroy({ where: { id: z.uuid().parse(req.params.id) } })
  await announce({ type: 'calendar' })
  return undefined
})

endpoint(
  calendarRoutes,
  'put',
  '/calendar/order',
  'Keep the order of a better schedule: where the next begins',
  { body: stepOrder },
  async (_req, body) => {
    await StepOrderRow.upsert({ id: 1, stepOrder: body.order, keptAt: rightNow() })
    await announce({ type: 'calendar' })
    return undefined
  },
)

/** For calendar programs, which ask again by themselves. */
describe('get', '/calendar.ics', 'The schedule for calendar programs')
calendarRoutes.get('/calendar.ics', (_req, res, next) => {
  workshopSchedule()
    .then(({ calendar: c, scheduled }) => {
      res.type('text/calendar; charset=utf-8').send(icsOf(c, scheduled))
    })
    .catch(next)
})
