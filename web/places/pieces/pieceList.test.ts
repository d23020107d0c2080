import { expect, it } from 'vitest'
import { arranged, counted, FILTERS, type Summary } from './pieceList'

const piece = (name: string, more: Partial<Summary>): Summary =>
  ({ name, done: 0, resting: false, deadline: null, createdAt: '2026-11-01', ...more }) as Summary
const LIST = [
  piece('Tern', { done: 3, deadline: '2026-12-24', createdAt: '2026-11-03' }),
  piece('Otter', { resting: true, done: 1, createdAt: '2026-11-05' }),
  piece('Heron', { createdAt: '2026-11-09' }),
  piece('Eel', { deadline: '2026-12-01', createdAt: '2026-11-02' }),
]

it('pieces are in one of three states, all are counted, and each order is complete', () => {
  const counts = counted(LIST)
  expect(counts).toEqual({ all: 4, bench: 1, ahead: 2, hold: 1 })
  expect(counts.bench + counts.ahead + counts.hold).toBe(counts.all)
  for (const f of FILTERS) expect(arranged(LIST, f, 'name')).toHaveLength(counts[f])
  const order = (sort: 'newest' | 'due' | 'name') => arranged(LIST, 'all', sort).map((p) => p.name)
  expect(order('newest')).toEqual(['Heron', 'Otter', 'Tern', 'Eel'])
  expect(order('due')).toEqual(['Eel', 'Tern', 'Heron', 'Otter'])
  expect(order('name')).toEqual(['Eel', 'Heron', 'Otter', 'Tern'])
  expect(arranged(LIST, 'hold', 'due').map((p) => p.name)).toEqual(['Otter'])
})
