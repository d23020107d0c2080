import type { Transaction } from 'sequelize'
import { material, paint } from '../../contract/stock'
import { ofProduct } from '../../core/plan/materials/supplies'
import { putBack, taken } from '../../core/stock/lots'
import { Booking } from '../data/benchModels'
import { announce } from '../data/events'
import { StockItem, type Piece } from '../data/models'
import { plannedPiece } from './schedule'
import { readWorkshop, zoneOf } from './workshop'
import { dayAt } from '../../core/math/wallClock'

/**
 * Books what a step uses up when it is done, and gives it back when it is not after all. What nothing in stock serves as is not
 * counted; of what there is too little, what there is is taken.
 */
export async function takeFromStock(
  piece: Piece,
  stepKey: string,
  done: boolean,
  transaction: Transaction,
): Promise<void> {
  const at = { pieceId: piece.id, stepKey }
  const booked = await Booking.findAll({ where: at, transaction })
  if (done === booked.length > 0) return
  if (!done) {
    for (const b of booked) {
      await changed(b.itemId, transaction, (m) => ({ ...m, lots: putBack(m.lots, b.amount) }), b.amount)
      await b.destroy({ transaction })
    }
  } else {
    const { steps } = await plannedPiece(piece.id)
    const uses = steps.find((s) => s.key === stepKey)?.uses ?? []
    const items = await StockItem.findAll({ where: { kind: ['material', 'paint'], deletedAt: null }, transaction })
    const today = dayAt(zoneOf(await readWorkshop()))
    const sums = new Map<string, number>()
    for (const u of uses)
      for (const i of items) {
        const per =
          i.kind === 'paint' ? (u.what === `paint:${i.id}` ? 1 : null) : ofProduct(material.parse(i.data), u.what)
        if (per === null) continue
        sums.set(i.id, (sums.get(i.id) ?? 0) + per * u.amount)
        break
      }
    for (const [itemId, amount] of sums) {
      let took = amount
      const use = (m: ReturnType<typeof material.parse>): typeof m => {
        const t = taken(m.lots, '', amount, today)
        took = t.took
        return { ...m, lots: t.lots }
      }
      took = (await changed(itemId, transaction, use, -amount)) ?? took
      if (took > 0) await Booking.create({ ...at, itemId, amount: took }, { transaction })
    }
  }
  transaction.afterCommit(() => void announce({ type: 'stock' }))
}

/** Changes what is left of an item; of paints, which have no lots, by an amount, and gives what of it was taken. */
async function changed(
  itemId: string,
  transaction: Transaction,
  lots: (m: ReturnType<typeof material.parse>) => ReturnType<typeof material.parse>,
  more: number,
): Promise<number | null> {
  const row = await StockItem.findOne({ where: { id: itemId }, lock: true, transaction })
  if (!row) return null
  if (row.kind === 'paint') {
    const p = paint.parse(row.data)
    const level = Math.max(0, p.level + more)
    await row.update({ data: { ...p, level }, version: row.version + 1 }, { transaction })
    return p.level - level
  }
  await row.update({ data: lots(material.parse(row.data)), version: row.version + 1 }, { transaction })
  return null
}

/** What is written on the products in stock that serve as what a step uses. */
export async function careOf(): Promise<(uses: readonly { what: string }[]) => string[]> {
  const rows = await StockItem.findAll({ where: { kind: 'material', deletedAt: null } })
  const items = rows.map((r) => material.parse(r.data)).filter((m) => m.safety !== '')
  return (uses) => items.filter((m) => uses.some((u) => m.serves.includes(u.what))).map((m) => `${m.name}: ${m.safety}`)
}

/** What one unit of a supply costs, by the product in stock that serves as it; 0 where none does. */
export async function priceOf(): Promise<(what: string) => number> {
  const rows = await StockItem.findAll({ where: { kind: 'material', deletedAt: null } })
  const price = new Map(
    rows
      .map((r) => material.parse(r.data))
      .flatMap((m) => m.serves.map((w) => [w, m.price * (ofProduct(m, w) ?? 0)] as const)),
  )
  return (what) => price.get(what) ?? 0
}
