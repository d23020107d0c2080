import { beforeEach, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { scheme as schemeSchema } from '../../contract/scheme'
import { orderPlan } from '../../core/paint/order/plan'
import { Bench, fakePage, settled } from './fakeServer'
import { usePaintOrder } from './paintOrder'
import { useScheme } from './scheme'

const answers: ((v: unknown) => void)[] = []
vi.mock('../composables/usePaintWork', () => ({
  usePaintWork: () => ({}),
  useSlowPaintWork: () => ({
    order: () => new Promise((r) => answers.push(r)),
    recipe: () => new Promise(() => undefined),
  }),
}))
beforeEach(() => {
  answers.length = 0
  const bench = new Bench()
  fakePage((url, init) => bench.answer(url, init))
})
const settle = async (): Promise<void> => {
  await nextTick()
  await settled()
}
const scheme = (name: string) =>
  schemeSchema.parse({
    version: 1,
    regions: [{ id: 0, name, target: null }],
    coats: [{ id: name, regionId: 0, technique: 'base', paintId: null, film: 20, tool: 'brush' }],
  })
const weighed = (name: string) => {
  const made = { regions: [{ id: 0, name, area: 9 }], borders: [], coats: [] }
  return { scheme: made, plan: orderPlan(made, []), inks: [] }
}

it('shows the order of the piece on the table, never one that was weighed for the piece before it', async () => {
  const book = useScheme(),
    order = usePaintOrder()
  book.scheme = scheme('Cloak')
  await settle()
  expect(order.known.paintOrder.state).toBe('measuring')
  book.scheme = null
  await settle()
  book.scheme = scheme('Sail')
  answers[0]!(weighed('Cloak'))
  await settle()
  expect(order.found).toBeNull()
  expect(order.known.paintOrder.state).toBe('measuring')
  answers.at(-1)!(weighed('Sail'))
  await settle()
  expect(order.known.paintOrder).toMatchObject({ state: 'known', value: { scheme: { regions: [{ name: 'Sail' }] } } })
})
