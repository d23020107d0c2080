import { rightNow } from '../../data/clock'
import { Router } from 'express'
import { Transaction } from 'sequelize'
import { z } from 'zod'
import { newPiece } from '../../../contract/pieces'
import { workshop } from '../../../contract/workshop'
import { cleaning, plateData } from '../../../contract/runs'
import { resin as resinSchema } from '../../../contract/stock'
import { CAUTIONS } from '../../../core/plan/materials/cautions'
import { carryOver, cleanUp, type WashedPart } from '../../../core/plan/facts/cleanUp'
import { database } from '../../data/database'
import { announce } from '../../data/events'
import { Piece, PlatePrint, RunRow, StockItem, WorkshopRow } from '../../data/models'
import { Refusal } from '../../domain/refusal'
import { endpoint } from '../route'
import { findPlate } from '../../domain/runs'
import { readWorkshop } from '../../domain/workshop'
import type { Unspoken } from '../../../core/words/spokenBody'
import { message } from '../../../core/words/message'

export const cleaningRoutes = Router()

async function washed(row: PlatePrint, run: RunRow): Promise<WashedPart[]> {
  const resin = await StockItem.findByPk((run.data as { resinId: string }).resinId)
  const clear = resin ? resinSchema.parse(resin.data).clear : false
  return plateData.parse(row.data).parts.map(({ name, facts }) => ({ ...facts, name, clear }))
}

async function cleaningOf(row: PlatePrint, run: RunRow): Promise<Unspoken<z.input<typeof cleaning>>> {
  const shop = await readWorkshop()
  const piece = await Piece.findByPk(run.pieceId)
  const { schools } = newPiece.parse(piece?.data ?? { name: '?' })
  const parts = await washed(row, run)
  const strip = schools.strip ?? shop.schools.strip
  const steps = cleanUp({
    parts,
    strip,
    room: { temperature: shop.temperature, humidity: shop.humidity },
  })
  const { cleaned } = plateData.parse(row.data)
  return {
    ...carryOver(parts, strip),
    steps: steps.map((s) => ({ ...s, cautions: s.cautions.map((c) => CAUTIONS[c]), doneAt: cleaned[s.key] ?? null })),
  }
}

endpoint(
  cleaningRoutes,
  'get',
  '/plates/:id/cleaning',
  'Clean up of what a plate holds, step by step',
  { reply: cleaning },
  async (req) => {
    const { plate, run } = await findPlate(req.params.id!)
    return cleaningOf(plate, run)
  },
)

const BATH_OF: Record<string, 'first' | 'second'> = { wash: 'first', rinse: 'second' }
endpoint(
  cleaningRoutes,
  'put',
  '/plates/:id/cleaning',
  'Tick a step of the clean up; washing puts its resin into the bath',
  { body: z.object({ key: z.string().max(20), done: z.boolean() }), reply: cleaning },
  async (req, body) => {
    const { plate, run } = await findPlate(req.params.id!)
    const before = await cleaningOf(plate, run)
    if (!before.steps.some((s) => s.key === body.key))
      throw new Refusal(404, 'no-such-step', message('refusals.cleaning.thereIsNoSuchStep'))
    await readWorkshop()
    await database.transaction(async (transaction) => {
      // Both rows are held, so that two who tick the same wash put its resin into the bath once.
      const lock = { transaction, lock: Transaction.LOCK.UPDATE }
      const held = (await PlatePrint.findByPk(plate.id, lock))!
      if (held.state !== 'ended' && held.state !== 'judged')
        throw new Refusal(409, 'plate-not-ended', message('refusals.cleaning.itIsStillBeingPrinted'))
      const cleaned = { ...plateData.parse(held.data).cleaned }
      if (Boolean(cleaned[body.key]) === body.done) return
      if (body.done) cleaned[body.key] = rightNow().toISOString()
      else delete cleaned[body.key]
      await held.update({ data: { ...held.data, cleaned } }, { transaction })
      const into = BATH_OF[body.key]
      if (!into) return
      const shop = (await WorkshopRow.findByPk(1, lock))!
      const { baths } = workshop.parse({ ...shop.data, version: shop.version })
      const resin = Math.max(0, baths[into].resin + (body.done ? before[into] : -before[into]))
      await shop.update(
        { data: { ...shop.data, baths: { ...baths, [into]: { ...baths[into], resin } } }, version: shop.version + 1 },
        { transaction },
      )
    })
    await announce({ type: 'run', id: run.pieceId })
    await announce({ type: 'workshop' })
    return cleaningOf((await PlatePrint.findByPk(plate.id))!, run)
  },
)
