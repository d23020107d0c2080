import { AIRBRUSHED, BRUSHED } from '../optics/film'

export type Tool = 'brush' | 'airbrush'
/** Dry film of one coat, µm, by tool. */
export const FILM: Record<Tool, number> = { brush: BRUSHED, airbrush: AIRBRUSHED }
/** Share of what leaves the tool that lands on the piece. */
export const TRANSFER: Record<Tool, number> = { brush: 0.9, airbrush: 0.4 }
/** Volume share that stays when a paint dries. */
export const SOLIDS = 0.4
/** ml of a drop from a dropper bottle. */
export const DROP = 0.05

/**
 * ml of paint for an area: area × coats × wet film / what of it lands, thinner not counted.
 *
 * @param area mm²
 * @param coats of the tool's dry film each
 */
export const paintFor = (area: number, coats: number, tool: Tool): number =>
  (area * coats * FILM[tool]) / SOLIDS / 1e6 / TRANSFER[tool]

/** s of hands-on work for one coat on an area (mm²), by tool. */
export const coatTime = (area: number, tool: Tool): number =>
  Math.max(180, (area / 10_000) * (tool === 'airbrush' ? 3 : 11) * 60)
/** s until the next coat may follow, at 20 °C and 50 % */
export const coatDries = (tool: Tool): number => (tool === 'airbrush' ? 5 : 20) * 60

export interface PaintBatch {
  ml: number
  /** how many times the recipe */
  times: number
  drops: number[]
}

/**
 * Drops of a recipe for so much paint: the recipe as often as is needed, never less than once; where all its counts
 * are even, half of it also goes.
 *
 * @param ml wanted, with what is to be kept for touching up
 */
export function batchOf(drops: readonly number[], ml: number): PaintBatch {
  const total = drops.reduce((a, b) => a + b, 0)
  const step = drops.every((d) => d % 2 === 0) ? 0.5 : 1
  const times = Math.max(step, Math.ceil(ml / (total * DROP) / step - 1e-9) * step)
  return { ml: times * total * DROP, times, drops: drops.map((d) => d * times) }
}

/**
 * ml of thinner that a batch takes: each paint as it is thinned for the tool, by its share of the mix.
 *
 * @param parts drops of each paint, and the volume share of it in what is laid, 0 to 1
 */
export function thinnerFor(ml: number, parts: readonly { drops: number; share: number }[]): number {
  const total = parts.reduce((s, p) => s + p.drops, 0)
  return total === 0 ? 0 : parts.reduce((s, p) => s + ((ml * p.drops) / total) * (1 / p.share - 1), 0)
}
