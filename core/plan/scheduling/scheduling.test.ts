import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { improve, cycleAmong } from './improve'
import { Placer } from './place'
import { tasksOf, type Wish } from './ofPlan'
import { slackOf } from './slack'
import type { Person, Placed, Problem, Task } from './types'
import { windowsOf } from './windows'

/** Every day from nine to eleven: a dozen slots of ten minutes. */
const person = (name: string): Person => ({
  name,
  hours: Array.from({ length: 7 }, (_, weekday) => ({ weekday, from: 540, to: 660 })),
  off: [],
})
const START = new Date(2026, 5, 1, 9).getTime()
const PER_DAY = 12,
  DAYS = 3
const slotTime = (k: number): number => new Date(2026, 5, 1 + Math.floor(k / PER_DAY), 9, 10 * (k % PER_DAY)).getTime()
const problemOf = (tasks: Task[], people: number, due: Record<string, number> = {}): Problem => ({
  tasks,
  people: Array.from({ length: people }, (_, i) => person(`p${i}`)),
  resources: { bench: 9, airbrush: 1 },
  start: START,
  due,
})
const some = (most: number): fc.Arbitrary<Task[]> =>
  fc
    .array(
      fc.record({
        work: fc.integer({ min: 1, max: 5 }),
        waiting: fc.integer({ min: 0, max: 8 }),
        needs: fc.constantFrom('bench', 'airbrush'),
        piece: fc.constantFrom('a', 'b'),
        after: fc.array(fc.nat(20), { maxLength: 2 }),
      }),
      { minLength: 2, maxLength: most },
    )
    .map((list) =>
      list.map((t, i) => ({
        id: `t${i}`,
        piece: t.piece,
        work: t.work * 600,
        waiting: t.waiting * 600,
        needs: t.needs,
        after: i === 0 ? [] : [...new Set(t.after.map((k) => `t${k % i}`))],
      })),
    )

/** The least cost there is, by trying every start of every task: an independent truth, with people alike. */
function leastCost({ tasks, people, due }: Problem): number {
  const slots = PER_DAY * DAYS
  const starts = tasks.map(() => 0)
  let best = Infinity
  const busy = new Uint8Array(slots),
    sprayed = new Uint8Array(slots)
  const look = (i: number): void => {
    if (i === tasks.length) {
      const finish: Record<string, number> = {}
      tasks.forEach((t, k) => {
        const end = slotTime(starts[k]!) + (t.work + t.waiting) * 1000
        finish[t.piece] = Math.max(finish[t.piece] ?? START, end)
      })
      const ends = Object.entries(finish)
      const late = ends.reduce((s, [p, e]) => s + Math.max(0, e - (due[p] ?? Infinity)), 0)
      const cost =
        20 * late + Math.max(...ends.map(([, e]) => e)) - START + 0.05 * ends.reduce((s, [, e]) => s + e - START, 0)
      best = Math.min(best, cost / 1000)
      return
    }
    const t = tasks[i]!,
      length = t.work / 600
    for (let k = 0; k + length <= slots; k++) {
      // In one go: not over the end of a day.
      if (Math.floor(k / PER_DAY) !== Math.floor((k + length - 1) / PER_DAY)) continue
      const begins = slotTime(k)
      if (
        t.after.some((a) => {
          const j = Number(a.slice(1))
          return slotTime(starts[j]!) + (tasks[j]!.work + tasks[j]!.waiting) * 1000 > begins
        })
      )
        continue
      let fits = true
      for (let s = k; s < k + length; s++)
        if (busy[s]! >= people.length || (t.needs === 'airbrush' && sprayed[s] === 1)) fits = false
      if (!fits) continue
      for (let s = k; s < k + length; s++) {
        busy[s]!++
        if (t.needs === 'airbrush') sprayed[s] = 1
      }
      starts[i] = k
      look(i + 1)
      for (let s = k; s < k + length; s++) {
        busy[s]!--
        if (t.needs === 'airbrush') sprayed[s] = 0
      }
    }
  }
  look(0)
  return best
}
const quick = { tries: 300, budget: Infinity, seed: 3 }
const frozen = (): number => 0

