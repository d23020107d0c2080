import { VACUUM } from '../defaults/print'
import type { Cup } from '../raster/layerGraph'
import type { Finding } from './finding'
import { rule } from './rule'

/** Cups that pull harder than this, N, tear or come off; weaker ones are worth a note. */
const SERIOUS = 10

/** Where it closes first, mm. */
const closed = (c: Cup, step: number): [number, number, number] => [c.startX, c.startY, (c.firstLayer + 0.5) * step]

export function suctionCup(cups: readonly Cup[], step: number): Finding<'ventCup' | 'reorient'>[] {
  return cups.slice(0, 6).map((c, i) => ({
    id: `cup-${i}`,
    level: c.force >= SERIOUS ? 'problem' : c.force > 1.5 ? 'warning' : 'note',
    value: c.force.toFixed(c.force < 10 ? 1 : 0),
    unit: 'N of suction',
    sentence: `A suction cup of ${(c.area / 100).toFixed(c.area < 100 ? 2 : 1)} cm² closes against the film between ${(c.firstLayer * step).toFixed(1)} and ${(c.lastLayer * step).toFixed(1)} mm.`,
    // The closed end first: there a vent helps. Then where it pulls hardest.
    places: [closed(c, step), [c.x, c.y, (c.worstLayer + 0.5) * step]],
    how: `Void regions followed from layer to layer at ${step} mm; force at ${VACUUM / 1000} kPa over the enclosed area.`,
    fixes: [
      {
        act: 'ventCup',
        place: closed(c, step),
        label: 'Place drain hole there',
        effect: 'lets air in as the cup forms',
      },
      { act: 'reorient', label: 'Turn it', effect: 'another orientation may not close it' },
    ],
  }))
}

export const noCup = rule({
  title: 'no suction cup closes against the film',
  stages: ['orient', 'plates'],
  inputs: ['layers'],
  find: ({ layers }) => suctionCup(layers.cups, layers.step),
})
