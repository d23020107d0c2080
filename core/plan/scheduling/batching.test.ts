import { describe, expect, it } from 'vitest'
import { BATCH, merged, possible, proposeBatches, withBatches } from './batching'
import type { Problem, Task } from './types'

const task = (piece: string, name: string, more: Partial<Task> = {}): Task => ({
  id: `${piece} ${name}`,
  piece,
  work: 1200,
  waiting: 0,
  needs: 'airbrush',
  after: [],
  setup: { key: 'grey', seconds: 600 },
  ...more,
})
const batch = (id: string, ...tasks: string[]) => ({ id, key: 'grey', tasks, saved: 0 })

describe('steps that are set up alike', () => {
  it('are proposed over several pieces, the first of each, most spared first', () => {
    const found = proposeBatches([
      // Named first, and spares least.
      task('a', 'black', { setup: { key: 'black', seconds: 60 } }),
      task('b', 'black', { setup: { key: 'black', seconds: 60 } }),
      task('a', 'prime'),
      task('a', 'again', { after: ['a prime'] }),
      task('b', 'prime'),
      task('c', 'prime', { work: 300 }),
      task('a', 'glue', { setup: null }),
      task('b', 'glue', { setup: null }),
    ])
    expect(found.map((b) => [b.key, b.tasks, b.saved])).toEqual([
      // No more is spared than a step takes.
      ['grey', ['a prime', 'b prime', 'c prime'], 600 + 300],
      ['black', ['a black', 'b black'], 60],
    ])
  })
  it('are not proposed where one piece alone has them, or one would have to wait for the other', () => {
    expect(proposeBatches([task('a', 'prime'), task('a', 'again')])).toEqual([])
    expect(proposeBatches([task('a', 'prime'), task('b', 'prime', { after: ['a prime'] })])).toEqual([])
    const between = task('c', 'wait', { setup: null, after: ['a prime'] })
    expect(proposeBatches([task('a', 'prime'), between, task('b', 'prime', { after: ['c wait'] })])).toEqual([])
  })
  it('are cut where the mix would set: four fifths of its time are used', () => {
    // Of an hour 48 minutes are used: two steps of 20.
    const found = proposeBatches(['a', 'b', 'c', 'd', 'e'].map((p) => task(p, 'prime', { window: 3600 })))
    expect(found.map((b) => b.tasks)).toEqual([
      ['a prime', 'b prime'],
      ['c prime', 'd prime'],
    ])
    expect(found.map((b) => b.id)).toEqual(['grey', 'grey 2'])
    // One that is longer than the mix lasts stands alone, and what comes after it begins a new batch.
    const long = proposeBatches(
      ['a', 'b', 'c'].map((p, i) => task(p, 'prime', { window: 3600, work: i === 0 ? 5000 : 1200 })),
    )
    expect(long.map((b) => b.tasks)).toEqual([['b prime', 'c prime']])
    expect(proposeBatches(['a', 'b'].map((p) => task(p, 'prime', { work: 1500, window: 3600 })))).toEqual([])
    expect(proposeBatches(['a', 'b'].map((p) => task(p, 'prime', { work: 1440, window: 3600 })))).toHaveLength(1)
  })
})

describe('steps done in one go', () => {
  const tasks = [
    task('a', 'wash', { setup: null, needs: 'bench' }),
    task('a', 'prime', { after: ['a wash'], waiting: 900, notBefore: 50 }),
    task('b', 'prime', { waiting: 1800, work: 600, notBefore: 70 }),
    task('b', 'paint', { after: ['b prime', 'a prime'], setup: null }),
  ]
  it('are one step: the work of all less what is spared, begun when the last is ready, over when the longest wait is', () => {
    const made = merged(tasks, [batch('x', 'a prime', 'b prime')])
    expect(made.map((t) => t.id)).toEqual(['a wash', 'b paint', `${BATCH}x`])
    const one = made.find((t) => t.id === `${BATCH}x`)!
    expect(one).toMatchObject({
      piece: 'a',
      also: ['b'],
      work: 1200 + 600 - 600,
      waiting: 1800,
      after: ['a wash'],
      notBefore: 70,
    })
  })
  it('are waited for once by what waited for each of them', () => {
    const made = merged(tasks, [batch('x', 'a prime', 'b prime')])
    expect(made.find((t) => t.id === 'b paint')!.after).toEqual([`${BATCH}x`])
    // What waits for neither of them is as it was.
    expect(made[0]).toEqual(tasks[0])
  })
  it('spare nothing where they were never set up alike', () => {
    const made = merged(
      [task('a', 'glue', { setup: null }), task('b', 'glue', { setup: null })],
      [batch('x', 'a glue', 'b glue')],
    )
    expect(made).toMatchObject([{ work: 2400, also: ['b'] }])
  })
  it('are none when fewer than two are left, and a step is in one batch only', () => {
    expect(merged(tasks, [batch('x', 'a prime', 'gone')]).map((t) => t.id)).toEqual(tasks.map((t) => t.id))
    const twice = merged(tasks, [batch('x', 'a prime', 'b prime'), batch('y', 'b prime', 'b paint')])
    expect(twice.map((t) => t.id)).toEqual(['a wash', 'b paint', `${BATCH}x`])
  })
  it('are left apart where something would wait for itself, the others not', () => {
    const ring = [...tasks, task('c', 'prime', { after: ['b paint'] }), task('d', 'prime')]
    const kept = possible(ring, [batch('x', 'a prime', 'c prime'), batch('y', 'b prime', 'd prime')])
    expect(kept.map((b) => b.id)).toEqual(['y'])
    const problem: Problem = { tasks: ring, people: [], resources: {}, start: 0, due: {} }
    expect(withBatches(problem, [])).toBe(problem)
    expect(withBatches(problem, [batch('x', 'a prime', 'c prime')]).tasks.map((t) => t.id)).toEqual(
      ring.map((t) => t.id),
    )
    expect(withBatches(problem, [batch('y', 'b prime', 'd prime')]).tasks).toHaveLength(ring.length - 1)
  })
})
