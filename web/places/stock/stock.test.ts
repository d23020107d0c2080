// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { gaugeNominal } from '../../../core/print/slice/calibrationPrint'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { item } from '../../stores/fakeServer'
import { useStock } from '../../stores/stock'
import { choose, control, enter, press, settle, shop, StageBench, type } from '../../stages/stageTesting'
import BottlePanel from './BottlePanel.vue'
import CalibrationPanel from './CalibrationPanel.vue'
import CsvList from './CsvList.vue'
import FiguresPanel from './FiguresPanel.vue'
import MaterialPanel from './MaterialPanel.vue'
import { say } from '../../../core/words/say'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop({ timeZone: 'UTC' }))
  vi.setSystemTime(new Date('2026-11-20T10:00:00Z'))
})
afterEach(() => {
  page.end()
  vi.useRealTimers()
})
/** What is in stock of that kind now, as its panels are given it. */
const one = (kind: 'printers' | 'resins' | 'materials') => useStock()[kind][0]!
const stocked = async (kind: string, data: object): Promise<void> => {
  page.bench.stock.push(item(kind, 'it', data))
  await useStock().load()
}
const kept = (): Record<string, unknown> => (page.bench.stock[0] as { data: Record<string, unknown> }).data

describe('the bottles of a resin', () => {
  const bottle = (more: object = {}) => ({ lot: 'A', ml: 400, opened: '2025-01-10', keeps: 12, ...more })
  const open = async (bottles: object[]) => {
    await stocked('resin', { name: 'Grey', level: 750, bottles })
    return page.show(BottlePanel, { resin: one('resins') })
  }
  it('say until when each keeps, and which is past its time', async () => {
    const at = await open([bottle(), bottle({ lot: 'B', opened: '2026-08-01' }), bottle({ lot: 'C', opened: null })])
    const [old, fresh, shut] = at.findAll('tbody tr')
    expect(old!.text()).toContain('2026-01-10, past its date')
    expect(fresh!.text()).toContain('2027-08-01')
    expect(fresh!.text()).not.toContain('past')
    expect(shut!.text()).toContain('unopened')
  })
  it('hold no less than nothing, and keep for one to a hundred and twenty months', async () => {
    const at = await open([bottle()])
    await enter(at, 'Millilitres in bottle 1', '-20')
    expect(kept().bottles).toMatchObject([{ ml: 0 }])
    await at.setProps({ resin: one('resins') })
    await enter(at, 'Months that bottle 1 keeps', '500')
    expect(kept().bottles).toMatchObject([{ keeps: 120, lot: 'A' }])
  })
  it('begin with what was left of all, and change one without the other', async () => {
    const at = await open([])
    expect(at.text()).toContain('Bottles are not counted one by one')
    await press(at, 'Add a bottle')
    expect(kept().bottles).toMatchObject([{ ml: 750, opened: null }])
    await at.setProps({ resin: one('resins') })
    await press(at, 'Add a bottle')
    await at.setProps({ resin: one('resins') })
    await enter(at, 'Lot of bottle 2', ' B7 ')
    expect(kept().bottles).toMatchObject([{ lot: '' }, { lot: 'B7' }])
    await at.setProps({ resin: one('resins') })
    await press(at, 'Remove bottle 1')
    expect(kept().bottles).toMatchObject([{ lot: 'B7' }])
  })
})

describe('the figures of a resin', () => {
  it('are shown in the unit that one reads and kept in the unit that is computed with', async () => {
    await stocked('resin', { name: 'Grey', peelPressure: 12_500, greenStrength: 4.5e6 })
    const at = await page.show(FiguresPanel, { kind: 'resin', item: one('resins') })
    expect(control(at, 'Peel pressure on a usual film').element.value).toBe('12.5')
    await type(at, 'Green strength of a tip', '5.25')
    expect(kept().greenStrength).toBeCloseTo(5.25e6)
    expect(kept().peelPressure).toBe(12_500)
  })
  it('keep their name where it would be none', async () => {
    await stocked('resin', { name: 'Grey' })
    const at = await page.show(FiguresPanel, { kind: 'resin', item: one('resins') })
    await enter(at, 'Name of Grey', '   ')
    expect(kept().name).toBe('Grey')
    await enter(at, 'Name of Grey', ' Dark grey ')
    expect(kept().name).toBe('Dark grey')
  })
  it('go with it out of stock', async () => {
    await stocked('resin', { name: 'Grey' })
    const at = await page.show(FiguresPanel, { kind: 'resin', item: one('resins') })
    await press(at, 'Delete Grey')
    expect(page.bench.stock).toEqual([])
    expect(at.emitted('gone')).toHaveLength(1)
  })
})

