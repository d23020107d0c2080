import { rightNow } from '../../data/clock'
import { randomUUID } from 'node:crypto'
import { Router } from 'express'
import { z } from 'zod'
import { logEntry, newLogEntry } from '../../../contract/pieces'
import { scheme } from '../../../contract/scheme'
import { plan, planChange, planDifference } from '../../../contract/plan'
import { taskId } from '../../../core/plan/scheduling/ofPlan'
import { comparePlans } from '../../../core/plan/steps/compare'
import { expected, remedies } from '../../../core/plan/facts/dryFit'
import { joinPlan } from '../../../core/plan/steps/join'
import { overDetail } from '../../../core/plan/steps/paint'
import { planSteps } from '../../../core/plan/steps/planSteps'
import type { PlanStep } from '../../../core/plan/steps/types'
import { CAUTIONS } from '../../../core/plan/materials/cautions'
import { sprayRefused } from '../../../core/plan/materials/drying'
import { announce } from '../../data/events'
import { SchemeRow } from '../../data/models'
import { LogRow, Tick, TimerRow } from '../../data/benchModels'
import { planFacts } from '../../domain/planFacts'
import { Refusal, stale } from '../../domain/refusal'
import { endpoint } from '../route'
import { careOf, priceOf } from '../../domain/stockBookings'
import { mustBePicture } from '../../domain/pictures'
import { readScheme } from '../../domain/schemes'
import { workshopSchedule, plannedPiece } from '../../domain/schedule'
import { findPiece } from './pieces'
import { pastMoment } from './ticks'
import { readWorkshop } from '../../domain/workshop'
import { message } from '../../../core/words/message'

export const bench = Router()

endpoint(bench, 'get', '/pieces/:id/scheme', 'Regions and coats', { reply: scheme }, async (req) =>
  readScheme((await findPiece(req.params.id!)).id),
)

endpoint(
  bench,
  'put',
  '/pieces/:id/scheme',
  'Replace regions and coats',
  { body: scheme, reply: scheme },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const { version, ...data } = body
    if (version === 0) {
      const [row, fresh] = await SchemeRow.findOrCreate({
        where: { pieceId: p.id },
        defaults: { pieceId: p.id, data, version: 1 },
      })
      if (!fresh) throw stale({ ...row.data, version: row.version })
    } else {
      const [changed] = await SchemeRow.update({ data, version: version + 1 }, { where: { pieceId: p.id, version } })
      if (changed === 0) throw stale(await readScheme(p.id))
    }
    await announce({ type: 'piece', id: p.id })
    return readScheme(p.id)
  },
)

const measured = z.object({ measure: z.string().optional() })
const PLAN =
  'The plan, its steps scheduled into bench hours with those of all other pieces; `?measure=1` has measured what it is not sure of yet'
endpoint(
  bench,
  'get',
  '/pieces/:id/plan',
  PLAN,
  { query: measured, reply: plan },
  async (req, _body, _res, { measure }) => {
    const p = await findPiece(req.params.id!)
    const { facts, pending, steps } = await plannedPiece(p.id, measure === '1')
    const [{ calendar, scheduled }, rows, timers] = await Promise.all([
      workshopSchedule(),
      Tick.findAll({ where: { pieceId: p.id } }),
      TimerRow.findAll({ where: { pieceId: p.id, kind: 'wait' } }),
    ])
    const { slots, finish, impossible } = scheduled
    const care = await careOf()
    const ticks = new Map(rows.map((t) => [t.stepKey, t]))
    const slotOf = (s: PlanStep): ReturnType<typeof slots.get> => slots.get(taskId(p.id, s.key))
    // As they are gone through: what is done, then by the hour; what no hour holds comes last.
    const hour = (s: PlanStep): number => ticks.get(s.key)?.doneAt?.getTime() ?? slotOf(s)?.start ?? Infinity
    return {
      finish: finish[p.id] ?? Math.max(calendar.now, ...timers.map((t) => t.until.getTime())),
      impossible: steps.filter((s) => impossible.has(taskId(p.id, s.key))).map((s) => s.key),
      over: overDetail(facts),
      sprayRefused: sprayRefused(facts.room),
      pending,
      pairs: joinPlan(facts).map(({ joint, pin }) => ({
        key: joint.key,
        a: joint.a.name,
        b: joint.b.name,
        ids: [joint.a.id, joint.b.id] as [string, string],
        pin: pin && joint.middle ? { wire: pin.wire, printed: joint.fixed, ...joint.middle } : null,
        ...expected(joint.fit),
        tried: joint.tried,
        remedies: joint.tried ? remedies(joint.tried, joint.fit) : [],
      })),
      steps: inOrder([...steps, ...droppedSteps(rows, steps)], hour).map((s) => {
        const t = ticks.get(s.key),
          slot = slotOf(s)
        const edit = calendar.tasks.find((x) => x.id === taskId(p.id, s.key))
        return {
          dropped: false,
          ...s,
          handsOn: edit?.work ?? s.handsOn,
          waiting: edit?.waiting ?? s.waiting,
          cautions: [...s.cautions.map((c) => CAUTIONS[c]), ...care(s.uses)],
          start: slot?.start ?? null,
          end: slot?.end ?? null,
          free: slot?.free ?? null,
          begunAt: t?.begunAt?.toISOString() ?? null,
          doneAt: t?.doneAt?.toISOString() ?? null,
          took: t?.took ?? null,
          timerUntil: timers.find((x) => x.stepKey === s.key)?.until.toISOString() ?? null,
          critical: slot?.slack === 0,
        }
      }),
    }
  },
)

