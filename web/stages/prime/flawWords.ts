import type { FlawKind } from '../../../core/plan/facts/flaws'

/** Kinds of flaw as the hand that marks them would say it, with the size that is usual, mm. */
export const FLAWS: Readonly<Record<FlawKind, { word: string; hint: string; size: number }>> = {
  pit: { word: 'pit', hint: 'a hole or a torn tip', size: 0.6 },
  step: { word: 'steps', hint: 'layers that show', size: 8 },
  seam: { word: 'seam', hint: 'a joint that shows', size: 12 },
  scratch: { word: 'scratch', hint: 'a line that paper left', size: 6 },
  dust: { word: 'dust', hint: 'a speck under the film', size: 0.8 },
  run: { word: 'run', hint: 'primer that ran or pooled', size: 6 },
  missing: { word: 'detail gone', hint: 'sanded or drowned away', size: 3 },
}
