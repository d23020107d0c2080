import type { PlanStep } from './types'
import type { Said } from '../../words/say'

export interface PlanSum {
  /** s of work, s of waiting one after the other, money for work and what is used up, and s of rework to be expected */
  handsOn: number
  waiting: number
  money: number
  rework: number
}

/**
 * What a change of school does to a plan, before it is taken.
 *
 * @param done keys of steps that are ticked: they stay done, whatever the plan is by then
 * @param labour money an hour
 * @param price money for one unit of a supply
 */
export function comparePlans(
  now: readonly PlanStep[],
  then: readonly PlanStep[],
  done: ReadonlySet<string>,
  labour: number,
  price: (what: string) => number = () => 0,
): {
  now: PlanSum
  then: PlanSum
  added: Said[]
  removed: Said[]
  changed: { title: Said; handsOn: number }[]
  kept: number
  lost: Said[]
} {
  const before = new Map(now.map((s) => [s.key, s])),
    after = new Map(then.map((s) => [s.key, s]))
  const open = (s: PlanStep): boolean => !done.has(s.key)
  return {
    now: sumOf(now.filter(open), labour, price),
    then: sumOf(then.filter(open), labour, price),
    added: then.filter((s) => open(s) && !before.has(s.key)).map((s) => s.title),
    removed: now.filter((s) => open(s) && !after.has(s.key)).map((s) => s.title),
    changed: then.flatMap((s) => {
      const was = before.get(s.key)
      const more = was && open(s) ? s.handsOn - was.handsOn : 0
      return Math.abs(more) >= 30 ? [{ title: s.title, handsOn: more }] : []
    }),
    kept: [...done].filter((k) => after.has(k)).length,
    lost: now.filter((s) => done.has(s.key) && !after.has(s.key)).map((s) => s.title),
  }
}

function sumOf(steps: readonly PlanStep[], labour: number, price: (what: string) => number): PlanSum {
  const handsOn = steps.reduce((s, x) => s + x.handsOn, 0),
    rework = steps.reduce((s, x) => s + x.risks.reduce((r, k) => r + k.chance * k.costs, 0), 0)
  return {
    handsOn,
    waiting: steps.reduce((s, x) => s + x.waiting, 0),
    money:
      ((handsOn + rework) / 3600) * labour +
      steps.reduce((s, x) => s + x.uses.reduce((m, u) => m + u.amount * price(u.what), 0), 0),
    rework,
  }
}
