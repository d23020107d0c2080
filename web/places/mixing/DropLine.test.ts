// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import DropLine from './DropLine.vue'

/** Twelve places for drops on a line 120 px long. */
const open = (drops = 3) => {
  const at = mount(DropLine, { props: { name: 'Moss', hex: '#4a5a2a', drops } })
  const line = at.find('[role=slider]')
  line.element.getBoundingClientRect = () => ({ left: 0, width: 120 }) as DOMRect
  const pointer = (name: string, x: number, more: object = {}): Promise<void> =>
    line.trigger(name, { pointerId: 1, button: 0, isPrimary: true, clientX: x, ...more })
  const set = (): number[] => (at.emitted('set') ?? []).map(([n]) => n as number)
  return { at, line, pointer, set }
}

describe('drops of a paint', () => {
  it('are set by dragging along the line, from none to as many as it holds', async () => {
    const { pointer, set } = open()
    await pointer('pointerdown', 52)
    await pointer('pointermove', 81)
    await pointer('pointermove', -30)
    await pointer('pointermove', 500)
    await pointer('pointerup', 500)
    await pointer('pointermove', 10)
    expect(set()).toEqual([5, 8, 0, 12])
  })
  it('are as before when the pointer is cancelled, and ignore the right button', async () => {
    const { pointer, set } = open(4)
    await pointer('pointerdown', 100, { button: 2 })
    expect(set()).toEqual([])
    await pointer('pointerdown', 100)
    await pointer('pointercancel', 0)
    expect(set()).toEqual([10, 4])
  })
  it('are set by the keyboard, and tell their number', async () => {
    const { at, line, set } = open(12)
    await line.trigger('keydown', { key: 'ArrowRight' })
    await line.trigger('keydown', { key: 'ArrowDown' })
    await line.trigger('keydown', { key: 'a' })
    expect(set()).toEqual([12, 11])
    expect(line.attributes('aria-valuenow')).toBe('12')
    await at.find('button').trigger('click')
    expect(at.emitted('away')).toHaveLength(1)
  })
})
