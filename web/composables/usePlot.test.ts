// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { usePlot } from './usePlot'

const react = vi.hoisted(() => vi.fn(() => Promise.resolve()))
vi.mock('plotly.js-basic-dist-min', () => ({ default: { react, relayout: vi.fn(), purge: vi.fn() } }))
/** Where the last drawing went, and what it was of. */
const drawn = (): unknown[] => (react.mock.calls.at(-1) as unknown[]).slice(0, 2)

it('a chart is drawn also where its element comes with the figure, after the library was loaded', async () => {
  const values = ref<number[]>([])
  const at = mount(
    defineComponent({
      setup() {
        const box = ref<HTMLElement | null>(null)
        usePlot(box, () => ({ data: [{ y: values.value }], layout: {} }))
        return () => (values.value.length > 0 ? h('div', { ref: box, class: 'chart' }) : h('p'))
      },
    }),
  )
  await flushPromises()
  // The library is there, the element is not.
  expect(react).not.toHaveBeenCalled()
  values.value = [1, 2]
  await flushPromises()
  expect(drawn()).toEqual([at.find('.chart').element, [{ y: [1, 2] }]])
  values.value = [1, 2, 3]
  await flushPromises()
  expect(drawn()).toEqual([at.find('.chart').element, [{ y: [1, 2, 3] }]])
})