endpoint(
  bench,
  'post',
  '/pieces/:id/plan/compare',
  'What other schools, or another finish, would change in the plan',
  { body: planChange, reply: planDifference },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const [{ facts }, shop, done] = await Promise.all([
      planFacts(p.id, p.data, true),
      readWorkshop(),
      Tick.findAll({ where: { pieceId: p.id } }),
    ])
    if (facts.parts.length === 0) throw new Refusal(409, 'nothing-to-plan', message('refusals.bench.thereIsNoPlanTo'))
    const then = {
      ...facts,
      schools: { ...facts.schools, ...body.schools },
      finish: body.finish ?? facts.finish,
      without: body.without ?? facts.without,
    }
    const ticked = new Set(done.filter((t) => t.doneAt).map((t) => t.stepKey))
    return comparePlans(planSteps(facts), planSteps(then), ticked, shop.labour, await priceOf())
  },
)

/** Sorted by the hour; of one hour, and of none, as they stand in the plan. */
const inOrder = <S>(steps: readonly S[], hour: (s: S) => number): S[] =>
  steps
    .map((s) => [hour(s), s] as const)
    .sort(([a], [b]) => (a === b ? 0 : a - b))
    .map(([, s]) => s)

/** Steps that are done and that another school has no place for: what was done stays done, and is seen. */
const droppedSteps = (rows: readonly Tick[], steps: readonly PlanStep[]): (PlanStep & { dropped: true })[] => {
  const asked = new Set(steps.map((s) => s.key))
  return rows
    .filter((t) => t.doneAt && t.title !== '' && !asked.has(t.stepKey))
    .map((t) => ({
      key: t.stepKey,
      phase: t.phase as PlanStep['phase'],
      title: t.title,
      why: message('steps.planSteps.doneAndNoLongerAsked'),
      handsOn: 0,
      waiting: 0,
      window: null,
      needs: 'bench',
      cautions: [],
      after: [],
      materials: [],
      uses: [],
      setup: null,
      recoat: null,
      holds: false,
      sprays: false,
      tools: [],
      lines: [],
      risks: [],
      dropped: true,
    }))
}

const publicEntry = (r: LogRow): z.infer<typeof logEntry> => ({
  id: r.id,
  pieceId: r.pieceId,
  stepKey: r.stepKey,
  text: r.text,
  photo: r.photo,
  at: r.at.toISOString(),
})

endpoint(
  bench,
  'get',
  '/pieces/:id/log',
  'The log of a piece, newest first',
  { reply: z.array(logEntry) },
  async (req) => {
    const p = await findPiece(req.params.id!)
    return (await LogRow.findAll({ where: { pieceId: p.id }, order: [['at', 'DESC']], limit: 500 })).map(publicEntry)
  },
)

endpoint(
  bench,
  'post',
  '/pieces/:id/log',
  'Write a log entry',
  { body: newLogEntry, reply: logEntry },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    await mustBePicture(body.photo)
    const [id, at] = [body.id ?? randomUUID(), body.at ? pastMoment(body.at) : rightNow()]
    const [row] = await LogRow.findOrCreate({
      where: { id },
      defaults: { id, pieceId: p.id, stepKey: body.stepKey, text: body.text, photo: body.photo, at },
    })
    await announce({ type: 'piece', id: p.id })
    return publicEntry(row)
  },
)
