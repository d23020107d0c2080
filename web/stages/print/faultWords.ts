import type { Mark } from '../../../contract/runs'

/** What one sees, in the bench's words, and when to choose it. */
export const FAULTS: Record<Mark['kind'], { word: string; hint: string }> = {
  missing: { word: 'missing', hint: 'Something is not there, from here on' },
  loose: { word: 'came loose', hint: 'It came off a support here' },
  torn: { word: 'torn', hint: 'A wall has split or burst' },
  ragged: { word: 'ragged', hint: 'Skin is rough, soft or fuzzy' },
  line: { word: 'line', hint: 'A step or line runs round it' },
  warped: { word: 'bent', hint: 'It is not straight any more' },
  notStuck: { word: 'off the plate', hint: 'It did not hold to the plate' },
}
