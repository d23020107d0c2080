import type { Cause, FlawKind, Learned } from '../plan/facts/flaws'
import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'
import type { Said } from '../words/say'

const PLURAL: Readonly<Record<FlawKind, Said>> = {
  pit: message('findings.openFlaws.pits'),
  step: message('findings.openFlaws.steps'),
  seam: message('findings.openFlaws.seams'),
  scratch: message('findings.openFlaws.scratches'),
  dust: message('findings.openFlaws.specksOfDust'),
  run: message('findings.openFlaws.runs'),
  missing: message('findings.openFlaws.placesWithoutDetail'),
}
const FROM: Readonly<Record<Exclude<Cause['kind'], 'tip'>, [words: Said, change: Said]>> = {
  layers: [
    message('findings.openFlaws.areLayerSteps'),
    message('findings.openFlaws.thinnerLayersOrAnotherOrientation'),
  ],
  joint: [message('findings.openFlaws.areAtJoints'), message('findings.openFlaws.fitTheJointsCloserOr')],
  sanding: [message('findings.openFlaws.areFromSanding'), message('findings.openFlaws.useNoGritMoreThan')],
  spray: [message('findings.openFlaws.comeFromSpraying'), message('findings.openFlaws.sprayThinnerCoatsFromFarther')],
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
      value: open.length,
      unit: message('findings.openFlaws.flawsOpen', { n: open.length }),
      sentence: message('findings.openFlaws.foundUpToPassAnd', { pass }),
      places: open.map((f) => [...f.point]),
      how: message('findings.openFlaws.markedOnTheSculptBy'),
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
            message('findings.openFlaws.areScarsOfTipsOf', { tip: l.cause.tip }),
            message('findings.openFlaws.thinnerTipsThereOrRemoving'),
          ]
        : FROM[l.cause.kind]
    return {
      id: `flaw-cause ${l.kind} ${l.cause.kind}${l.cause.kind === 'tip' ? ` ${l.cause.tip}` : ''}`,
      level: 'note',
      value: message('findings.openFlaws.countOf', { count: l.count, of: l.of }),
      unit: PLURAL[l.kind],
      sentence: message('findings.openFlaws.ofMostOfThemOn', {
        count: l.count,
        of: l.of,
        kind: PLURAL[l.kind],
        words,
        region: Boolean(l.region),
        region2: l.region?.toLowerCase() ?? '',
        change,
      }),
      places: [],
      how: message('findings.openFlaws.eachFlawIsAttributedTo'),
      fixes: [],
    }
  })
}

export const noFlawOpen = rule({
  title: message('findings.openFlaws.noFlawThatWasMarked'),
  stages: ['prime'],
  inputs: ['openFlaws'],
  find: ({ openFlaws: { open, pass } }) => openFlaws(open, pass),
})
export const whatFlawsCameOf = rule({
  title: message('findings.openFlaws.noSingleCauseExplainsMost'),
  stages: ['prime', 'print'],
  inputs: ['flawCauses'],
  find: (facts) => flawCauses(facts.flawCauses),
})
