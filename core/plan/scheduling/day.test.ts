import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayNumber, isoDay, wallClock, weekday } from '../../math/wallClock'
import { BATCH, merged, proposeBatches, withBatches, type TaskBatch } from './batching'
import { fitsNow } from './fitsNow'
import { improve } from './improve'
import { lateness, spreadsOf } from './lateness'
import { Placer } from './place'
import type { Problem, Task } from './types'

const HOUR = 3_600_000
const task = (id: string, more: Partial<Task> = {}): Task => ({
  id,
  piece: 'a',
  work: 1800,
  waiting: 0,
  needs: 'bench',
  after: [],
  ...more,
})
const START = Date.UTC(2026, 5, 1, 9)
const problemOf = (tasks: Task[], more: Partial<Problem> = {}): Problem => ({
  tasks,
  people: [{ name: 'p', hours: [1, 2, 3, 4, 5, 6, 0].map((weekday) => ({ weekday, from: 540, to: 1020 })), off: [] }],
  resources: {},
  start: START,
  due: {},
  zone: 'UTC',
  ...more,
})
const scheduled = (p: Problem): ReturnType<Placer['schedule']> => new Placer(p).schedule(p.tasks.map((_, i) => i))
const at = (p: Problem, id: string): number => scheduled(p).placed.find((x) => x.id === id)!.start

