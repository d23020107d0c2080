// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { hexToLab } from '../../../core/paint/optics/colour'
import { item } from '../../stores/fakeServer'
import { useStock } from '../../stores/stock'
import { choose, control, enter, press, settle, shop, StageBench, type } from '../../stages/stageTesting'
import PaintPanel from './PaintPanel.vue'

vi.mock('comlink', () => import('../../workers/inProcess'))

let page: StageBench
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop())
})
afterEach(() => page.end())
const LOT = { lot: 'A', lab: [50, 10, -20], opened: null }
const paint = (id: string, name: string, hex: string, more: object = {}): object =>
  item('paint', id, { name, hex, opacity: 0.7, kind: 'acrylic', ...more })
const kept = (): Record<string, unknown> => (page.bench.stock[0] as { data: Record<string, unknown> }).data

describe('one paint', () => {
  const open = async (more: object = {}) => {
    page.bench.stock = [paint('p', 'Moss', '#4a5a2a', more)]
    await useStock().load()
    return page.show(PaintPanel, { item: useStock().paints[0]!, used: { coats: 1, ml: 0.4 } })
  }
  it('is set by three numbers, and a colour that is none is refused in words', async () => {
    const at = await open()
    await enter(at, 'Colour at full coverage, as L / a / b', '42 / 18')
    expect(at.find('[role=alert]').text()).toContain('Three numbers')
    await enter(at, 'Colour at full coverage, as L / a / b', '142 / 18 / −7')
    expect(kept().lab).toBeUndefined()
    await enter(at, 'Colour at full coverage, as L / a / b', '42,5 / 18 / −7')
    expect(kept().lab).toEqual([42.5, 18, -7])
    expect(at.find('[role=alert]').exists()).toBe(false)
  })
  it('has the colour of the bottle in use, where bottles were measured: that is what changes', async () => {
    const at = await open({ lots: [LOT, { ...LOT, lot: 'B', lab: [52, 10, -20] }] })
    expect(at.findAll('.lot').map((l) => l.text())).toEqual([
      expect.stringContaining('A, in use'),
      expect.stringMatching(/^BΔE \d\.\d from it/),
    ])
    await enter(at, 'Colour at full coverage, as L / a / b', '60 / 0 / 0')
    expect(kept().lots).toMatchObject([
      { lot: 'A', lab: [60, 0, 0] },
      { lot: 'B', lab: [52, 10, -20] },
    ])
    expect(kept().lab).toBeUndefined()
    // Forgotten, the next bottle is the one in use.
    await press(at, 'Remove lot A')
    expect(kept().lots).toMatchObject([{ lot: 'B' }])
  })
  it('is known by its coat over black rather than by what was said of its opacity', async () => {
    const at = await open()
    expect(at.text()).toContain('as you entered it')
    await enter(at, 'Colour of one coat over black, as L / a / b', '20 / 2 / 8')
    expect(kept().overBlack).toEqual([20, 2, 8])
    await at.setProps({ item: useStock().paints[0]! })
    expect(at.text()).toContain('the coat over black is more exact')
    await enter(at, 'Colour of one coat over black, as L / a / b', '')
    expect(kept().overBlack).toBeNull()
  })
  it('without opacity is clear medium, and says what that means', async () => {
    const at = await open()
    await type(at, 'Opacity of one brushed coat', '0')
    await at.setProps({ item: useStock().paints[0]! })
    expect(kept().opacity).toBe(0)
    expect(at.text()).toContain('clear medium')
  })
  it('is thinned for the brush and the airbrush apart', async () => {
    const at = await open({ thinning: { brush: 0.8, airbrush: 0.4 } })
    await type(at, 'Share of paint when airbrushed', '35')
    expect(kept().thinning).toEqual({ brush: 0.8, airbrush: 0.35 })
    expect(at.text()).toContain('Logged in 1 coat, 0.4 ml.')
  })
})

describe('all paints', () => {
  const names = (at: Awaited<ReturnType<typeof page.show>>): string[] => at.findAll('.about b').map((b) => b.text())
  const open = async () => {
    page.bench.stock = [
      paint('r', 'Brick', '#b0282a'),
      paint('w', 'Chalk', '#f3f1ea'),
      paint('b', 'Harbour', '#274a78', { kind: 'ink' }),
      paint('k', 'Soot', '#141414'),
    ]
    page.bench.replies.set('GET /paints/used', [{ paintId: 'r', coats: 3, ml: 1.25 }])
    return page.show((await import('../PaintsPlace.vue')).default)
  }
  it('stand in the order of their colour: greys from light to dark, then round the hues', async () => {
    const at = await open()
    expect(names(at)).toEqual(['Chalk', 'Soot', 'Brick', 'Harbour'])
    await choose(at, 'Order', 'name')
    expect(names(at)).toEqual(['Brick', 'Chalk', 'Harbour', 'Soot'])
  })
  it('are drawn as one coat over white and over black, as the optics say', async () => {
    const at = await open()
    const chips = at.findAll<HTMLElement>('.paint')[2]!.findAll<HTMLElement>('i')
    await vi.waitFor(() => expect(chips[2]!.element.style.background).not.toBe(''), 120_000)
    const shade = (n: number): number => hexToLab(chips[n]!.element.style.background)[0]
    // A coat that hides seven tenths: lighter over white than where it hides, darker over black.
    expect(shade(1)).toBeGreaterThan(shade(0))
    expect(shade(2)).toBeLessThan(shade(0))
  })
  it('are found by a part of their name and by their kind', async () => {
    const at = await open()
    const find = control(at, 'Find by name')
    await find.setValue('oo')
    expect(names(at)).toEqual(['Soot'])
    await find.setValue('')
    await choose(at, 'Only of this kind', 'ink')
    expect(names(at)).toEqual(['Harbour'])
  })
  it('are opened one at a time, and a new one is opened at once', async () => {
    const at = await open()
    await at.findAll('.paint')[2]!.trigger('click')
    await settle()
    expect(at.text()).toContain('Logged in 3 coats, 1.3 ml.')
    await press(at, 'Add a paint')
    expect(control(at, 'Name of the paint').element.value).toBe('New paint')
    await press(at, 'Remove New paint')
    expect(names(at)).not.toContain('New paint')
    expect(at.text()).toContain('Click a paint to set its colour')
  })
})
