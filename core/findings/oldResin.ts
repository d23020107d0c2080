import { dayNumber, daysBetween, isoDay } from '../math/wallClock'
import { keepsUntil, spent, type Bottle } from '../stock/lots'
import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

/** Bottles that are past their time, or will be within the month. */
export function oldResin(name: string, bottles: readonly Bottle[], today: string): Finding<never>[] {
  const soon = isoDay(dayNumber(today) + 30)
  return bottles.flatMap((b): Finding<never>[] => {
    const until = keepsUntil(b)
    if (!until || b.ml <= 0 || until >= soon) return []
    const old = spent(b, today)
    const days = daysBetween(today, until)
    return [
      {
        id: `resin-old-${b.lot}`,
        level: old ? 'warning' : 'note',
        value: Math.abs(days),
        unit: old ? message('findings.oldResin.daysPastItsDate') : message('findings.oldResin.daysLeft'),
        sentence: message('findings.oldResin.lotWasOpenedAndKeeps', {
          name,
          lot: Boolean(b.lot),
          lot2: b.lot,
          opened: b.opened,
          keeps: b.keeps,
          old,
        }),
        places: [],
        how: message('findings.oldResin.byTheDayItWas'),
        fixes: [],
      },
    ]
  })
}

export const resinFresh = rule({
  title: message('findings.oldResin.noBottleIsPastIts'),
  stages: ['plates'],
  inputs: ['resinStock'],
  find: ({ resinStock: { name, bottles, today } }) => oldResin(name, bottles, today),
})
