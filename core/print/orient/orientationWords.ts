import type { OrientationScore } from './orientation'

const cm2 = (v: number): string => `${(v / 100).toFixed(1)} cm²`

/** Everything that speaks for one way up against another, as parts of a sentence, strongest first. */
function better(a: OrientationScore, b: OrientationScore): string[] {
  const said: { gain: number; words: string }[] = []
  const compare = (x: number, y: number, least: number, words: (x: number, y: number) => string): void => {
    if (y - x > least && x < 0.9 * y) said.push({ gain: (y - x) / Math.max(y, 1e-9), words: words(x, y) })
  }
  compare(a.focal, b.focal, 5, (x, y) =>
    x < 5 ? 'keeps tips off the focal areas' : `puts tips on ${cm2(x)} of focal areas instead of ${cm2(y)}`,
  )
  compare(a.scar, b.scar, 20, (x, y) => `marks ${cm2(x)} of visible surface instead of ${cm2(y)}`)
  compare(a.cup, b.cup, 20, (x, y) =>
    x < 20 ? 'closes no suction cup' : `closes a suction cup of ${cm2(x)} instead of ${cm2(y)}`,
  )
  compare(a.peak, b.peak, 50, (x, y) => `has layers of ${cm2(x)} at most instead of ${cm2(y)}`)
  compare(a.height, b.height, 3, (x, y) => `is ${x.toFixed(0)} mm tall instead of ${y.toFixed(0)}`)
  compare(
    a.resin,
    b.resin,
    300,
    (x, y) => `takes ${(x / 1000).toFixed(1)} ml of supports instead of ${(y / 1000).toFixed(1)}`,
  )
  compare(a.starts, b.starts, 3, (x, y) => `starts in the air at ${x} places instead of ${y}`)
  return said.sort((x, y) => y.gain - x.gain).map((s) => s.words)
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`

/** Why this way up, against standing upright or against the runner-up: what it gains and what it costs for that. */
export function whyThisWay(chosen: OrientationScore, other: OrientationScore, name: string): string {
  const gains = better(chosen, other),
    costs = better(other, chosen)
  if (gains.length === 0 && costs.length === 0) return `About as good as ${name} in every respect.`
  if (gains.length === 0) return `Compared with ${name} it has no advantage.`
  const price = costs.length > 0 ? ` For that, ${name} ${listed(costs.slice(0, 2))}.` : ''
  return `Compared with ${name} it ${listed(gains.slice(0, 3))}.${price}`
}
