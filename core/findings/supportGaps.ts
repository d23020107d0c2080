import type { SupportReport } from '../print/support/support'
import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

/** Tips beyond their strength, contacts that no stem reached, islands that may not be supported, edits without a place. */
export function supportGaps(report: SupportReport): Finding<'support' | 'reorient'>[] {
  const out: Finding<'support' | 'reorient'>[] = []
  const over = report.tips.filter((t) => t.utilisation > 1)
  if (over.length > 0)
    out.push({
      id: 'overload',
      level: 'warning',
      value: message('findings.supportGaps.percent', {
        over: Math.round(Math.max(...over.map((t) => t.utilisation)) * 100),
      }),
      unit: message('findings.supportGaps.ofTipStrength'),
      sentence: message('findings.supportGaps.tipIsTipsArePulled', { length: over.length }),
      places: over.map((t) => [...t.point] as [number, number, number]),
      how: message('findings.supportGaps.peelPressureOnTheShare'),
      fixes: [
        {
          act: 'support',
          closer: true,
          label: message('findings.supportGaps.closerTips'),
          effect: message('findings.supportGaps.spacing20Tighter'),
        },
      ],
    })
  if (report.barred.length > 0)
    out.push({
      id: 'barred',
      level: 'problem',
      value: report.barred.length,
      unit: message('findings.supportGaps.islandsWithoutATip', { n: report.barred.length }),
      sentence: message('findings.supportGaps.theyStartWhereNoSupport'),
      places: report.barred.map((p) => [...p] as [number, number, number]),
      how: message('findings.supportGaps.islandsOfTheLayersWhose'),
      fixes: [
        {
          act: 'reorient',
          label: message('findings.supportGaps.turnIt'),
          effect: message('findings.supportGaps.anotherOrientationMayStartElsewhere'),
        },
      ],
    })
  if (report.unreached.length > 0)
    out.push({
      id: 'unreached',
      level: report.unreached.some((u) => u.island) ? 'warning' : 'note',
      value: report.unreached.length,
      unit: message('findings.supportGaps.placesNotReached', { n: report.unreached.length }),
      sentence: message('findings.supportGaps.noStemReachesThatPlace'),
      places: report.unreached.map((u) => [...u.point] as [number, number, number]),
      how: message('findings.supportGaps.stemsWereTriedAlongThe'),
      fixes: [
        {
          act: 'reorient',
          label: message('findings.supportGaps.turnIt'),
          effect: message('findings.supportGaps.anotherOrientationMayReachThem'),
        },
      ],
    })
  if (report.lostEdits > 0)
    out.push({
      id: 'lost-edits',
      level: 'warning',
      value: report.lostEdits,
      unit: message('findings.supportGaps.editsLost'),
      sentence: message('findings.supportGaps.changesMadeByHandAre'),
      places: [],
      how: message('findings.supportGaps.anEditBelongsToThe'),
      fixes: [],
    })
  return out
}

export const supportsHold = rule({
  title: message('findings.supportGaps.noTipIsOverloadedEvery'),
  stages: ['orient'],
  inputs: ['supports'],
  find: ({ supports }) => supportGaps(supports),
})
