// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick } from 'vue'
import { mixRecord, type MixRecord } from '../../../contract/mixes'
import { paintFor } from '../../../core/paint/coats/batch'
import { deltaE00, hexToLab } from '../../../core/paint/optics/colour'
import { item } from '../../stores/fakeServer'
import { useMixes } from '../../stores/mixes'
import { useMixing } from '../../stores/mixing'
import { useStock } from '../../stores/stock'
import { button, choose, control, press, settle, shop, StageBench, type } from '../../stages/stageTesting'
import MixPage from './MixPage.vue'
import NoteMix from './NoteMix.vue'
import RecipeAnswers from './RecipeAnswers.vue'

vi.mock('comlink', () => import('../../workers/inProcess'))

let page: StageBench
const P = (n: number): string => `${n}0000000-0000-4000-8000-000000000000`
const WHITE = '#f3f1ea',
  RED = '#b0282a'
beforeEach(async () => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop({ timeZone: 'UTC' }))
  page.bench.stock = [
    item('paint', P(1), { name: 'Chalk', hex: WHITE, opacity: 0.85, kind: 'acrylic', price: 0.2 }),
    item('paint', P(2), {
      name: 'Brick',
      hex: RED,
      opacity: 0.6,
      kind: 'acrylic',
      lots: [{ lot: 'B7', lab: hexToLab(RED), opened: null }],
      thinning: { brush: 0.5, airbrush: 0.3 },
    }),
  ]
  await useStock().load()
})
afterEach(() => page.end())
const mix = (more: object = {}): MixRecord =>
  mixRecord.parse({
    id: P(9),
    version: 2,
    createdAt: '2026-11-20T10:00:00Z',
    name: 'Scarf, base',
    pieceId: null,
    region: 'Scarf',
    coat: 'base',
    tool: 'brush',
    target: null,
    predicted: hexToLab('#d28a86'),
    measured: null,
    drops: [
      { paintId: P(1), name: 'Chalk', lot: '', lab: hexToLab(WHITE), drops: 3 },
      { paintId: P(2), name: 'Brick', lot: 'B7', lab: hexToLab(RED), drops: 1 },
    ],
    batches: 1,
    kept: 0,
    mixedOn: '2026-11-20',
    photo: null,
    note: '',
    ...more,
  })

describe('the mixing table', () => {
  it('says that there is no paint to mix, and where to add some, once the stock is known', async () => {
    const { default: MixesPlace } = await import('../MixesPlace.vue')
    page.bench.stock = []
    page.bench.slow = 150
    setActivePinia(createPinia())
    const at = await page.show(MixesPlace)
    expect(at.text()).not.toContain('No paint is in stock')
    await vi.waitFor(() => expect(at.text()).toContain('No paint is in stock'), 5000)
    expect(at.text()).toContain('No paint is in stock. Add paints to mix them.')
    expect(at.findAll('select[aria-label="Add a paint"]')).toHaveLength(0)
  })
  it('draws the drops, by the optics, and says how far from the target it is', async () => {
    const mixing = useMixing()
    mixing.set(P(1), 1)
    mixing.target = hexToLab(WHITE)
    await vi.waitFor(() => expect(mixing.error).not.toBeNull(), 120_000)
    // A paint alone is itself.
    await vi.waitFor(() => expect(mixing.error!).toBeLessThan(1.5), 120_000)
    const white = mixing.drawn!.lab
    mixing.set(P(2), 1)
    await vi.waitFor(() => expect(deltaE00(mixing.drawn!.lab, white)).toBeGreaterThan(10), 120_000)
    expect(mixing.total).toBe(2)
    mixing.set(P(2), 0)
    expect(mixing.laid.map((d) => d.id)).toEqual([P(1)])
    mixing.putAway(P(1))
    expect(mixing.total).toBe(0)
  })
  it('finds mixes for a target, uses one, and shows none that was found for another', async () => {
    const mixing = useMixing()
    const at = await page.show(RecipeAnswers)
    expect(at.text()).toContain('Set a target')
    mixing.target = hexToLab('#d28a86')
    await vi.waitFor(() => expect(mixing.answer?.recipes.length).toBeGreaterThan(0), 120_000)
    await settle()
    expect(at.findAll('.recipe.here')).toHaveLength(0)
    await at.findAll('.recipe')[0]!.find('button').trigger('click')
    await settle()
    expect(mixing.laid.map((d) => [d.id, d.drops])).toEqual(
      mixing.answer!.recipes[0]!.drops.map((d) => [d.paint, d.drops]),
    )
    expect(at.findAll('.recipe')[0]!.classes()).toContain('here')
    const found = mixing.answer
    mixing.target = hexToLab(WHITE)
    await nextTick()
    expect(mixing.answer).toBeNull()
    expect(at.text()).toContain('Searching for recipes')
    await vi.waitFor(() => expect(mixing.answer).not.toBeNull(), 120_000)
    expect(mixing.answer).not.toEqual(found)
  })
})

