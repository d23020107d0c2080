import { waitingIn, type Room } from './drying'
import type { BenchMaterial } from './materials'

/** One mix, used up before it sets. */
export interface MixedBatch {
  ml: number
  /** s that using it takes */
  work: number
}

/** Share of the working time that is planned for: the last of a mix drags. */
const USABLE = 0.8
/** ml: less than this cannot be measured out in two parts. */
const LEAST_MIX = 0.3
/** What stays on palette and tool, of what is used. */
const WASTE = 1.3

/** s for which a mix can be worked with in this room; Infinity of what waits for light. Warmth shortens it as it does the cure. */
export const potLife = (m: BenchMaterial, room: Room): number =>
  m.working === null ? Infinity : waitingIn(room, m.working, m.setting)

/**
 * Splits work with a material into mixes of equal size that are each used up in time.
 *
 * @param ml that the work takes up
 * @param work s that it takes
 */
export function batches(m: BenchMaterial, ml: number, work: number, room: Room): MixedBatch[] {
  if (!(ml > 0)) return []
  const n = Math.max(1, Math.ceil(work / (USABLE * potLife(m, room)) - 1e-9))
  const each = (ml * WASTE) / n
  return Array.from({ length: n }, () => ({ ml: m.mixed ? Math.max(LEAST_MIX, each) : each, work: work / n }))
}
