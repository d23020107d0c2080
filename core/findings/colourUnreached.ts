import type { RecipeAnswer } from '../paint/recipes/recipe'
import type { Finding } from './finding'
import { rule } from './rule'

/** A target that no mix of the stock reaches closely enough for a touch-up to vanish. */
export function colourUnreached(region: string, target: string, answer: RecipeAnswer): Finding<never>[] {
  if (answer.reached) return []
  const best = answer.recipes.reduce((m, r) => Math.min(m, r.error), Infinity)
  return [
    {
      id: `colour-${region}`,
      level: 'warning',
      value: best === Infinity ? '–' : best.toFixed(1),
      unit: 'ΔE00 from the target',
      sentence: `${region} (${target}) cannot be mixed from the stock. ${answer.missing ?? ''}`,
      places: [],
      how: 'Kubelka–Munk mixes of up to four paints in twelve drops; a difference of 2 is hardly visible.',
      fixes: [],
    },
  ]
}

export const targetsReached = rule({
  title: 'every target can be mixed from the stock',
  stages: ['scheme'],
  inputs: ['targets'],
  find: ({ targets }) => targets.flatMap((t) => colourUnreached(t.region, t.target, t.answer)),
})
