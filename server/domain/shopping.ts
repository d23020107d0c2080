import { material, paint, resin, type MaterialRecord, type ShoppingRow } from '../../contract/stock'
import { newPiece } from '../../contract/pieces'
import { taskId } from '../../core/plan/scheduling/ofPlan'
import { shoppingList, type Need, type OnShelf } from '../../core/plan/materials/shopping'
import { shelfLevel } from '../../core/stock/lots'
import { ofProduct, supply } from '../../core/plan/materials/supplies'
import { Piece, StockItem } from '../data/models'
import { workshopSchedule, plannedPiece } from './schedule'
import { message } from '../../core/words/message'
import type { Unspoken } from '../../core/words/spokenBody'

/** What has to be bought for all pieces as they are planned, and what has run low. */
export async function shopping(): Promise<Unspoken<ShoppingRow>[]> {
  const [{ calendar: c, scheduled }, items, pieces] = await Promise.all([
    workshopSchedule(),
    StockItem.findAll({ where: { kind: ['material', 'paint', 'resin'], deletedAt: null } }),
    Piece.findAll({ where: { deletedAt: null } }),
  ])
  const { slots } = scheduled
  const open = new Set(c.tasks.map((t) => t.id))
  const needs: Need[] = []
  for (const p of pieces) {
    const { steps } = await plannedPiece(p.id)
    for (const s of steps) {
      const id = taskId(p.id, s.key)
      if (!open.has(id)) continue
      for (const u of s.uses) needs.push({ ...u, piece: newPiece.parse(p.data).name, at: slots.get(id)?.start ?? null })
    }
  }
  const shelf = items.map((i): Counted => {
    if (i.kind === 'paint') {
      const p = paint.parse(i.data)
      const lots = [{ lot: '', amount: p.level, opened: null, keeps: 1 }]
      return { id: i.id, name: p.name, unit: 'ml', per: 1, price: 0, serves: [`paint:${i.id}`], reorder: null, lots }
    }
    if (i.kind === 'resin') {
      const r = resin.parse(i.data)
      // A drop of any printing resin fills pits, also of one whose bottles nobody counts.
      const lots = [{ lot: '', amount: shelfLevel(r) ?? Infinity, opened: null, keeps: 1 }]
      return { id: i.id, name: r.name, unit: 'ml', per: 1, price: 0, serves: ['filler:resin'], reorder: null, lots }
    }
    return inSupplies(i.id, material.parse(i.data))
  })
  const byId = new Map(shelf.map((s) => [s.id, s]))
  return shoppingList(needs, shelf, c.zone).map((w) => {
    const item = w.itemId ? byId.get(w.itemId) : undefined,
      known = supply(w.what)
    const unit = item?.unit ?? known?.unit ?? 'ml'
    const per = item?.per ?? 1
    // Nobody sells half a sheet.
    const buy = unit === 'sheets' || unit === 'pieces' ? Math.ceil(per * w.buy - 1e-9) : per * w.buy
    return {
      ...w,
      need: per * w.need,
      have: per * w.have,
      spoils: per * w.spoils,
      buy,
      name: item?.name ?? known?.name ?? message('supplies.gone'),
      unit,
      cost: buy * (item?.price ?? 0),
    }
  })
}

/** On the shelf in the units of what it serves as; `per` of its own are one of them. */
interface Counted extends OnShelf {
  name: string
  unit: ShoppingRow['unit']
  price: number
  per: number
}
function inSupplies(id: string, m: MaterialRecord): Counted {
  const serves = m.serves.filter((w) => ofProduct(m, w) !== null)
  // All that one product serves as is counted alike.
  const per = serves.length > 0 ? ofProduct(m, serves[0]!)! : 1
  return {
    id,
    name: m.name,
    unit: m.unit,
    price: m.price,
    per,
    serves,
    lots: m.lots.map((l) => ({ ...l, amount: l.amount / per })),
    reorder: m.reorder === null ? null : m.reorder / per,
  }
}
