import { isoDay } from '../math/wallClock'
/** So much of one thing as it was bought: a bottle, a tin, a sheet, a coil. */
export interface Lot {
  lot: string
  /** left of it, in the unit of what it is a lot of */
  amount: number
  /** day it was opened, ISO; null while it is shut */
  opened: string | null
  /** months that it keeps once open */
  keeps: number
  /** day until which it keeps shut, ISO; null where none is printed on it */
  bestBefore?: string | null
}

/** A bottle of resin: counted in ml, whatever the resin. */
export type Bottle = Pick<Lot, 'lot' | 'opened' | 'keeps'> & { ml: number }

/** Amount of something on the shelf: in its lots where they are counted one by one, else as said for all; null when not counted. */
export const shelfLevel = (r: { level: number | null; bottles: readonly { ml: number }[] }): number | null =>
  r.bottles.length > 0 ? r.bottles.reduce((s, b) => s + b.ml, 0) : r.level

type Dated = Pick<Lot, 'opened' | 'keeps'> & { bestBefore?: string | null }

/** Day until which a lot keeps, ISO; null while nothing says so. The last day of a shorter month stands for days it lacks. */
export function keepsUntil({ opened, keeps, bestBefore = null }: Dated): string | null {
  if (!opened) return bestBefore
  const [y, m, d] = opened.split('-').map(Number) as [number, number, number]
  const last = new Date(Date.UTC(y, m + keeps, 0)).getUTCDate()
  const until = isoDay(Math.round(Date.UTC(y, m - 1 + keeps, Math.min(d, last)) / 86_400_000))
  return bestBefore !== null && bestBefore < until ? bestBefore : until
}
export const spent = (b: Dated, today: string): boolean => {
  const until = keepsUntil(b)
  return until !== null && until < today
}

/** In which order lots are used up: the one that is named, then what was opened first, then what keeps shortest. */
function inUse<T extends Dated & { lot: string }>(lots: readonly T[], named: string): number[] {
  const key = (b: T): string => `${b.opened ?? '9999'} ${b.bestBefore ?? '9999'}`
  return lots
    .map((b, i) => ({ b, i }))
    .sort(
      (p, q) =>
        Number(q.b.lot === named && named !== '') - Number(p.b.lot === named && named !== '') ||
        key(p.b).localeCompare(key(q.b)),
    )
    .map(({ i }) => i)
}

/** Bottles after ml were used. */
export function poured<B extends Dated & { lot: string; ml: number }>(
  bottles: readonly B[],
  lot: string,
  ml: number,
): B[] {
  const lots = bottles.map((b) => ({ ...b, amount: b.ml }))
  return taken(lots, lot, ml, null).lots.map(({ amount, ...b }) => ({ ...b, ml: amount }) as unknown as B)
}

/**
 * Lots after an amount was taken, and what of it there was.
 *
 * @param today ISO day on which a shut lot that is begun is opened; null leaves it as it is
 */
export function taken<L extends Dated & { lot: string; amount: number }>(
  lots: readonly L[],
  named: string,
  amount: number,
  today: string | null,
): { lots: L[]; took: number } {
  const out = lots.map((b) => ({ ...b }))
  let left = amount
  for (const i of inUse(lots, named)) {
    const take = Math.min(left, out[i]!.amount)
    if (take <= 0) continue
    out[i]!.amount -= take
    if (today !== null) out[i]!.opened ??= today
    left -= take
  }
  return { lots: out, took: amount - left }
}

/** Lots after an amount came back: into the one that is in use. */
export function putBack<L extends Dated & { lot: string; amount: number }>(lots: readonly L[], amount: number): L[] {
  const out = lots.map((b) => ({ ...b }))
  const at = out.findIndex((b) => b.opened !== null)
  const lot = out[at === -1 ? 0 : at]
  if (lot) lot.amount += amount
  return out
}
