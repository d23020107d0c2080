import { text } from '../../i18n'
import type { Mark } from '../../../contract/runs'

/** What one sees, in the bench's words, and when to choose it. */
export const FAULTS: Record<Mark['kind'], { word: string; hint: string }> = {
  missing: { word: text('print.faultWords.missing'), hint: text('print.faultWords.somethingIsNotThere') },
  loose: { word: text('print.faultWords.cameLoose'), hint: text('print.faultWords.itCameOffA') },
  torn: { word: text('print.faultWords.torn'), hint: text('print.faultWords.aWallHasSplit') },
  ragged: { word: text('print.faultWords.rough'), hint: text('print.faultWords.theSurfaceIsRough') },
  line: { word: text('print.faultWords.line'), hint: text('print.faultWords.aStepOrLine') },
  warped: { word: text('print.faultWords.bent'), hint: text('print.faultWords.itIsNotStraight') },
  notStuck: { word: text('print.faultWords.offThePlate'), hint: text('print.faultWords.itDidNotStick') },
}
