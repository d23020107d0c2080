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
      unit: steps === 1 ? 'step without a place' : 'steps without a place',
      sentence: anyHours
        ? 'Within the time that is planned ahead there is no stretch in which everything they need is free: hours at the bench in one go, the machine, air to spray in, or a step before them that has no place itself.'
        : 'There are no bench hours. Set them under Workshop.',
      places: [],
      how: 'Each step at the first moment at which its hours, its machine and the air allow it.',
      fixes: [],
    },
  ]
}

export const stepsPlaced = rule({
  title: 'every step has a place in the bench hours',
  stages: ['plan'],
  inputs: ['unplaced'],
  find: ({ unplaced }) => unplacedSteps(unplaced.steps, unplaced.anyHours),
})
