import { dayNumber, daysBetween, isoDay } from '../math/wallClock'
import { keepsUntil, spent, type Bottle } from '../stock/lots'
import type { Finding } from './finding'
import { rule } from './rule'

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
        value: String(Math.abs(days)),
        unit: old ? 'days past its date' : 'days left',
        sentence: `${name}${b.lot ? `, lot ${b.lot}` : ''}, was opened ${b.opened} and keeps ${b.keeps} months. ${old ? 'Shake it well and print a small test first: old resin cures soft.' : 'Use it up first.'}`,
        places: [],
        how: 'By the day it was opened and the months it keeps, both entered under Stock.',
        fixes: [],
      },
    ]
  })
}

export const resinFresh = rule({
  title: 'no bottle is past its date',
  stages: ['plates'],
  inputs: ['resinStock'],
  find: ({ resinStock: { name, bottles, today } }) => oldResin(name, bottles, today),
})
