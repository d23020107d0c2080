import { dayAt } from '../../math/wallClock'
import { keepsUntil, type Lot } from '../../stock/lots'

/** So much of a supply wanted by a step, for a piece, at a time. */
export interface Need {
  what: string
  amount: number
  piece: string
  /** ms since the epoch; null: no hour holds the step yet */
  at: number | null
}
export interface OnShelf {
  id: string
  /** supplies that it serves as */
  serves: readonly string[]
  lots: readonly Lot[]
  reorder: number | null
}
export interface Wanted {
  what: string
  need: number
  have: number
  spoils: number
  buy: number
  by: number | null
  pieces: string[]
  itemId: string | null
  why: 'short' | 'none' | 'reorder'
}

/**
 * What has to be bought for all that is planned: of each supply, what is needed over what there is and keeps until the step
 * that needs it, and what falls to its reorder point by then. What two supplies share is used for the one needed first.
 */
export function shoppingList(needs: readonly Need[], shelf: readonly OnShelf[], zone?: string): Wanted[] {
  const left = new Map(shelf.map((s) => [s.id, s.lots.map((l) => ({ ...l }))]))
  const rows = new Map<string, Wanted & { short: number }>()
  const inTime = [...needs].filter((n) => n.amount > 0).sort((a, b) => (a.at ?? Infinity) - (b.at ?? Infinity))
  for (const n of inTime) {
    const item = shelf.find((s) => s.serves.includes(n.what))
    let row = rows.get(n.what)
    if (!row) {
      row = {
        what: n.what,
        need: 0,
        have: 0,
        spoils: 0,
        buy: 0,
        short: 0,
        by: null,
        pieces: [],
        itemId: null,
        why: 'none',
      }
      rows.set(n.what, row)
    }
    row.need += n.amount
    if (n.at !== null) row.by ??= n.at
    if (!row.pieces.includes(n.piece)) row.pieces.push(n.piece)
    if (item) {
      row.itemId = item.id
      row.why = 'short'
    }
    let wanted = n.amount
    const day = n.at === null ? null : dayAt(zone, n.at)
    for (const lot of item ? left.get(item.id)! : []) {
      const until = keepsUntil(lot)
      if (day !== null && until !== null && until < day) continue
      const take = Math.min(wanted, lot.amount)
      lot.amount -= take
      wanted -= take
      row.have += take
    }
    row.short += wanted
  }
  const out: Wanted[] = [...rows.values()].map(({ short, ...row }) => ({ ...row, buy: short }))
  for (const item of shelf) {
    const kept = left.get(item.id)!.reduce((s, l) => s + l.amount, 0)
    const row = out.find((r) => r.itemId === item.id)
    if (row) row.spoils = row.buy > 0 ? kept : 0
    if (item.reorder === null || kept - (row?.spoils ?? 0) > item.reorder) continue
    const more = item.reorder - (kept - (row?.spoils ?? 0))
    if (row) {
      if (row.buy === 0) row.why = 'reorder'
      row.buy += more
    } else {
      const what = item.serves[0] ?? ''
      out.push({
        what,
        need: 0,
        have: kept,
        spoils: 0,
        buy: more,
        by: null,
        pieces: [],
        itemId: item.id,
        why: 'reorder',
      })
    }
  }
  return out.filter((r) => r.buy > 1e-9).sort((a, b) => (a.by ?? Infinity) - (b.by ?? Infinity))
}
