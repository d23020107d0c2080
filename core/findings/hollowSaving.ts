import type { Finding } from './finding'
import { rule } from './rule'

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
      value: saved.toFixed(1),
      unit: 'ml saved',
      places: [],
      sentence: drainable
        ? `Hollowing saves ${saved.toFixed(1)} ml, ${(100 * share).toFixed(0)} %: little for the work of two holes, rinsing and plugs. Keeping it solid is the usual choice.`
        : `It saves ${saved.toFixed(1)} ml, but there is no room for the two holes that a cavity needs: raw resin would stay enclosed. Keep it solid.`,
      how: `Volume before and after. Worth it from ${LEAST_SAVING.ml} ml and ${(100 * LEAST_SAVING.share).toFixed(0)} % on, and only where it can drain.`,
      fixes: [{ act: 'leaveSolid', label: 'Keep it solid', effect: `adds ${saved.toFixed(1)} ml of resin, no holes` }],
    },
  ]
}

export const worthHollowing = rule({
  title: 'hollowing saves enough resin',
  stages: ['hollow'],
  inputs: ['hollow'],
  find: ({ hollow: { report } }) => hollowSaving(report.volumeBefore, report.volumeAfter, true),
})
