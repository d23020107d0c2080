import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** Under this saving of resin a cavity is not worth its two holes, its rinsing and its plugs. */
export const LEAST_SAVING = { ml: 2, share: 0.15 }

/** Whether a part has enough to gain from being hollow; a thin cape has not. */
export function hollowSaving(before: number, after: number, drainable: boolean): Finding<'leaveSolid'>[] {
  const saved = (before - after) / 1000,
    share = (before - after) / before
  const little = saved < LEAST_SAVING.ml || share < LEAST_SAVING.share
  if (!little && drainable) return []
  return [
    {
      id: 'not-worth-hollow',
      level: 'warning',
      value: fixed(saved, 1),
      unit: message('findings.hollowSaving.mlSaved'),
      places: [],
      sentence: drainable
        ? message('findings.hollowSaving.hollowingSavesMlLittleFor', {
            saved: fixed(saved, 1),
            share: fixed(100 * share, 0),
          })
        : message('findings.hollowSaving.itSavesMlButThere', { saved: fixed(saved, 1) }),
      how: message('findings.hollowSaving.volumeBeforeAndAfterWorth', {
        ml: LEAST_SAVING.ml,
        share: fixed(100 * LEAST_SAVING.share, 0),
      }),
      fixes: [
        {
          act: 'leaveSolid',
          label: message('findings.hollowSaving.keepItSolid'),
          effect: message('findings.hollowSaving.addsMlOfResinNo', { saved: fixed(saved, 1) }),
        },
      ],
    },
  ]
}

export const worthHollowing = rule({
  title: message('findings.hollowSaving.hollowingSavesEnoughResin'),
  stages: ['hollow'],
  inputs: ['hollow'],
  find: ({ hollow: { report } }) => hollowSaving(report.volumeBefore, report.volumeAfter, true),
})
