// @vitest-environment happy-dom
import type { VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { item } from '../../stores/fakeServer'
import { useStock } from '../../stores/stock'
import { button, choose, enter, press, PRINTER, settle, shop, StageBench } from '../../stages/stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop({ timeZone: 'UTC' }))
  page.bench.replies.set('GET /devices', [])
  page.bench.replies.set('GET /shopping', [])
})
afterEach(() => page.end())
/** First cells of the rows of a table, from above. */
const firsts = (at: VueWrapper, table = 0): string[] =>
  at
    .findAll('table')
    [table]!.findAll('tbody tr')
    .map((r) => r.find('td').text())
/** Sorts by a column: up, down, and as it was. */
const sort = async (at: VueWrapper, name: RegExp, table = 0): Promise<void> => {
  await at
    .findAll('table')
    [table]!.findAll('th')
    .find((h) => name.test(h.text()))!
    .trigger('click')
  await settle()
}
const printer = (n: number, name: string, more: object): object =>
  item('printer', `4444444${n}-4444-4444-8444-444444444444`, { ...PRINTER, name, ...more })
const resin = (n: number, name: string, more: object): object =>
  item('resin', `5555555${n}-5555-4555-8555-555555555555`, { name, ...more })

describe('the tables of printers and resins', () => {
  const open = async (...items: object[]) => {
    page.bench.stock.push(...(items as never[]))
    await useStock().load()
    return page.show((await import('../StockPlace.vue')).default)
  }
  it('say that there is none, and what to do', async () => {
    const at = await open()
    expect(at.text()).toContain('No printer yet. Add the one that you print on.')
    expect(at.text()).toContain('No resin yet. Add the one that you print with.')
  })
  it('sort plates by their area and not by the letters of their sides', async () => {
    const at = await open(
      printer(1, 'Wide', { pixelsX: 9000, pixelsY: 1000, pitchX: 0.03, pitchY: 0.03 }),
      printer(2, 'Square', { pixelsX: 6000, pixelsY: 6000, pitchX: 0.03, pitchY: 0.03 }),
      printer(3, 'Small', { pixelsX: 2000, pixelsY: 1000, pitchX: 0.03, pitchY: 0.03 }),
    )
    expect(firsts(at)).toEqual(['Wide', 'Square', 'Small'])
    await sort(at, /Plate/)
    expect(firsts(at)).toEqual(['Small', 'Wide', 'Square'])
    await sort(at, /Plate/)
    expect(firsts(at)).toEqual(['Square', 'Wide', 'Small'])
    await sort(at, /Name/)
    expect(firsts(at)).toEqual(['Small', 'Square', 'Wide'])
  })
  it('keep a layer that is chosen, and open the figures of one printer or resin at a time', async () => {
    const at = await open(printer(1, 'Gannet', {}), resin(1, 'Grey', {}))
    await choose(at, 'Layer height of Gannet', '0.03')
    expect(useStock().printers[0]!.layerHeight).toBe(0.03)
    await press(at, 'Figures of Gannet')
    expect(button(at, 'Figures of Gannet').attributes('aria-expanded')).toBe('true')
    await press(at, 'Figures of Grey')
    expect(['Gannet', 'Grey'].map((n) => button(at, `Figures of ${n}`).attributes('aria-expanded'))).toEqual([
      'false',
      'true',
    ])
  })
  it('sort resins by what is in stock, those that nobody counts apart, and take an amount in any unit', async () => {
    const at = await open(
      resin(1, 'Full', { level: 900 }),
      resin(2, 'Low', { level: 80 }),
      resin(3, 'Mid', { level: 400 }),
    )
    const table = at.findAll('table').length - 1
    await sort(at, /In stock/, table)
    expect(firsts(at, table)).toEqual(['Low', 'Mid', 'Full'])
    await enter(at, 'Millilitres of Low in stock', '0.5 l')
    await settle()
    expect(useStock().resins.find((r) => r.name === 'Low')!.level).toBe(500)
    expect(firsts(at, table)).toEqual(['Mid', 'Low', 'Full'])
  })
})

describe('the table of materials', () => {
  const lot = (amount: number, bestBefore: string | null = null): object => ({
    lot: '1',
    amount,
    opened: null,
    keeps: 12,
    bestBefore,
  })
  const material = (n: number, name: string, more: object): object =>
    item('material', `6666666${n}-6666-4666-8666-666666666666`, { name, unit: 'ml', ...more })
  const open = async (...items: object[]) => {
    page.bench.stock.push(...(items as never[]))
    await useStock().load()
    const at = page.show((await import('../MaterialsPlace.vue')).default)
    await settle()
    return at
  }
  it('begins with what needs a hand, and sorts by name or by what keeps shortest', async () => {
    const at = await open(
      material(1, 'Adhesive', { lots: [lot(50, '2030-01-01')] }),
      material(2, 'Primer', { lots: [lot(5, '2029-01-01')], reorder: 20 }),
      material(3, 'Putty', { lots: [lot(80, '2031-01-01')] }),
    )
    expect(firsts(at)).toEqual(['Primer', 'Adhesive', 'Putty'])
    expect(at.find('tbody tr').text()).toContain('low')
    await sort(at, /Material/)
    expect(firsts(at)).toEqual(['Adhesive', 'Primer', 'Putty'])
    await sort(at, /Best before/)
    expect(firsts(at)).toEqual(['Primer', 'Adhesive', 'Putty'])
  })
  it('says that there are none yet, and opens a new one at once', async () => {
    const at = await open()
    expect(at.find('tbody').text()).toContain('No materials yet')
    await press(at, 'Add a material')
    await settle()
    expect(firsts(at)).toHaveLength(1)
    expect(at.text()).toContain('Delete')
  })
})