describe('the calibration of a printer', () => {
  const open = async (more: object = {}) => {
    await stocked('printer', {
      name: 'By the window',
      pixelsX: 1600,
      pixelsY: 1200,
      pitchX: 0.05,
      pitchY: 0.05,
      height: 120,
      layerHeight: 0.05,
      bottomLayers: 6,
      ...more,
    })
    return page.show(CalibrationPanel, { printer: one('printers') })
  }
  it('finds scale, growth and bleed from what the caliper says, and keeps them only when asked', async () => {
    const at = await open()
    expect(at.text()).toContain('Enter what the caliper shows')
    // x shrank by half a percent, and light spreads 0.06 mm past each edge: outer lengths grow, inner ones shrink by twice that.
    const { slabX, slabY, postX, postY, slotX, slotY } = gaugeNominal
    for (const [field, mm] of [
      ['Slab, along x', 0.995 * slabX + 0.12],
      ['Slab, along y', slabY + 0.12],
      ['Post, along x', 0.995 * postX + 0.12],
      ['Post, along y', postY + 0.12],
      ['Slot, along x', 0.995 * slotX - 0.12],
      ['Slot, along y', slotY - 0.12],
    ] as const)
      await type(at, field, mm.toFixed(4))
    expect(at.text()).toContain('0.060 mm of light past each edge')
    expect(at.text()).toContain('along x−0.50 %')
    expect(kept().compensation).toBeUndefined()
    await press(at, 'Apply correction')
    const c = kept().compensation as { scale: number[]; growth: number; bleedLayers: number }
    expect(c.scale[0]).toBeCloseTo(0.995, 4)
    expect(c.scale[1]).toBeCloseTo(1, 4)
    expect(c.growth).toBeCloseTo(0.06, 4)
    // Where it was never said, the first layers bleed.
    expect(c.bleedLayers).toBe(6)
    expect(at.find('[role=status]').text()).toContain('Saved.')
  })
  it('refuses a length that cannot be, in words, and corrects nothing by it', async () => {
    const at = await open()
    await type(at, 'Slab, along x', '20')
    expect(at.find('[role=alert]').text()).toContain('Measure it again')
    expect(at.findAll('button').some((b) => b.text().startsWith('Correct every'))).toBe(false)
  })
  it('keeps mirrors and greys without touching what was measured', async () => {
    const at = await open({
      compensation: {
        scale: [1.01, 1, 1],
        growth: 0.05,
        bleed: 0.1,
        bleedLayers: 3,
        mirrorX: false,
        mirrorY: false,
        greys: 256,
      },
    })
    await at.findAll('input[type=checkbox]')[0]!.setValue(true)
    await type(at, 'Grey levels', '16')
    await press(at, 'Save')
    expect(kept().compensation).toMatchObject({
      mirrorX: true,
      greys: 16,
      growth: 0.05,
      scale: [1.01, 1, 1],
      bleedLayers: 3,
    })
  })
})

describe('a material', () => {
  const open = async (more: object = {}) => {
    await stocked('material', { name: 'Putty', unit: 'g', ...more })
    return page.show(MaterialPanel, { item: one('materials') })
  }
  const again = async (at: Awaited<ReturnType<typeof open>>): Promise<void> => {
    await at.setProps({ item: one('materials') })
  }
  it('is counted in its own unit, whatever unit is typed', async () => {
    const at = await open({ lots: [{ lot: '1', amount: 50, opened: null, keeps: 24, bestBefore: null }] })
    await enter(at, 'Left of lot 1', '0.25 kg')
    expect(kept().lots).toMatchObject([{ amount: 250, lot: '1' }])
    await again(at)
    await enter(at, 'Buy at', '40')
    expect(kept().reorder).toBe(40)
    await again(at)
    await enter(at, 'Buy at', '')
    expect(kept().reorder).toBeNull()
  })
  it('turns volume into weight only by its density, and says so', async () => {
    const at = await open({ lots: [{ lot: '1', amount: 50, opened: null, keeps: 24, bestBefore: null }] })
    await enter(at, 'Left of lot 1', '20 ml')
    expect(at.find('.alert').text()).toContain('Give the density')
    expect(kept().lots).toMatchObject([{ amount: 50 }])
    await enter(at, 'Density', '1.5')
    await again(at)
    await enter(at, 'Left of lot 1', '20 ml ')
    expect(kept().lots).toMatchObject([{ amount: 30 }])
  })
  it('warns where steps use it in a unit that it is not counted in', async () => {
    const at = await open({ unit: 'ml' })
    const { SUPPLIES } = await import('../../../core/plan/materials/supplies')
    const { ofProduct } = await import('../../../core/plan/materials/supplies')
    const { material } = await import('../../../contract/stock')
    const strange = SUPPLIES.find(
      (s) => ofProduct(material.parse({ name: 'x', unit: 'ml', serves: [s.what] }), s.what) === null,
    )!
    await choose(at, 'It is used as', strange.what)
    await again(at)
    expect(at.find('.alert').text()).toContain(`Steps use ${say(strange.name)} in ${strange.unit}`)
    await press(at, `Remove ${say(strange.name)}`)
    await again(at)
    expect(at.find('.alert').exists()).toBe(false)
    expect(kept().serves).toEqual([])
  })
  it('says of each lot whether it keeps, and takes a new one as empty and shut', async () => {
    const at = await open({ lots: [{ lot: '1', amount: 50, opened: '2024-01-01', keeps: 12, bestBefore: null }] })
    expect(at.find('.lot').text()).toContain('past its date since 2025-01-01')
    await press(at, 'Add a lot')
    await again(at)
    expect(at.findAll('.lot')[1]!.text()).toContain('unopened, no date')
    await press(at, 'Remove lot 1')
    expect(kept().lots).toMatchObject([{ lot: '', amount: 0 }])
  })
})

describe('a list that is taken in', () => {
  it('says what became of it, or why it was refused, and can be chosen again', async () => {
    page.bench.replies.set('POST /materials.csv', { added: 3, changed: 1 })
    const at = mount(CsvList, { props: { words: 'materials' } })
    const field = () => at.find<HTMLInputElement>('input[type=file]')
    const chosen = async (): Promise<void> => {
      const input = field()
      Object.defineProperty(input.element, 'files', { value: [new File(['name'], 'shelf.csv')], configurable: true })
      await input.trigger('change')
      await settle()
    }
    await chosen()
    expect(at.find('[role=status]').text()).toBe('shelf.csv: 3 new, 1 changed.')
    page.bench.replies.delete('POST /materials.csv')
    await chosen()
    expect(at.find('[role=alert]').text()).not.toBe('')
    expect(at.find('[role=status]').exists()).toBe(false)
    expect(field().element.disabled).toBe(false)
  })
})
