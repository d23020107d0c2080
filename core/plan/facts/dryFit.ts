import { fixed, type Fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** What the fit map says of a pair, and what a hand found. */
export interface PairFit {
  /** mm; below 0 where the parts claim the same room */
  p5: number
  p50: number
  p95: number
  /** mm³ */
  overlap: number
}
/** `tight`: mm too tight, below 0 where it is loose; null: it fits. */
export type Tried = { tight: number | null }

export interface Expectation {
  word: 'binds' | 'press' | 'slides' | 'loose' | 'gapes'
  sentence: Said
}
/** mm a side: tighter than this has to be pressed, wider than that rattles. */
const PRESS = 0.04
const SLIDE = 0.2
const LOOSE = 0.5

/** How a pair will go together, as drawn. */
export function expected({ p5, p50, p95 }: PairFit): Expectation {
  const mm = (v: number): Fixed => fixed(v, 2)
  if (p5 < -0.02)
    return {
      word: 'binds',
      sentence: message('steps.dryFit.thePartsOverlapByThe', { mm: mm(-p5) }),
    }
  if (p50 < PRESS) return { word: 'press', sentence: message('steps.dryFit.perSideItMustBe', { mm: mm(p50) }) }
  if (p50 <= SLIDE) return { word: 'slides', sentence: message('steps.dryFit.perSideItSlidesIn', { mm: mm(p50) }) }
  if (p95 <= LOOSE) return { word: 'loose', sentence: message('steps.dryFit.perSideItIsLoose', { mm: mm(p50) }) }
  return { word: 'gapes', sentence: message('steps.dryFit.theGapIsUpTo', { mm: mm(p95) }) }
}

/** What helps a pair that does not fit, with the figure it takes; nothing when it does. */
export function remedies(tried: Tried, fit: PairFit): Said[] {
  const { tight } = tried
  if (tight === null) return []
  if (tight > 0)
    return [
      message('steps.dryFit.widenTheSocketByMm', { tight: fixed(tight / 2, 2) }),
      message('steps.dryFit.orCutAClearanceOf', { tight: fixed(tight / 2 + 0.05, 2) }),
      ...(fit.overlap > 0 ? [message('steps.dryFit.inTheModelBothOverlap', { overlap: fixed(fit.overlap, 1) })] : []),
    ]
  return [
    message('steps.dryFit.fillMmWithAGap', { tight: fixed(-tight, 2) }),
    ...(tight < -0.3 ? [message('steps.dryFit.fillTheSeamOnceIt')] : []),
  ]
}
