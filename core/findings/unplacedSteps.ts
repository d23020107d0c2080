import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

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
      value: steps,
      unit: message('findings.unplacedSteps.stepsWithoutTime', { n: steps }),
      sentence: anyHours
        ? message('findings.unplacedSteps.withinThePlannedPeriodWhat')
        : message('findings.unplacedSteps.thereAreNoBenchHours'),
      places: [],
      how: message('findings.unplacedSteps.eachStepAtTheFirst'),
      fixes: [],
    },
  ]
}

export const stepsPlaced = rule({
  title: message('findings.unplacedSteps.everyStepHasATime'),
  stages: ['plan'],
  inputs: ['unplaced'],
  find: ({ unplaced }) => unplacedSteps(unplaced.steps, unplaced.anyHours),
})
