import { Router } from 'express'
import { z } from 'zod'
import { logEntry, newLogEntry, scheme, tick } from '../../contract/pieces'
import { plan, planChange, planDifference } from '../../contract/plan'
import { planOnHours } from '../../core/plan/scheduling/ofPlan'
import { comparePlans } from '../../core/plan/compare'
import { expected, remedies } from '../../core/plan/dryFit'
import { joinPlan } from '../../core/plan/steps/join'
import { planSteps } from '../../core/plan/steps/planSteps'
import type { PlanStep } from '../../core/plan/steps/types'
import { CAUTIONS } from '../../core/plan/cautions'
import { sprayRefused } from '../../core/plan/drying'
import { database } from '../database'
import { announce } from '../events'
import { LogRow, SchemeRow, Tick } from '../models'
import { planFacts } from '../planFacts'
import { Refusal, stale } from '../problem'
import { endpoint } from '../route'
import { readScheme } from '../schemes'
import { findPiece } from './pieces'
import { readWorkshop } from './stock'

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

const PLAN = 'The bench plan, laid on bench hours; `?measure=1` has measured what it is not sure of yet'
endpoint(bench, 'get', '/pieces/:id/plan', PLAN, { reply: plan }, async (req) => {
  const p = await findPiece(req.params.id!)
  const [{ facts, pending }, shop, rows] = await Promise.all([
    planFacts(p.id, p.data, req.query.measure === '1'),
    readWorkshop(),
    Tick.findAll({ where: { pieceId: p.id } }),
  ])
  const steps = facts.parts.length === 0 ? [] : planSteps(facts)
  const ticks = new Map(rows.map((t) => [t.stepKey, t]))
  const done = new Map(rows.filter((t) => t.doneAt).map((t) => [t.stepKey, t.doneAt!.getTime()]))
  const { slots, finish, impossible } = planOnHours(steps, shop.benchHours, Date.now(), done)
  // As they are gone through: what is done, then by the hour; what no hour holds comes last.
  const hour = (s: PlanStep): number => done.get(s.key) ?? slots.get(s.key)?.start ?? Infinity
  return {
    finish,
    impossible,
    sprayRefused: sprayRefused(facts.room),
    pending,
    pairs: joinPlan(facts).map(({ joint }) => ({
      key: joint.key,
      a: joint.a.name,
      b: joint.b.name,
      ...expected(joint.fit),
      tried: joint.tried,
      remedies: joint.tried ? remedies(joint.tried, joint.fit) : [],
    })),
    steps: inOrder([...steps, ...droppedSteps(rows, steps)], hour).map((s) => ({
      dropped: false,
      ...s,
      cautions: s.cautions.map((c) => CAUTIONS[c]),
      start: slots.get(s.key)?.start ?? null,
      end: slots.get(s.key)?.end ?? null,
      free: slots.get(s.key)?.free ?? null,
      doneAt: ticks.get(s.key)?.doneAt?.toISOString() ?? null,
      timerUntil: ticks.get(s.key)?.timerUntil?.toISOString() ?? null,
      critical: slots.get(s.key)?.critical ?? false,
    })),
  }
})

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
    if (facts.parts.length === 0)
      throw new Refusal(409, 'nothing-to-plan', 'There is no plan to compare yet: drop a sculpt first.')
    const then = { ...facts, schools: { ...facts.schools, ...body.schools }, finish: body.finish ?? facts.finish }
    const ticked = new Set(done.filter((t) => t.doneAt).map((t) => t.stepKey))
    return comparePlans(planSteps(facts), planSteps(then), ticked, shop.labour)
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
      why: 'It was done, and the plan as it is now would not ask for it.',
      handsOn: 0,
      waiting: 0,
      window: null,
      needs: 'bench',
      cautions: [],
      after: [],
      materials: [],
      uses: [],
      setup: null,
      holds: false,
      sprays: false,
      tools: [],
      lines: [],
      risks: [],
      dropped: true,
    }))
}

/** ms by which another device's clock may be ahead */
const CLOCK_SLACK = 5 * 60_000
endpoint(bench, 'put', '/pieces/:id/ticks', 'Tick a step, or start its timer', { body: tick }, async (req, body) => {
  const p = await findPiece(req.params.id!)
  const doneAt = body.doneAt ? new Date(body.doneAt) : null
  if (doneAt && doneAt.getTime() > Date.now() + CLOCK_SLACK)
    throw new Refusal(
      422,
      'done-in-future',
      `That would be done at ${doneAt.toISOString()}, which is yet to come. Set the clock of this device and tick it again.`,
    )
  await database.transaction(async (transaction) => {
    const at = { pieceId: p.id, stepKey: body.stepKey }
    const was = await Tick.findOne({ where: at, lock: true, transaction })
    await Tick.upsert(
      {
        ...at,
        // Two who tick the same step did it once: when the first of them said so.
        doneAt: doneAt && was?.doneAt ? was.doneAt : doneAt,
        timerUntil: body.timerUntil ? new Date(body.timerUntil) : null,
        title: body.title || was?.title || '',
        phase: body.phase || was?.phase || '',
      },
      { transaction },
    )
  })
  await announce({ type: 'piece', id: p.id })
  return undefined
})

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
    const row = await LogRow.create({ pieceId: p.id, stepKey: body.stepKey, text: body.text, photo: body.photo })
    await announce({ type: 'piece', id: p.id })
    return publicEntry(row)
  },
)
