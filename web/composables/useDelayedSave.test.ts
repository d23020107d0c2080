// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { useDelayedSave } from './useDelayedSave'

let scope: EffectScope, stored: number, value: number, arrive: (() => void)[]
const started = (): ReturnType<typeof useDelayedSave> =>
  scope.run(() =>
    useDelayedSave(async () => {
      stored = value
      await new Promise<void>((r) => arrive.push(r))
    }),
  )!
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  stored = value = 0
  arrive = []
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

it('saves once after the last of several quick changes, and says so until the answer is there', async () => {
  const { changed, saving } = started()
  for (value = 1; value < 4; value++) {
    changed()
    vi.advanceTimersByTime(600)
  }
  expect([stored, saving.value]).toEqual([0, true])
  vi.advanceTimersByTime(100)
  expect([stored, arrive.length]).toEqual([4, 1])
  arrive[0]!()
  await vi.runAllTimersAsync()
  expect(saving.value).toBe(false)
})
it('still has something to save where a change came while the one before was stored', async () => {
  const { changed, saving } = started()
  changed()
  vi.advanceTimersByTime(700)
  value = 5
  changed()
  arrive[0]!()
  await vi.advanceTimersByTimeAsync(10)
  expect([stored, saving.value]).toEqual([0, true])
  await vi.advanceTimersByTimeAsync(700)
  expect(stored).toBe(5)
})
it('saves at once when the page is hidden or the stage is left, and nothing where nothing was changed', () => {
  const { changed } = started()
  document.dispatchEvent(new Event('visibilitychange'))
  expect(arrive).toHaveLength(0)
  value = 1
  changed()
  document.dispatchEvent(new Event('visibilitychange'))
  expect([stored, arrive.length]).toEqual([1, 1])
  value = 2
  changed()
  scope.stop()
  expect([stored, arrive.length]).toEqual([2, 2])
  vi.advanceTimersByTime(5000)
  expect(arrive).toHaveLength(2)
})
