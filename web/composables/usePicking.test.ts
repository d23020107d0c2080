import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it } from 'vitest'
import { effectScope } from 'vue'
import type { Picked } from '../viewport/scene'
import { useViewport } from '../viewport/useViewport'
import { usePicking } from './usePicking'

const at = (x: number): Picked => ({ point: [x, 0, 0], normal: [0, 0, 1], face: 0, companion: null })
const press = (x: number): void => useViewport().scene.onPick?.(at(x))
beforeEach(() => setActivePinia(createPinia()))

it('asks for one place after the other, says which, and stops', () => {
  const placed: number[] = []
  const panel = effectScope()
  const picking = panel.run(usePicking)!
  picking.ask('Press the wrist', (p) => {
    placed.push(p.point[0])
    if (placed.length === 1) picking.next('Press the elbow')
    else picking.stop()
  })
  expect(useViewport().scene).toMatchObject({ mode: 'pick', hint: 'Press the wrist' })
  press(1)
  expect(useViewport().scene.hint).toBe('Press the elbow')
  press(2)
  press(3)
  expect(placed).toEqual([1, 2])
  expect(picking.asking.value).toBe(false)
  expect(useViewport().scene).toMatchObject({ mode: 'look', hint: '' })
})

it('hears only the panel that asked last, and gives the sculpt back to the one before', () => {
  const received: string[] = []
  const one = effectScope(),
    two = effectScope()
  one.run(usePicking)!.ask('One', () => received.push('one'))
  two.run(usePicking)!.ask('Two', () => received.push('two'))
  press(1)
  two.stop()
  press(2)
  one.stop()
  press(3)
  expect(received).toEqual(['two', 'one'])
  expect(useViewport().scene.mode).toBe('look')
})
