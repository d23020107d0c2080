import type { Island } from '../raster/layerGraph'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

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
      value: real.length,
      unit: message('findings.islands.islands', { n: real.length }),
      sentence: message('findings.islands.regionStartsRegionsStartIn', {
        length: real.length,
        real: fixed(Math.max(...real.map((i) => i.area)), 1),
      }),
      places: real.map((i) => [i.x, i.y, (i.layer + 0.5) * step]),
      how: message('findings.islands.regionsOfEachLayerWithout', { step }),
      fixes: [
        {
          act: 'support',
          closer: supported,
          label: supported
            ? message('findings.islands.generateCloserSupports')
            : message('findings.islands.generateSupports'),
          effect: message('findings.islands.putsATipUnderEvery'),
        },
      ],
    },
  ]
}

export const noIsland = rule({
  title: message('findings.islands.nothingStartsInTheAir'),
  stages: ['orient', 'plates'],
  inputs: ['layers'],
  find: ({ layers }) => islandGaps(layers.islands, layers.step, layers.supported),
})
