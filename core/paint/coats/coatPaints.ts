/** What a coat is made of: one paint, or a mix of several in whole drops. */
export interface CoatPaints {
  id: string
  paintId: string | null
  mix: readonly { paintId: string; drops: number }[]
}

/** Drops by paint. A mix that was chosen stands before the single paint that was there before it. */
export const dropsOf = (c: Pick<CoatPaints, 'paintId' | 'mix'>): { paintId: string; drops: number }[] =>
  c.mix.length > 0 ? [...c.mix] : c.paintId ? [{ paintId: c.paintId, drops: 1 }] : []

/** The same for all coats of the same paint or mix; a coat without a paint is like no other. */
export const paintKey = (c: CoatPaints): string => {
  const drops = dropsOf(c)
  return drops.length > 0 ? JSON.stringify(drops.map((d) => [d.paintId, d.drops])) : c.id
}

/** Shares of its paints by volume, which add up to 1. */
export function sharesOf(c: Pick<CoatPaints, 'paintId' | 'mix'>): { id: string; share: number }[] {
  const drops = dropsOf(c)
  const all = drops.reduce((s, d) => s + d.drops, 0)
  return drops.map((d) => ({ id: d.paintId, share: d.drops / all }))
}
