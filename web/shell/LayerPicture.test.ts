// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import LayerPicture from './LayerPicture.vue'

/** A panel of 200 by 100 pixels of 0.05 mm in a box of 400 by 400: shown whole, each pixel is two wide. */
let at: VueWrapper
const BOX = { left: 0, top: 0, width: 400, height: 400 } as DOMRect
beforeEach(async () => {
  at = mount(LayerPicture, {
    props: { src: 'layer.png', alt: 'Layer 1', pixels: [200, 100], pitch: [0.05, 0.05] },
    attachTo: document.body,
  })
  at.element.getBoundingClientRect = () => BOX
  Object.defineProperty(at.element, 'offsetWidth', { value: 400 })
  Object.defineProperty(at.element, 'offsetHeight', { value: 400 })
  await nextTick()
})
const pointer = (name: string, x: number, y: number, more: object = {}): Promise<void> =>
  at.trigger(name, { pointerId: 1, button: 0, isPrimary: true, clientX: x, clientY: y, ...more })
const place = (): { left: number; top: number; width: number } => {
  const s = at.find<HTMLElement>('img').element.style
  return { left: parseFloat(s.left), top: parseFloat(s.top), width: parseFloat(s.width) }
}
/** mm from the plate's middle, as it is read under the pointer */
const read = (): string => at.find('.note').text()

describe('a layer as the panel shows it', () => {
  it('reads the place under the pointer from the plate’s middle, and nothing beside the panel', async () => {
    const { left, top, width } = place()
    const scale = width / 200
    await pointer('pointermove', left + 150 * scale, top + 25 * scale)
    expect(read()).toBe('2.50, −1.25 mm')
    await pointer('pointermove', left - 5, top)
    expect(read()).toBe('')
  })
  it('goes nearer about the pointer: what is under it stays there', async () => {
    const { left, top, width } = place()
    const scale = width / 200
    const [x, y] = [left + 60 * scale, top + 40 * scale]
    await at.trigger('wheel', { deltaY: -1, clientX: x, clientY: y })
    const now = place()
    expect(now.width).toBeCloseTo(1.25 * width)
    expect((x - now.left) / (now.width / 200)).toBeCloseTo(60)
    expect((y - now.top) / (now.width / 200)).toBeCloseTo(40)
    await at.trigger('wheel', { deltaY: 1, clientX: x, clientY: y })
    expect(place()).toEqual({ left, top, width })
  })
  it('is moved by the left button alone, and is as before when the pointer is cancelled', async () => {
    for (let i = 0; i < 4; i++) await at.trigger('wheel', { deltaY: -1, clientX: 200, clientY: 200 })
    const before = place()
    await pointer('pointerdown', 200, 200, { button: 2 })
    await pointer('pointermove', 230, 200)
    expect(place()).toEqual(before)
    await pointer('pointerdown', 200, 200)
    await pointer('pointermove', 230, 190)
    expect(place().left).toBeCloseTo(before.left + 30)
    expect(place().top).toBeCloseTo(before.top - 10)
    await pointer('pointercancel', 0, 0)
    expect(place().left).toBeCloseTo(before.left)
    await pointer('pointermove', 300, 300)
    expect(place().left).toBeCloseTo(before.left)
  })
  it('is shown whole again, and never farther than whole', async () => {
    const whole = place()
    await at.trigger('wheel', { deltaY: 1, clientX: 200, clientY: 200 })
    expect(place()).toEqual(whole)
    await at.trigger('keydown', { key: '+' })
    expect(place().width).toBeCloseTo(1.5 * whole.width)
    await at.trigger('keydown', { key: 'ArrowRight' })
    expect(place().left).toBeLessThan(whole.left)
    await at.findAll('button').at(-1)!.trigger('click')
    expect(place()).toEqual(whole)
  })
})
