import { now, rightNow } from '../../data/clock'
import { Router } from 'express'
import { UniqueConstraintError, type Transaction } from 'sequelize'
import { newTimer, tick, timers, type TimerRecord } from '../../../contract/bench'
import { newPiece } from '../../../contract/pieces'
import { Tick, TimerRow } from '../../data/benchModels'
import { database } from '../../data/database'
import { announce } from '../../data/events'
import { Piece } from '../../data/models'
import { Refusal } from '../../domain/refusal'
import { endpoint } from '../route'
import { takeFromStock } from '../../domain/stockBookings'
import { findPiece } from './pieces'
import { message } from '../../../core/words/message'

/** What became of steps, and the clocks that run. */
export const ticks = Router()

/** ms by which another device's clock may be ahead */
const CLOCK_SLACK = 5 * 60_000

/** A moment that somebody says something happened at. @throws Refusal when it is yet to come */
export function pastMoment(iso: string): Date {
  const at = new Date(iso)
  if (at.getTime() > now() + CLOCK_SLACK)
    throw new Refusal(422, 'done-in-future', message('refusals.ticks.thatWouldBeAtWhich', { at: at.toISOString() }))
  return at
}

const moment = (iso: string | null | undefined): Date | null | undefined =>
  iso ? pastMoment(iso) : (iso as null | undefined)

/** What stands after somebody says so: nothing said changes nothing, and who says it again comes too late. */
const first = (was: Date | null | undefined, said: Date | null | undefined): Date | null =>
  said === undefined ? (was ?? null) : was && said ? was : said

endpoint(
  ticks,
  'put',
  '/pieces/:id/ticks',
  'Begin or tick a step; what is not sent stays',
  { body: tick },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const begunAt = moment(body.begunAt),
      doneAt = moment(body.doneAt)
    await database.transaction(async (transaction) => {
      const at = { pieceId: p.id, stepKey: body.stepKey }
      await Tick.findOrCreate({ where: at, defaults: at, transaction })
      const was = (await Tick.findOne({ where: at, lock: true, transaction }))!
      const begun = first(was.begunAt, begunAt),
        // Two who tick the same step did it once: when the first of them said so.
        done = first(was.doneAt, doneAt)
      if (begun && done && done < begun)
        throw new Refusal(
          422,
          'done-before-begun',
          message('refusals.ticks.itWouldBeDoneAt', { done: done.toISOString(), begun: begun.toISOString() }),
        )
      const measured = begun && done ? Math.round((done.getTime() - begun.getTime()) / 1000) : null
      await was.update(
        {
          begunAt: begun,
          doneAt: done,
          took: done ? (body.took === undefined ? (was.took ?? measured) : body.took) : null,
          planned: body.planned === undefined ? was.planned : Math.round(body.planned),
          title: body.title ?? was.title,
          phase: body.phase ?? was.phase,
        },
        { transaction },
      )
      const clock = (kind: string, from: Date | null | undefined, seconds: number | undefined): Promise<void> =>
        setClock({ ...at, kind, title: body.title ?? was.title }, from, seconds, transaction)
      if (begunAt !== undefined && !done) await clock('pot', begun, body.sets)
      if (doneAt !== undefined) {
        await clock('pot', null, 0)
        await clock('recoat', null, 0)
        await clock('wait', done, body.waits)
      }
      await takeFromStock(p, body.stepKey, done !== null, transaction)
    })
    await announce({ type: 'piece', id: p.id })
    await announce({ type: 'timers' })
    return undefined
  },
)

/** Sets a clock to so many seconds from a moment, or puts it away. */
async function setClock(
  at: { pieceId: string; stepKey: string; kind: string; title: string },
  from: Date | null | undefined,
  seconds: number | undefined,
  transaction: Transaction,
): Promise<void> {
  const where = { pieceId: at.pieceId, stepKey: at.stepKey, kind: at.kind }
  await TimerRow.destroy({ where, transaction })
  if (from && seconds)
    await TimerRow.create({ ...at, until: new Date(from.getTime() + seconds * 1000) }, { transaction })
}

async function publicTimers(rows: readonly TimerRow[]): Promise<TimerRecord[]> {
  const pieces = await Piece.findAll({ where: { id: [...new Set(rows.map((r) => r.pieceId))], deletedAt: null } })
  const name = new Map(pieces.map((p) => [p.id, newPiece.parse(p.data).name]))
  return rows.flatMap((r) =>
    name.has(r.pieceId)
      ? {
          id: r.id,
          pieceId: r.pieceId,
          piece: name.get(r.pieceId)!,
          stepKey: r.stepKey,
          kind: r.kind as TimerRecord['kind'],
          title: r.title,
          until: r.until.toISOString(),
        }
      : [],
  )
}

endpoint(ticks, 'get', '/timers', 'Clocks that run, or ran out unheard', { reply: timers }, async () => ({
  now: rightNow().toISOString(),
  timers: await publicTimers(await TimerRow.findAll({ where: { heardAt: null }, order: [['until', 'ASC']] })),
}))

endpoint(
  ticks,
  'post',
  '/timers',
  'Set a clock; of a step there is one of each kind',
  { body: newTimer },
  async (_req, body) => {
    const p = await findPiece(body.pieceId)
    const { seconds, ...at } = body
    await database
      .transaction((t) => setClock({ ...at, pieceId: p.id }, rightNow(), seconds, t))
      .catch((e: unknown) => {
        // Two set it at the same moment: one of the two clocks stands.
        if (!(e instanceof UniqueConstraintError)) throw e
      })
    await announce({ type: 'timers' })
    await announce({ type: 'piece', id: p.id })
    return undefined
  },
)

endpoint(ticks, 'put', '/timers/:id/heard', 'Dismiss the notice that it ran out', {}, async (req) => {
  await TimerRow.update({ heardAt: rightNow() }, { where: { id: req.params.id!, heardAt: null } })
  await announce({ type: 'timers' })
  return undefined
})

endpoint(ticks, 'delete', '/timers/:id', 'Stop a clock', {}, async (req) => {
  const row = await TimerRow.findByPk(req.params.id!)
  await row?.destroy()
  await announce({ type: 'timers' })
  if (row) await announce({ type: 'piece', id: row.pieceId })
  return undefined
})