describe('scheduling', () => {
  it('comes within 5 % of the best there is, on small cases checked by trying everything', () => {
    fc.assert(
      fc.property(
        some(4),
        fc.integer({ min: 1, max: 2 }),
        fc.integer({ min: 0, max: 30 }),
        (tasks, people, dueSlot) => {
          const problem = problemOf(tasks, people, { a: slotTime(dueSlot) })
          const least = leastCost(problem)
          if (least === Infinity) return
          const { cost } = improve(problem, quick, frozen)
          expect(cost).toBeLessThanOrEqual(1.05 * least + 1e-6)
          // Better than the best would be a rule broken.
          expect(cost).toBeGreaterThanOrEqual(least - 1e-6)
        },
      ),
      { numRuns: 40, seed: 11 },
    )
  })
  it('never breaks a precedence, a window, a person or a place, whatever the tasks', () => {
    fc.assert(
      fc.property(some(25), fc.integer({ min: 1, max: 3 }), (tasks, people) => {
        const problem = problemOf(tasks, people)
        const { placed, impossible } = improve(problem, { ...quick, tries: 40 }, frozen)
        expect(impossible).toEqual([])
        const at = new Map(placed.map((p) => [p.id, p]))
        for (const t of tasks) {
          const p = at.get(t.id)!
          expect(p.end - p.start).toBe(t.work * 1000)
          expect(p.free).toBe(p.end + t.waiting * 1000)
          for (const a of t.after) expect(p.start).toBeGreaterThanOrEqual(at.get(a)!.free)
          const [from, to] = [new Date(p.start), new Date(p.end)]
          expect(from.getHours() * 60 + from.getMinutes()).toBeGreaterThanOrEqual(540)
          expect(to.getHours() * 60 + to.getMinutes()).toBeLessThanOrEqual(660)
          expect(to.getDate()).toBe(from.getDate())
          for (const q of placed) {
            if (q === p || q.end <= p.start || q.start >= p.end) continue
            expect(q.person).not.toBe(p.person)
            const other = tasks.find((x) => x.id === q.id)!
            if (t.needs === 'airbrush') expect(other.needs).not.toBe('airbrush')
          }
        }
      }),
      { numRuns: 60, seed: 5 },
    )
  })
  it('does work that no window holds over several, names what nobody has hours for, and what waits for that', () => {
    const task = (id: string, work: number, after: string[] = []): Task => ({
      id,
      piece: 'a',
      work,
      waiting: 0,
      needs: 'bench',
      after,
    })
    const long = improve(problemOf([task('long', 3 * 3600)], 1), quick, frozen)
    expect(long.placed[0]).toMatchObject({ start: START, end: new Date(2026, 5, 2, 10).getTime() })
    const idle = {
      ...problemOf([task('a', 60), task('b', 60, ['a'])], 1),
      people: [{ name: 'none', hours: [], off: [] }],
    }
    expect(improve(idle, quick, frozen).impossible.sort()).toEqual(['a', 'b'])
    expect(() => improve(problemOf([task('a', 60, ['b']), task('b', 60, ['a'])], 1), quick, frozen)).toThrow(RangeError)
    expect(
      cycleAmong([task('x', 1), task('a', 60, ['b', 'x']), task('b', 60, ['a']), task('c', 60, ['b'])]).sort(),
    ).toEqual(['a', 'b'])
  })
  it('keeps local hours over a clock change, and days off', () => {
    // Two weeks round the last Sunday of March and of October, wherever the tests run.
    for (const month of [2, 9]) {
      const p = { ...person('p'), off: [`2026-${month === 2 ? '03' : '10'}-28`] }
      const { from, to } = windowsOf(p, new Date(2026, month, 20).getTime(), undefined, 14)
      expect(from).toHaveLength(13)
      from.forEach((f, i) => {
        expect(new Date(f).getHours()).toBe(9)
        expect(new Date(to[i]!).getHours()).toBe(11)
        expect(new Date(f).getDate()).not.toBe(28)
      })
    }
    const overlap = {
      name: 'p',
      off: [],
      hours: [
        { weekday: 1, from: 540, to: 660 },
        { weekday: 1, from: 600, to: 720 },
      ],
    }
    const w = windowsOf(overlap, START, undefined, 1)
    expect([...w.from, ...w.to]).toEqual([START, new Date(2026, 5, 1, 12).getTime()])
  })
  it('tells by how much a task may slip: of two that must both wait out, the shorter by their difference', () => {
    const tasks: Task[] = [
      { id: 'long', piece: 'a', work: 600, waiting: 6000, needs: 'bench', after: [] },
      { id: 'short', piece: 'a', work: 600, waiting: 1200, needs: 'bench', after: [] },
      { id: 'join', piece: 'a', work: 600, waiting: 0, needs: 'bench', after: ['long', 'short'] },
    ]
    const problem = problemOf(tasks, 2)
    const slack = slackOf(problem, new Placer(problem).schedule([0, 1, 2]))
    expect(slack.get('long')).toBe(0)
    expect(slack.get('join')).toBe(0)
    expect(slack.get('short')).toBe(4800)
    const eased = { ...problem, due: { a: START + 10_000_000 } }
    expect(slackOf(eased, new Placer(eased).schedule([0, 1, 2])).get('join')).toBe(10_000 - 7200)
  })
  it('tells that a task may slip no farther than what its person does next, though nothing waits for it', () => {
    const at = (id: string, piece: string): Task => ({ id, piece, work: 600, waiting: 0, needs: id, after: [] })
    // Two pieces at different places, one pair of hands: the second is due as it ends, the first in a week.
    const one = problemOf([at('first', 'a'), at('second', 'b')], 1)
    const problem = { ...one, due: { a: START + 7 * 86_400_000, b: START + 1_200_000 } }
    const slack = slackOf(problem, new Placer(problem).schedule([0, 1]))
    expect(slack.get('second')).toBe(0)
    expect(slack.get('first')).toBe(0)
    const later = { ...problem, due: { ...problem.due, b: START + 1_500_000 } }
    expect(slackOf(later, new Placer(later).schedule([0, 1])).get('first')).toBe(300)
  })
  it('gets better with trying: a dozen pieces, six hundred steps, five places', () => {
    const tasks: Task[] = Array.from({ length: 12 }, (_, p) =>
      Array.from({ length: 50 }, (_, k): Task => ({
        id: `${p}.${k}`,
        piece: `p${p}`,
        work: 300 + ((p * 7 + k * 13) % 11) * 240,
        waiting: k % 4 === 3 ? 7200 + 3600 * ((p + k) % 5) : 0,
        needs: ['bench', 'airbrush', 'lamp', 'printer', 'station'][(p + k) % 5]!,
        after: k > 0 ? [`${p}.${k - 1}`] : [],
      })),
    ).flat()
    const problem = problemOf(
      tasks,
      2,
      Object.fromEntries(Array.from({ length: 12 }, (_, p) => [`p${p}`, START + (10 + 2 * p) * 86_400_000])),
    )
    const first = improve(problem, { tries: 0, budget: Infinity, seed: 1 }, frozen)
    const better = improve(problem, { tries: 150, budget: Infinity, seed: 1 }, frozen)
    expect(first.placed).toHaveLength(600)
    expect(better.cost).toBeLessThanOrEqual(first.cost)
    // The same seed gives the same schedule.
    expect(improve(problem, { tries: 150, budget: Infinity, seed: 1 }, frozen).cost).toBe(better.cost)
  })
  it('schedules one piece on its own hours: waits fill with other work, what is done is gone and dries from when it was done', () => {
    type Step = Parameters<typeof tasksOf>[1][number]
    const step = (key: string, handsOn: number, waiting: number, after: string[]): Step => ({
      key,
      handsOn,
      waiting,
      after,
      needs: 'bench',
    })
    const steps = [step('glue', 600, 3600, []), step('fill', 1200, 0, ['glue']), step('strip', 1800, 0, [])]
    const laid = (done: [string, number][] = [], wishes: [string, Wish][] = [], ready = 0): Map<string, Placed> => {
      const problem = problemOf(tasksOf('a', steps, new Map(done), new Map(wishes), ready), 1)
      const made = improve(problem, { tries: 0, budget: Infinity, seed: 1 }, frozen)
      return new Map(made.placed.map((p) => [p.id.slice(3), p]))
    }
    const all = laid()
    expect(all.get('glue')!.start).toBe(START)
    // While the glue sets the supports come off.
    expect(all.get('strip')!.start).toBe(all.get('glue')!.end)
    expect(all.get('fill')!.start).toBe(all.get('glue')!.free)
    const left = laid([['glue', START - 1_800_000]])
    expect([...left.keys()].sort()).toEqual(['fill', 'strip'])
    expect(left.get('fill')!.start).toBe(START + 1_800_000)
    expect(laid(steps.map((s) => [s.key, START])).size).toBe(0)
    // Done out of turn, a step lets nothing by that comes before it.
    const turn = [step('wash', 600, 600, []), step('cure', 600, 0, ['wash']), step('sand', 600, 0, ['cure'])]
    expect(tasksOf('a', turn, new Map([['cure', START]])).map((t) => t.after)).toEqual([[], ['a: wash']])
    // What a hand wants: shorter, later, after something else, or not before the printer is done.
    const wished = laid([], [['strip', { handsOn: 300, notBefore: START + 3_600_000, after: ['a: fill'] }]])
    expect(wished.get('strip')!.end - wished.get('strip')!.start).toBe(300_000)
    expect(wished.get('strip')!.start).toBe(wished.get('fill')!.end)
    expect(laid([], [], START + 600_000).get('glue')!.start).toBe(START + 600_000)
  })
})
