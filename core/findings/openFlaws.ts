import type { Cause, FlawKind, Learned } from '../plan/facts/flaws'
import type { Finding } from './finding'
import { rule } from './rule'

const PLURAL: Readonly<Record<FlawKind, string>> = {
  pit: 'pits',
  step: 'steps',
  seam: 'seams',
  scratch: 'scratches',
  dust: 'specks of dust',
  run: 'runs',
  missing: 'places without detail',
}
const FROM: Readonly<Record<Exclude<Cause['kind'], 'tip'>, [words: string, change: string]>> = {
  layers: ['are layer steps', 'Thinner layers or another orientation leave lower steps.'],
  joint: ['are at joints', 'Fit the joints closer, or fill once more before primer.'],
  sanding: ['are from sanding', 'Use no grit more than twice as fine as the one before.'],
  spray: ['come from spraying', 'Spray thinner coats from farther away, in cleaner air.'],
}

/** What is open of a piece's flaws, and what they say of how it was printed and worked. */
export function openFlaws(
  open: readonly { point: readonly [number, number, number] }[],
  pass: number,
): Finding<never>[] {
  if (open.length === 0) return []
  return [
    {
      id: 'flaws-open',
      level: 'warning',
      value: String(open.length),
      unit: open.length === 1 ? 'flaw open' : 'flaws open',
      sentence: `Found up to pass ${pass}, and neither repaired nor accepted.`,
      places: open.map((f) => [...f.point]),
      how: 'Marked on the sculpt by hand; a flaw is closed when it is marked as repaired, or accepted with a note.',
      fixes: [],
    },
  ]
}

/** One finding for each cause that stands behind most flaws of a kind. */
export function flawCauses(learned: readonly Learned[]): Finding<never>[] {
  return learned.map((l) => {
    const [words, change] =
      l.cause.kind === 'tip'
        ? [
            `are scars of tips of ${l.cause.tip} mm`,
            'Thinner tips there, or removing supports while the resin is still green, leave smaller ones.',
          ]
        : FROM[l.cause.kind]
    return {
      id: `flaw-cause ${l.kind} ${l.cause.kind}${l.cause.kind === 'tip' ? ` ${l.cause.tip}` : ''}`,
      level: 'note',
      value: `${l.count} of ${l.of}`,
      unit: PLURAL[l.kind],
      sentence: `${l.count} of ${l.of} ${PLURAL[l.kind]} ${words}${l.region ? `, most of them on ${l.region.toLowerCase()}` : ''}. ${change}`,
      places: [],
      how: 'Each flaw is attributed to the nearest support tip within 0.8 mm of it, else to the usual cause of its kind.',
      fixes: [],
    }
  })
}

export const noFlawOpen = rule({
  title: 'no flaw that was marked is open',
  stages: ['prime'],
  inputs: ['openFlaws'],
  find: ({ openFlaws: { open, pass } }) => openFlaws(open, pass),
})
export const whatFlawsCameOf = rule({
  title: 'no single cause explains most flaws of a kind',
  stages: ['prime', 'print'],
  inputs: ['flawCauses'],
  find: (facts) => flawCauses(facts.flawCauses),
})
