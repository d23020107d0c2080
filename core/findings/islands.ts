import type { Island } from '../raster/layerGraph'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** Islands smaller than this, mm², stick to what is beside them within a layer or two. */
export const FLECK = 0.5

/**
 * What begins in mid air.
 *
 * @param step mm, height of a layer
 * @param supported whether there are supports already
 */
export function islandGaps(islands: readonly Island[], step: number, supported: boolean): Finding<'support'>[] {
  const real = islands.filter((i) => i.area >= FLECK)
  if (real.length === 0) return []
  return [
    {
      id: 'islands',
      level: 'problem',
      value: String(real.length),
      unit: real.length === 1 ? 'island' : 'islands',
      sentence: `${plural(real.length, 'region starts', 'regions start')} in the air; the largest covers ${Math.max(...real.map((i) => i.area)).toFixed(1)} mm². It would fall into the vat.`,
      places: real.map((i) => [i.x, i.y, (i.layer + 0.5) * step]),
      how: `Regions of each layer without overlap with the one below, at ${step} mm.`,
      fixes: [
        {
          act: 'support',
          closer: supported,
          label: supported ? 'Generate closer supports' : 'Generate supports',
          effect: 'puts a tip under every island',
        },
      ],
    },
  ]
}

export const noIsland = rule({
  title: 'nothing starts in the air',
  stages: ['orient', 'plates'],
  inputs: ['layers'],
  find: ({ layers }) => islandGaps(layers.islands, layers.step, layers.supported),
})
