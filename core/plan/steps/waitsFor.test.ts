import { expect, it } from 'vitest'
import { waitsFor, type StepAtWork } from './waitsFor'

const step = (key: string, over: Partial<StepAtWork> = {}): StepAtWork => ({
  ...{ key, title: `The ${key}`, after: [], doneAt: null, timerUntil: null },
  ...over,
})
const NOON = Date.parse('2026-11-30T12:00:00Z')

it('a step waits for what it comes after: until it is done, and then until it is dry', () => {
  const paint = step('paint', { after: ['prime', 'mask'] })
  const primed = (timerUntil: string | null): StepAtWork[] => [
    step('wash'),
    step('prime', { doneAt: '2026-11-30T11:00:00Z', timerUntil }),
    step('mask', { doneAt: '2026-11-30T11:30:00Z' }),
    paint,
  ]
  expect(waitsFor(paint, [step('wash'), step('prime'), step('mask'), paint], NOON).map((a) => a.key)).toEqual([
    'prime',
    'mask',
  ])
  const until = '2026-11-30T12:30:00Z'
  expect(waitsFor(paint, primed(until), NOON)).toEqual([{ key: 'prime', title: 'The prime', until }])
  // Once its clock has run out, or was stopped, nothing keeps it.
  expect(waitsFor(paint, primed(until), NOON + 30 * 60_000)).toEqual([])
  expect(waitsFor(paint, primed(null), NOON)).toEqual([])
  expect(waitsFor({ ...paint, doneAt: until }, primed(until), NOON)).toEqual([])
  // What the plan no longer has keeps nobody.
  expect(waitsFor(step('paint', { after: ['gone'] }), [], NOON)).toEqual([])
})
