import type { RecipeAnswer } from '../paint/recipes/recipe'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** A target that no mix of the stock reaches closely enough for a touch-up to vanish. */
export function colourUnreached(region: string, target: string, answer: RecipeAnswer): Finding<never>[] {
  if (answer.reached) return []
  const best = answer.recipes.reduce((m, r) => Math.min(m, r.error), Infinity)
  return [
    {
      id: `colour-${region}`,
      level: 'warning',
      value: best === Infinity ? message('findings.colourUnreached.noColour') : fixed(best, 1),
      unit: message('findings.colourUnreached.e00FromTheTarget'),
      sentence: message('findings.colourUnreached.cannotBeMixedFromThe', {
        region,
        target,
        answer: answer.missing ?? '',
      }),
      places: [],
      how: message('findings.colourUnreached.kubelkaMunkMixesOfUp'),
      fixes: [],
    },
  ]
}

export const targetsReached = rule({
  title: message('findings.colourUnreached.everyTargetCanBeMixed'),
  stages: ['scheme'],
  inputs: ['targets'],
  find: ({ targets }) => targets.flatMap((t) => colourUnreached(t.region, t.target, t.answer)),
})
