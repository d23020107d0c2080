/** A bottle of resin as it stands on the shelf. */
export interface Bottle {
  lot: string
  /** ml left */
  ml: number
  /** day it was opened, ISO; null while it is shut */
  opened: string | null
  /** months that it keeps once open */
  keeps: number
}

/** ml of a resin on the shelf: in its bottles where they are counted one by one, else as said for all; null when not counted. */
export const shelfLevel = (r: { level: number | null; bottles: readonly Bottle[] }): number | null =>
  r.bottles.length > 0 ? r.bottles.reduce((s, b) => s + b.ml, 0) : r.level

/** Day until which an open bottle keeps, ISO; null while it is shut. The last day of a shorter month stands for days it lacks. */
export function keepsUntil({ opened, keeps }: Bottle): string | null {
  if (!opened) return null
  const [y, m, d] = opened.split('-').map(Number) as [number, number, number]
  const last = new Date(Date.UTC(y, m + keeps, 0)).getUTCDate()
  return new Date(Date.UTC(y, m - 1 + keeps, Math.min(d, last))).toISOString().slice(0, 10)
}
export const spent = (b: Bottle, today: string): boolean => {
  const until = keepsUntil(b)
  return until !== null && until < today
}

/** Bottles after ml were used: of the lot that was named, then of those opened first. */
export function poured(bottles: readonly Bottle[], lot: string, ml: number): Bottle[] {
  const order = bottles
    .map((b, i) => ({ b, i }))
    .sort(
      (p, q) =>
        Number(q.b.lot === lot && lot !== '') - Number(p.b.lot === lot && lot !== '') ||
        (p.b.opened ?? '9999').localeCompare(q.b.opened ?? '9999'),
    )
  const out = bottles.map((b) => ({ ...b }))
  let left = ml
  for (const { i } of order) {
    const take = Math.min(left, out[i]!.ml)
    out[i]!.ml -= take
    left -= take
  }
  return out
}
