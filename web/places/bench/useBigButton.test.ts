import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { reactive, ref } from 'vue'
import type { PlanStepRecord } from '../../../contract/plan'
import { SLIP, useBigButton } from './useBigButton'

const said: string[] = []
const timers = reactive({
  over: [] as string[],
  heard: (t: string) => {
    said.push(`dismissed ${t}`)
    timers.over = []
  },
})
const step = ref<PlanStepRecord | null>(null)
const set = (more: Partial<PlanStepRecord>): void => {
  step.value = { key: 'wash', begunAt: null, doneAt: null, ...more } as PlanStepRecord
}
/** How long a beginning takes to be kept, ms. */
let slow = 0
vi.mock('../../stores/timers', () => ({ useTimers: () => timers }))
vi.mock('../../stores/plan', () => ({
  usePlan: () => ({
    begin: async (s: PlanStepRecord) => {
      said.push(`begin ${s.key}`)
      await new Promise((r) => setTimeout(r, slow))
      set({ begunAt: 'now' })
    },
    tick: (s: PlanStepRecord) => {
      said.push(`done ${s.key}`)
      set({ key: 'cure' })
      return Promise.resolve(true)
    },
  }),
}))
const wait = (ms: number): Promise<unknown> => vi.advanceTimersByTimeAsync(ms)

describe('the one big button', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    said.length = 0
    slow = 0
    set({})
  })
  afterEach(() => vi.useRealTimers())

  it('begins, and is done by the next press that is meant', async () => {
    const { word, act } = useBigButton(step, (s) => said.push(`told ${s.key}`))
    expect(word.value).toBe('Start')
    void act()
    await wait(SLIP - 1)
    void act()
    expect(said).toEqual(['begin wash'])
    await wait(1)
    void act()
    await wait(0)
    expect(said).toEqual(['begin wash', 'done wash', 'told wash'])
  })
  it('is not done by an impatient press that meets the beginning as it comes through', async () => {
    slow = 5000
    const { word, act } = useBigButton(step, () => undefined)
    void act()
    await wait(5000 + SLIP - 1)
    expect(word.value).toBe('Mark as done')
    void act()
    expect(said).toEqual(['begin wash'])
    await wait(1)
    void act()
    expect(said).toEqual(['begin wash', 'done wash'])
  })
  it('does not let a timer be dismissed by a press that was meant for the step, nor the other way round', async () => {
    set({ begunAt: 'before' })
    const { word, act } = useBigButton(step, () => undefined)
    await wait(SLIP)
    timers.over = ['mix']
    expect(word.value).toBe('Dismiss')
    void act()
    expect(said).toEqual([])
    await wait(SLIP)
    void act()
    void act()
    expect(said).toEqual(['dismissed mix'])
  })
})
