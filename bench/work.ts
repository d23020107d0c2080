import { improve } from '../core/plan/scheduling/improve'
import { lateness, spreadsOf } from '../core/plan/scheduling/lateness'
import type { Problem, Task } from '../core/plan/scheduling/types'
import { planSteps } from '../core/plan/steps/planSteps'
import { facts, joint, part } from '../core/plan/steps/testFacts'

type Time = <T>(work: () => T | Promise<T>) => Promise<[number, T]>
type Row = (what: string, ours: number, baseline: string, theirs: number | null, wanted: string, note?: string) => void

const DAY = 86_400_000
const PLACES = ['bench', 'airbrush', 'lamp', 'printer', 'station']

/** The bench: a large statue planned, and a dozen pieces laid on the hours of two people. */
export async function workRows(time: Time, row: Row): Promise<void> {
  const names = Array.from({ length: 40 }, (_, k) => `part ${k}`)
  const statue = facts({
    parts: names.map((n) => part(n)),
    joints: names.slice(1).map((n, k) => joint(names[k]!, n)),
    finish: 'exhibition',
  })
  planSteps(statue)
  const [planned, steps] = await time(() => planSteps(statue))
  row('plan of a statue of 40 parts', planned, '', null, '1 s', `${steps.length} steps`)

  const start = new Date(2026, 5, 1, 9).getTime()
  const tasks = Array.from({ length: 12 }, (_, p) =>
    Array.from({ length: 50 }, (_, k): Task => ({
      id: `${p}.${k}`,
      piece: `p${p}`,
      work: 300 + ((p * 7 + k * 13) % 11) * 240,
      waiting: k % 4 === 3 ? 7200 + 3600 * ((p + k) % 5) : 0,
      needs: PLACES[(p + k) % 5]!,
      after: k > 0 ? [`${p}.${k - 1}`] : [],
    })),
  ).flat()
  const hours = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, from: 540, to: 1020 }))
  const problem: Problem = {
    tasks,
    people: ['one', 'two'].map((name) => ({ name, hours, off: [] })),
    resources: {},
    start,
    due: Object.fromEntries(Array.from({ length: 12 }, (_, p) => [`p${p}`, start + (6 + p) * DAY])),
  }
  const [ruled, first] = await time(() => improve(problem, { tries: 0, budget: Infinity, seed: 1 }))
  row('schedule of 12 pieces, 600 steps, 5 places, by rules', ruled, '', null, '')
  const [improved, best] = await time(() => improve(problem, { tries: 1e6, budget: 5000, seed: 1 }))
  row(
    'the same, improved',
    improved,
    '',
    null,
    '5 s',
    `costs ${(100 * (1 - best.cost / first.cost)).toFixed(1)} % less, ${(best.late / 3600).toFixed(0)} h late in all instead of ${(first.late / 3600).toFixed(0)}`,
  )
  const [risked] = await time(() =>
    lateness(problem, best.order, new Map(tasks.map((t) => [t.id, t.needs])), spreadsOf([]), new Map()),
  )
  row('the same, scheduled 200 times with drawn durations', risked, '', null, '')
}
