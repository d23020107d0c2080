import { Transaction } from 'sequelize'
import { resin as resinSchema } from '../../contract/stock'
import { poured } from '../../core/stock/lots'
import { StockItem } from '../data/models'

/** Takes what a print used off the shelf, as part of noting its end: from the bottle of its lot, or from the level of all. */
export async function resinUsed(resinId: string, lot: string, ml: number, transaction: Transaction): Promise<void> {
  const row = await StockItem.findOne({
    where: { id: resinId, kind: 'resin' },
    transaction,
    lock: Transaction.LOCK.UPDATE,
  })
  if (!row || !(ml > 0)) return
  const data = resinSchema.parse(row.data)
  const level = data.level === null ? null : Math.max(0, data.level - ml)
  await row.update(
    {
      data: data.bottles.length > 0 ? { ...data, bottles: poured(data.bottles, lot, ml) } : { ...data, level },
      version: row.version + 1,
    },
    { transaction },
  )
}
