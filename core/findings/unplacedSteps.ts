import type { Finding } from './finding'
import { rule } from './rule'

/**
 * Steps that the schedule finds no place for.
 *
 * @param steps how many
 * @param anyHours whether anybody has hours at the bench at all
 */
export function unplacedSteps(steps: number, anyHours: boolean): Finding<never>[] {
  if (steps === 0) return []
  return [
    {
      id: 'no-hours',
      level: 'problem',
      value: String(steps),
      unit: steps === 1 ? 'step that cannot be scheduled' : 'steps that cannot be scheduled',
      sentence: anyHours
        ? 'Within the planned period, what they need is never free at the same time: uninterrupted bench hours, the printer, air suitable for spraying, or an earlier step that has no time itself.'
        : 'There are no bench hours. Set them under Workshop.',
      places: [],
      how: 'Each step at the first moment at which its hours, its printer and the air allow it.',
      fixes: [],
    },
  ]
}

export const stepsPlaced = rule({
  title: 'every step has a time in the bench hours',
  stages: ['plan'],
  inputs: ['unplaced'],
  find: ({ unplaced }) => unplacedSteps(unplaced.steps, unplaced.anyHours),
})