describe('a day at the bench', () => {
  it('reads the clock on the wall in any zone, over the hours that are missing and those that come twice', () => {
    const berlin = wallClock('Europe/Berlin')
    const spring = dayNumber('2026-03-29'),
      autumn = dayNumber('2026-10-25')
    expect(new Date(berlin.at(spring, 60)).toISOString()).toBe('2026-03-29T00:00:00.000Z')
    // Half past two does not come that night: as long after midnight as it would have been.
    expect(new Date(berlin.at(spring, 150)).toISOString()).toBe('2026-03-29T01:30:00.000Z')
    expect(new Date(berlin.at(spring, 600)).toISOString()).toBe('2026-03-29T08:00:00.000Z')
    // Half past two comes twice: the first.
    expect(new Date(berlin.at(autumn, 150)).toISOString()).toBe('2026-10-25T00:30:00.000Z')
    expect(new Date(wallClock('Asia/Kathmandu').at(spring, 0)).toISOString()).toBe('2026-03-28T18:15:00.000Z')
    fc.assert(
      fc.property(
        fc.constantFrom('Europe/Berlin', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC'),
        fc.integer({ min: dayNumber('2025-01-01'), max: dayNumber('2027-12-31') }),
        fc.integer({ min: 240, max: 1439 }),
        (zone, day, minutes) => {
          // After four in the morning no clock is turned: what it shows and when are one and the same.
          const c = wallClock(zone)
          const ms = c.at(day, minutes)
          expect(c.dayOf(ms)).toBe(day)
          expect(c.minutesOf(ms)).toBe(minutes)
        },
      ),
      { seed: 4 },
    )
    expect([weekday(dayNumber('2026-06-01')), isoDay(dayNumber('2026-06-01'))]).toEqual([1, '2026-06-01'])
    expect(() => wallClock('Nowhere/Town')).toThrow(RangeError)
  })
  it('keeps a printer while it prints on, a sprayer out of damp hours, and work with whom it was given to', () => {
    const print = { needs: 'Gannet', holds: true, waiting: 5 * 3600 }
    const two = problemOf([task('one', print), task('two', { ...print, piece: 'b' }), task('sand', { piece: 'c' })])
    expect(at(two, 'two')).toBe(START + 5.5 * HOUR)
    expect(at(two, 'sand')).toBe(START + 0.5 * HOUR)
    // Two of them take both at once.
    expect(at({ ...two, resources: { Gannet: 2 } }, 'two')).toBe(START + 0.5 * HOUR)
    const damp = problemOf([task('spray', { shuns: 'spray' }), task('sand')], {
      closed: { spray: [[START + 0.25 * HOUR, START + 3 * HOUR]] },
    })
    expect(at(damp, 'spray')).toBe(START + 3 * HOUR)
    expect(at(damp, 'sand')).toBe(START)
    const people = ['p', 'q'].map((name) => ({ ...damp.people[0]!, name }))
    const given = scheduled(problemOf([task('hers', { by: 'q' }), task('his', { by: 'nobody' })], { people }))
    expect(given.placed[0]).toMatchObject({ id: 'hers', person: 'q' })
    expect(given.impossible).toEqual(['his'])
    // Bench hours are those of the workshop's clock, wherever the machine stands.
    const there = problemOf([task('a')], { zone: 'America/New_York' })
    expect(at(there, 'a')).toBe(Date.UTC(2026, 5, 1, 13))
  })
  it('begins from the schedule that was kept, also when steps came and went since', () => {
    const tasks = ['a', 'b', 'c', 'd'].map((id) => task(id, { piece: id }))
    const quick = { tries: 0, budget: Infinity, seed: 1 }
    const first = improve(problemOf(tasks, { due: { d: START + HOUR } }), quick, () => 0)
    expect(first.order[0]).toBe('d')
    const then = [...tasks.slice(1), task('d2', { piece: 'd' }), task('e', { piece: 'e' })]
    const again = improve(problemOf(then), { ...quick, hint: first.order }, () => 0)
    expect(again.cost).toBeLessThanOrEqual(improve(problemOf(then), quick, () => 0).cost)
    expect([...again.order].sort()).toEqual(['b', 'c', 'd', 'd2', 'e'])
  })

  it('begins what is wanted when it is wanted, with what that waits for, and else as soon after as can be', () => {
    const tasks = ['a', 'b', 'c'].flatMap((piece) => [
      task(`${piece}1`, { piece }),
      task(`${piece}2`, { piece, after: [`${piece}1`] }),
    ])
    const quick = { tries: 60, budget: Infinity, seed: 1 }
    for (const [id, wanted] of [
      ['c2', START + 0.5 * HOUR],
      ['b1', START],
      ['a2', START + 26 * HOUR],
    ] as const) {
      const asked = tasks.map((t) => (t.id === id ? { ...t, wanted, notBefore: wanted } : t))
      const { placed } = improve(problemOf(asked), quick, () => 0)
      expect(placed.find((p) => p.id === id)!.start).toBe(wanted)
    }
    // Sooner than what it waits for allows it is not.
    const asked = tasks.map((t) => (t.id === 'b2' ? { ...t, wanted: START } : t))
    expect(improve(problemOf(asked), quick, () => 0).placed.find((p) => p.id === 'b2')!.start).toBe(START + 0.5 * HOUR)
  })
  it('learns how long things take: as planned at first, as logged in the end, and what is late follows', () => {
    const none = spreadsOf([])('sand')
    expect([none.middle, none.from]).toEqual([0, 0])
    // Two hundred logged steps that took one and a half times as long, within a tenth.
    const logged = Array.from({ length: 200 }, (_, k) => ({
      kind: 'sand',
      planned: 1000,
      took: 1000 * 1.5 * Math.exp(0.1 * Math.sin(k * 2.399)),
    }))
    const learned = spreadsOf(logged)('sand')
    expect(Math.exp(learned.middle)).toBeCloseTo(1.5, 1)
    expect(learned.width).toBeCloseTo(0.1 / Math.SQRT2, 1)
    // A kind never logged leans on the rest, and is as wide.
    expect(spreadsOf(logged)('glue').middle).toBeCloseTo(learned.middle, 2)
    const one = problemOf([task('a', { work: 4 * 3600 })], { due: { a: START + 6 * HOUR } })
    const kinds = new Map([['a', 'sand']])
    const risk = (spread: ReturnType<typeof spreadsOf>, more = new Map()): { half: number; late: number | null } =>
      lateness(one, ['a'], kinds, spread, more, 2000)['a']!
    // Half of what takes as long as planned, give or take, is over by then.
    expect(risk(spreadsOf([])).half / HOUR).toBeCloseTo(START / HOUR + 4, 0)
    // Six hours are just what it takes by the record: it is late every other time.
    expect(risk(spreadsOf(logged)).late).toBeGreaterThan(0.35)
    expect(risk(spreadsOf(logged)).late).toBeLessThan(0.65)
    // What goes wrong three times in ten, and costs a day, makes it late as often.
    const wrong = new Map([['a', [{ chance: 0.3, costs: 3600 * 3.9 }]]])
    const exact = spreadsOf(Array.from({ length: 4000 }, () => ({ kind: 'sand', planned: 10, took: 10 })))
    expect(risk(exact, wrong).late).toBeCloseTo(0.3, 1)
    expect(risk(exact).late).toBe(0)
  })

  it('finds the best of three quarters of an hour, checked against every sequence there is', () => {
    const some = fc.array(
      fc.record({
        work: fc.integer({ min: 2, max: 30 }),
        waiting: fc.constantFrom(0, 0, 5, 240),
        after: fc.option(fc.nat(6), { nil: null }),
        key: fc.constantFrom('x', 'y', null),
      }),
      { minLength: 1, maxLength: 6 },
    )
    fc.assert(
      fc.property(some, (list) => {
        const tasks = list.map((t, i) =>
          task(`t${i}`, {
            work: t.work * 60,
            waiting: t.waiting * 60,
            after: i > 0 && t.after !== null ? [`t${t.after % i}`] : [],
            setup: t.key ? { key: t.key, seconds: 60 } : null,
          }),
        )
        const o = { seconds: 45 * 60, person: null, away: 12 * 3600, slack: new Map([['t0', 3600]]) }
        const found = fitsNow(problemOf(tasks), o)
        let most = 0
        const look = (done: readonly string[], seconds: number, worth: number, free: Map<string, number>): void => {
          most = Math.max(most, worth)
          for (const t of tasks) {
            if (done.includes(t.id) || !t.after.every((a) => done.includes(a))) continue
            const last = tasks.find((x) => x.id === done.at(-1))
            const takes = t.work - (t.setup && last?.setup?.key === t.setup.key ? 60 : 0)
            const begin = Math.max(seconds, ...t.after.map((a) => free.get(a)!))
            if (begin + takes > o.seconds) continue
            const gain = t.work * (1 + (t.id === 't0' ? 2 ** (-1 / 24) : 0)) + (t.waiting > 600 ? 0.35 * t.waiting : 0)
            look([...done, t.id], begin + takes, worth + gain, new Map([...free, [t.id, begin + takes + t.waiting]]))
          }
        }
        look([], 0, 0, new Map())
        expect(found.worth).toBeCloseTo(most, 6)
        for (const [k, f] of found.tasks.entries()) {
          expect(f.end).toBeLessThanOrEqual(START + o.seconds * 1000)
          if (k > 0) expect(f.start).toBeGreaterThanOrEqual(found.tasks[k - 1]!.end)
        }
      }),
      { numRuns: 80, seed: 8 },
    )
  })
  it('fills the time with two that fit together rather than one that presses more', () => {
    // Half as much again for what presses: 43.5 minutes’ worth, beside 45 of the two others, which need all of the time.
    const tasks = [task('presses', { work: 1740 }), task('one', { work: 1320 }), task('other', { work: 1380 })]
    const o = { seconds: 2700, person: null, away: 0, slack: new Map([['presses', 86_400]]) }
    const found = fitsNow(problemOf(tasks), o)
    expect(found.tasks.map((t) => t.id).sort()).toEqual(['one', 'other'])
    expect(found.worth).toBeCloseTo(2700, 6)
  })
  it('starts no second print in a printer that prints, also when there is time for both', () => {
    const print = (id: string, needs: string): Task =>
      task(id, { piece: id, needs, work: 600, waiting: 36_000, holds: true })
    const tasks = [print('a', 'Gannet'), print('b', 'Gannet'), print('c', 'Plover'), print('d', 'Heron')]
    const busy = problemOf(tasks, { closed: { Heron: [[START - 1, START + 9 * HOUR]] } })
    const o = { seconds: 3600, person: null, away: 36_000, slack: new Map() }
    // Damp for the next ten minutes, and again later: sprayed in between where that is long enough, else not at all.
    const damp = (again: number): Problem =>
      problemOf([task('spray', { work: 600, shuns: 'spray' })], {
        closed: {
          spray: [
            [START - 1, START + 600_000],
            [START + again, START + 9 * HOUR],
          ],
        },
      })
    expect(fitsNow(damp(1_800_000), o).tasks[0]!.start).toBe(START + 600_000)
    expect(fitsNow(damp(900_000), o).tasks).toEqual([])
    const ids = fitsNow(busy, o).tasks.map((t) => t.id)
    expect(ids).toHaveLength(2)
    expect(ids).toContain('c')
    expect(
      fitsNow({ ...busy, resources: { Gannet: 2 } }, o)
        .tasks.map((t) => t.id)
        .sort(),
    ).toEqual(['a', 'b', 'c'])
  })
  it('does many pieces in one go where they are set up alike, never longer than a mix lasts, never in a ring', () => {
    const setup = { key: 'spray primer, grey', seconds: 180 }
    const primes = ['a', 'b', 'c'].flatMap((piece) => [
      task(`${piece}1`, { piece, work: 600, setup }),
      task(`${piece}2`, { piece, work: 600, setup, after: [`${piece}1`] }),
    ])
    const [grey] = proposeBatches(primes) as [TaskBatch]
    expect(grey.tasks).toEqual(['a1', 'b1', 'c1'])
    expect(grey.saved).toBe(360)
    const p = withBatches(problemOf(primes), [grey])
    const made = improve(p, { tries: 0, budget: Infinity, seed: 1 }, () => 0)
    const first = made.placed.find((x) => x.id === BATCH + grey.id)!
    expect((first.end - first.start) / 1000).toBe(3 * 600 - 360)
    expect(Object.keys(made.finish).sort()).toEqual(['a', 'b', 'c'])
    for (const second of ['a2', 'b2', 'c2'])
      expect(made.placed.find((x) => x.id === second)!.start).toBeGreaterThanOrEqual(first.free)
    // A mix of twelve minutes is done with in nine and a half: one such step, not three.
    const mixes = ['a', 'b', 'c', 'd'].map((piece) => task(piece, { piece, work: 240, setup, window: 720 }))
    expect(proposeBatches(mixes).map((b) => b.tasks)).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ])
    // What must come before the other cannot be done with it.
    const ring = [task('x', { setup }), task('y', { after: ['x'] }), task('z', { piece: 'b', setup, after: ['y'] })]
    expect(proposeBatches(ring)).toEqual([])
    const forced: TaskBatch = { id: 'forced', key: 'k', tasks: ['x', 'z'], saved: 0 }
    expect(withBatches(problemOf(ring), [forced]).tasks.map((t) => t.id)).toEqual(['x', 'y', 'z'])
    expect(merged(ring, [{ ...forced, tasks: ['x', 'gone'] }]).map((t) => t.id)).toEqual(['x', 'y', 'z'])
  })
})
