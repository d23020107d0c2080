import type { PlateAtWork } from './facts'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

type PlateAct = 'refill' | 'resume' | 'judge'
/** Plates that wait for a hand: stand still, do not answer, were refused, came out badly. */
export function printTrouble(plates: readonly PlateAtWork[]): Finding<PlateAct>[] {
  return plates.flatMap((p): Finding<PlateAct>[] => {
    const of = (id: string, rest: Omit<Finding<PlateAct>, 'id' | 'places'>): Finding<PlateAct>[] => [
      { id: `${id} ${p.id}`, places: [], ...rest },
    ]
    const at = message('findings.printTrouble.layerOf', { layer: p.layer, layers: p.layers })
    if (p.problem && p.state === 'planned')
      return of('refused', {
        level: 'problem',
        value: 0,
        unit: message('findings.printTrouble.layersPrintedRefused'),
        sentence: message('findings.printTrouble.refused', { name: p.name, problem: p.problem }),
        how: message('findings.printTrouble.whatThePrinterAnsweredWhen'),
        fixes: [],
      })
    if (p.silent !== null && (p.state === 'sending' || p.state === 'printing'))
      return of('lost', {
        level: 'problem',
        value: Math.max(1, Math.round(p.silent)),
        unit: message('findings.printTrouble.minWithoutAnAnswer'),
        sentence: message('findings.printTrouble.hasNotAnsweredSinceCheck', { name: p.name, at }),
        how: message('findings.printTrouble.askedSeveralTimesASecond'),
        fixes: [],
      })
    if (p.state === 'printing' && p.why === 'vat-empty')
      return of('vat', {
        level: 'problem',
        value: fixed(p.vat ?? 0, 0),
        unit: message('findings.printTrouble.mlInTheVat'),
        sentence: message('findings.printTrouble.hasStoppedAtTooLittle', {
          name: p.name,
          at,
          needed: fixed(p.needed, 0),
        }),
        how: message('findings.printTrouble.theLevelReportedByThe'),
        fixes: [
          {
            act: 'refill',
            plate: p.id,
            label: message('findings.printTrouble.refillWithMl', { needed: fill(p.needed) }),
            effect: message('findings.printTrouble.thePrinterIsToldAnd'),
          },
        ],
      })
    if (p.state === 'printing' && p.doing === 'interrupted')
      return of('power', {
        level: 'problem',
        value: p.layer,
        unit: message('findings.printTrouble.layersBeforeAPowerCut'),
        sentence: message('findings.printTrouble.wasInterruptedAtItCan', { name: p.name, at }),
        how: message('findings.printTrouble.thePrinterRemembersTheLayer'),
        fixes: [
          {
            act: 'resume',
            plate: p.id,
            label: message('findings.printTrouble.goOn'),
            effect: message('findings.printTrouble.fromLayer', { p: p.layer + 1 }),
          },
        ],
      })
    if (p.state === 'printing' && p.vat !== null && p.vat < p.needed)
      return of('vat-soon', {
        level: 'warning',
        value: fixed(p.needed - p.vat, 0),
        unit: message('findings.printTrouble.mlMoreThanTheVat'),
        sentence: message('findings.printTrouble.mlAreStillToBe', {
          needed: fixed(p.needed, 0),
          vat: fixed(p.vat, 0),
          name: p.name,
        }),
        how: message('findings.printTrouble.theLevelReportedByThe2'),
        fixes: [],
      })
    if (p.state === 'ended')
      return of('look', {
        level: 'warning',
        value: 1,
        unit: message('findings.printTrouble.plateWithoutAResult'),
        sentence: message('findings.printTrouble.endedAtIsPrintedRemove', {
          name: p.name,
          layers: p.layer < p.layers,
          at,
        }),
        how: message('findings.printTrouble.theJobHasEnded'),
        fixes: [
          {
            act: 'judge',
            plate: p.id,
            label: message('findings.printTrouble.enterResult'),
            effect: message('findings.printTrouble.partByPart'),
          },
        ],
      })
    if (p.failed > 0 && !p.reprinted)
      return of('failed', {
        level: 'problem',
        value: p.failed,
        unit: message('findings.printTrouble.partPartsFailed', { failed: p.failed }),
        sentence: message('findings.printTrouble.changeTheMostLikelyCause'),
        how: message('findings.printTrouble.asJudgedByHandOr'),
        fixes: [
          {
            act: 'judge',
            plate: p.id,
            label: message('findings.printTrouble.seeWhy'),
            effect: message('findings.printTrouble.causesAndWhatToPrint'),
          },
        ],
      })
    return []
  })
}

/** What is filled in at once: the rest and a reserve, in fifties. */
export const fill = (needed: number): number => Math.ceil((needed + 30) / 50) * 50

export const platesGoOn = rule({
  title: message('findings.printTrouble.noPlateNeedsAttention'),
  stages: ['print'],
  inputs: ['platesAtWork'],
  find: ({ platesAtWork }) => printTrouble(platesAtWork),
})
