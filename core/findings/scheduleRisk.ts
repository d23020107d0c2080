import { dueAt } from '../math/wallClock'
import type { Finding } from './finding'
import { rule } from './rule'

/**
 * Waits of half a day and more, and a deadline that the plan misses.
 *
 * @param finish ms
 * @param deadline ISO day, due at its end by the clock of the zone
 */
export function scheduleRisk(
  steps: readonly { title: string; waiting: number; doneAt: string | null }[],
  finish: number,
  deadline: string | null,
  zone?: string,
): Finding<never>[] {
  const out: Finding<never>[] = []
  if (deadline) {
    const due = dueAt(deadline, zone)
    const days = Math.ceil((finish - due) / 86_400_000)
    if (finish > due)
      out.push({
        id: 'late',
        level: 'problem',
        value: String(days),
        unit: days === 1 ? 'day late' : 'days late',
        sentence: `The plan ends after the deadline of ${deadline}.`,
        places: [],
        how: 'Steps scheduled into the bench hours one after another, waiting times included.',
        fixes: [],
      })
  }
  const long = steps.filter((s) => !s.doneAt && s.waiting >= 12 * 3600).sort((a, b) => b.waiting - a.waiting)[0]
  if (long)
    out.push({
      id: 'long-wait',
      level: 'warning',
      value: (long.waiting / 3600).toFixed(0),
      unit: 'h of waiting',
      sentence: `“${long.title}” cannot be shortened: start it before a night.`,
      places: [],
      how: 'Product time at 20 °C and 50 % humidity, corrected for the room.',
      fixes: [],
    })
  return out
}

export const keepsDeadline = rule({
  title: 'the plan is not late, and no wait of twelve hours is left',
  stages: ['plan'],
  inputs: ['schedule'],
  find: ({ schedule: { steps, finish, deadline, zone } }) => scheduleRisk(steps, finish, deadline, zone),
})
