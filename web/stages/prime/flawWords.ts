import { text } from '../../i18n'
import type { FlawKind } from '../../../core/plan/facts/flaws'

/** Kinds of flaw as the hand that marks them would say it, with the size that is usual, mm. */
export const FLAWS: Readonly<Record<FlawKind, { word: string; hint: string; size: number }>> = {
  pit: { word: text('prime.flawWords.pit'), hint: text('prime.flawWords.aHoleOrA'), size: 0.6 },
  step: { word: text('prime.flawWords.layerSteps'), hint: text('prime.flawWords.layersThatShow'), size: 8 },
  seam: { word: text('prime.flawWords.seam'), hint: text('prime.flawWords.aJointThatShows'), size: 12 },
  scratch: { word: text('prime.flawWords.scratch'), hint: text('prime.flawWords.aLineFromSandpaper'), size: 6 },
  dust: { word: text('prime.flawWords.dust'), hint: text('prime.flawWords.aSpeckUnderThe'), size: 0.8 },
  run: { word: text('prime.flawWords.run'), hint: text('prime.flawWords.primerThatRanOr'), size: 6 },
  missing: { word: text('prime.flawWords.detailGone'), hint: text('prime.flawWords.sandedAwayOrFilled'), size: 3 },
}
