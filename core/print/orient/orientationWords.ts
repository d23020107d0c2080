import type { OrientationScore } from './orientation'
import { fixed, type Fixed } from '../../words/format'
import { message, type Message } from '../../words/message'

const cm2 = (v: number): Fixed => fixed(v / 100, 1)

/** Everything that speaks for one way up against another, as parts of a sentence, strongest first. */
function better(a: OrientationScore, b: OrientationScore): Message[] {
  const said: { gain: number; words: Message }[] = []
  const compare = (x: number, y: number, least: number, words: (x: number, y: number) => Message): void => {
    if (y - x > least && x < 0.9 * y) said.push({ gain: (y - x) / Math.max(y, 1e-9), words: words(x, y) })
  }
  compare(a.focal, b.focal, 5, (x, y) =>
    x < 5
      ? message('prints.orientationWords.keepsTipsOffTheFocal')
      : message('prints.orientationWords.putsTipsOnOfFocal', { cm2: cm2(x), cm22: cm2(y) }),
  )
  compare(a.scar, b.scar, 20, (x, y) =>
    message('prints.orientationWords.marksOfVisibleSurfaceInstead', { cm2: cm2(x), cm22: cm2(y) }),
  )
  compare(a.cup, b.cup, 20, (x, y) =>
    x < 20
      ? message('prints.orientationWords.closesNoSuctionCup')
      : message('prints.orientationWords.closesASuctionCupOf', { cm2: cm2(x), cm22: cm2(y) }),
  )
  compare(a.peak, b.peak, 50, (x, y) =>
    message('prints.orientationWords.hasLayersOfAtMost', { cm2: cm2(x), cm22: cm2(y) }),
  )
  compare(a.height, b.height, 3, (x, y) =>
    message('prints.orientationWords.isMmTallInsteadOf', { x: fixed(x, 0), y: fixed(y, 0) }),
  )
  compare(a.resin, b.resin, 300, (x, y) =>
    message('prints.orientationWords.takesMlOfSupportsInstead', { x: fixed(x / 1000, 1), y: fixed(y / 1000, 1) }),
  )
  compare(a.starts, b.starts, 3, (x, y) => message('prints.orientationWords.startsInTheAirAt', { x, y }))
  return said.sort((x, y) => y.gain - x.gain).map((s) => s.words)
}

/** Why this way up, against standing upright or against the runner-up: what it gains and what it costs for that. */
export function whyThisWay(chosen: OrientationScore, other: OrientationScore, name: string): Message {
  const gains = better(chosen, other),
    costs = better(other, chosen)
  if (gains.length === 0 && costs.length === 0) return message('prints.orientationWords.aboutAsGoodAsIn', { name })
  if (gains.length === 0) return message('prints.orientationWords.comparedWithItHasNo', { name })
  return message('prints.orientationWords.comparedWithIt', {
    name,
    gains: gains.slice(0, 3),
    costs: costs.slice(0, 2),
    price: costs.length > 0,
  })
}
