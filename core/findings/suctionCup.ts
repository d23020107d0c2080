import { VACUUM } from '../defaults/print'
import type { Cup } from '../raster/layerGraph'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** Cups that pull harder than this, N, tear or come off; weaker ones are worth a note. */
const SERIOUS = 10

/** Where it closes first, mm. */
const closed = (c: Cup, step: number): [number, number, number] => [c.startX, c.startY, (c.firstLayer + 0.5) * step]

export function suctionCup(cups: readonly Cup[], step: number): Finding<'ventCup' | 'reorient'>[] {
  return cups.slice(0, 6).map((c, i) => ({
    id: `cup-${i}`,
    level: c.force >= SERIOUS ? 'problem' : c.force > 1.5 ? 'warning' : 'note',
    value: fixed(c.force, c.force < 10 ? 1 : 0),
    unit: message('findings.suctionCup.nOfSuction'),
    sentence: message('findings.suctionCup.aSuctionCupOfCm', {
      c: fixed(c.area / 100, c.area < 100 ? 2 : 1),
      c2: fixed(c.firstLayer * step, 1),
      c3: fixed(c.lastLayer * step, 1),
    }),
    // The closed end first: there a vent helps. Then where it pulls hardest.
    places: [closed(c, step), [c.x, c.y, (c.worstLayer + 0.5) * step]],
    how: message('findings.suctionCup.voidRegionsFollowedFromLayer', { step, vacuum: VACUUM / 1000 }),
    fixes: [
      {
        act: 'ventCup',
        place: closed(c, step),
        label: message('findings.suctionCup.placeDrainHoleThere'),
        effect: message('findings.suctionCup.letsAirInAsThe'),
      },
      {
        act: 'reorient',
        label: message('findings.suctionCup.turnIt'),
        effect: message('findings.suctionCup.anotherOrientationMayNotClose'),
      },
    ],
  }))
}

export const noCup = rule({
  title: message('findings.suctionCup.noSuctionCupClosesAgainst'),
  stages: ['orient', 'plates'],
  inputs: ['layers'],
  find: ({ layers }) => suctionCup(layers.cups, layers.step),
})
