import { dueAt } from '../math/wallClock'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

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
        value: days,
        unit: message('findings.scheduleRisk.daysLate', { n: days }),
        sentence: message('findings.scheduleRisk.thePlanEndsAfterThe', { deadline }),
        places: [],
        how: message('findings.scheduleRisk.stepsScheduledIntoTheBench'),
        fixes: [],
      })
  }
  const long = steps.filter((s) => !s.doneAt && s.waiting >= 12 * 3600).sort((a, b) => b.waiting - a.waiting)[0]
  if (long)
    out.push({
      id: 'long-wait',
      level: 'warning',
      value: fixed(long.waiting / 3600, 0),
      unit: message('findings.scheduleRisk.hOfWaiting'),
      sentence: message('findings.scheduleRisk.cannotBeShortenedStartIt', { title: long.title }),
      places: [],
      how: message('findings.scheduleRisk.productTimeAt20C'),
      fixes: [],
    })
  return out
}

export const keepsDeadline = rule({
  title: message('findings.scheduleRisk.thePlanIsNotLate'),
  stages: ['plan'],
  inputs: ['schedule'],
  find: ({ schedule: { steps, finish, deadline, zone } }) => scheduleRisk(steps, finish, deadline, zone),
})