describe('a page of the mix book', () => {
  const open = async (m = mix()) => {
    page.bench.replies.set('GET /mixes', [m])
    await useMixes().load()
    return page.show(MixPage, { mix: m })
  }
  it('counts out drops for the area and the coats, never fewer than the recipe, and the thinner for them', async () => {
    const at = await open()
    await type(at, 'Area to cover', '20000')
    await type(at, 'Coats', '3')
    expect(at.text()).toContain(`${paintFor(20_000, 3, 'brush').toFixed(2)} ml are needed by brush`)
    const counted = at.findAll('tbody tr').map((r) => Number(r.findAll('td.num')[1]!.text()))
    // Three to one, as it was noted.
    expect(counted[0]! / counted[1]!).toBe(3)
    await type(at, 'Area to cover', '1')
    expect(at.findAll('tbody tr').map((r) => r.findAll('td.num')[1]!.text())).toEqual(['3', '1'])
  })
  it('says when a bottle is of another lot by now, and by how much that shows', async () => {
    const other = hexToLab('#8a1f4a')
    const at = await open(
      mix({ drops: [{ paintId: P(2), name: 'Brick', lot: 'A1', lab: other, drops: 1 }], predicted: other }),
    )
    await vi.waitFor(() => expect(at.text()).toContain('of another lot now'), 120_000)
    expect(at.text()).toContain('Click “Mix it again”: the mixes proposed make up for that.')
  })
  it('says which paint is gone, and goes back to what was in the pot as a target', async () => {
    const measured = hexToLab('#cc8080')
    const at = await open(
      mix({
        measured,
        tool: 'airbrush',
        drops: [...mix().drops, { paintId: P(7), name: 'Moss', lot: '', lab: [40, -10, 20], drops: 2 }],
      }),
    )
    expect(at.text()).toContain('Moss is no longer in stock.')
    expect(at.text()).toContain('The pot was measured ΔE')
    await press(at, 'Mix it again')
    const mixing = useMixing()
    expect(mixing.target).toEqual(measured)
    expect(mixing.tool).toBe('airbrush')
    expect(mixing.about).toMatchObject({ name: 'Scarf, base', region: 'Scarf', coat: 'base' })
    expect(mixing.laid.map((d) => d.drops)).toEqual([3, 1, 2])
  })
  it('is taken out, or says why it stays', async () => {
    const at = await open()
    await press(at, 'Delete mix')
    expect(at.find('[role=alert]').exists()).toBe(true)
    expect(at.emitted('gone')).toBeUndefined()
    page.bench.replies.set(`DELETE /mixes/${P(9)}`, {})
    await press(at, 'Delete mix')
    expect(at.emitted('gone')).toHaveLength(1)
  })
})

describe('a mix that is noted', () => {
  it('needs a name, which is asked for beside it, and is not sent without one', async () => {
    page.bench.replies.set('GET /pieces?limit=200', [])
    useMixing().setDrops([{ paint: P(1), drops: 2 }])
    await vi.waitFor(() => expect(useMixing().drawn).not.toBeNull(), 120_000)
    const at = await page.show(NoteMix)
    await type(at, 'Name', ' ')
    await type(at, 'Region', 'x'.repeat(61))
    await at.find('form').trigger('submit')
    await settle()
    expect(at.findAll('[role=alert]').map((a) => a.text())).toEqual([
      'Give the mix a name that you will know it by.',
      'At most 60 characters; there are 61.',
    ])
    expect(page.bench.sent.filter((s) => s.call === 'POST /mixes')).toEqual([])
    await type(at, 'Name', 'Scarf')
    expect(at.findAll('[role=alert]')).toHaveLength(1)
  })
  it('is kept with the bottles that it was made of, as they are today', async () => {
    page.bench.replies.set('GET /pieces?limit=200', [])
    page.bench.replies.set('POST /mixes', mix())
    page.bench.replies.set('GET /mixes', [mix()])
    const mixing = useMixing()
    mixing.setDrops([
      { paint: P(1), drops: 3 },
      { paint: P(2), drops: 1 },
    ])
    await vi.waitFor(() => expect(mixing.drawn).not.toBeNull(), 120_000)
    const at = await page.show(NoteMix)
    await control(at, /Name/).setValue('Scarf, base')
    await control(at, /Number of times mixed/).setValue('2.5')
    expect(at.text()).toContain('10 drops')
    await choose(at, /Coat/, 'glaze')
    await at.find('form').trigger('submit')
    await settle()
    const noted = page.bench.sent.find((s) => s.call === 'POST /mixes')!.body as MixRecord
    expect(noted).toMatchObject({
      name: 'Scarf, base',
      coat: 'glaze',
      batches: 2.5,
      tool: 'brush',
      target: null,
      photo: null,
    })
    expect(noted.drops.map((d) => [d.name, d.lot, d.drops])).toEqual([
      ['Chalk', '', 3],
      ['Brick', 'B7', 1],
    ])
    expect(noted.predicted).toEqual([...mixing.drawn!.lab])
    expect(at.emitted('noted')).toEqual([[P(9)]])
    // The next is another: its name is not that of this one.
    expect(mixing.about.name).toBe('')
    expect(button(at, 'Save mix').element.disabled).toBe(false)
  })
})
