// @vitest-environment happy-dom
import type { VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { coat as coatSchema, region as regionSchema, type Coat } from '../../../contract/scheme'
import { LIBRARY } from '../../../core/paint/coats/library'
import { gazeTarget } from '../../../core/paint/eyes/eyes'
import { concatenate } from '../../../core/mesh/mesh'
import { sphereBody } from '../../../core/testBodies'
import { item, PART, PIECE } from '../../stores/fakeServer'
import { useScheme } from '../../stores/scheme'
import { useViewport } from '../../viewport/useViewport'
import { button, choose, control, press, settle, shop, StageBench, type, unfold } from '../stageTesting'
import CoatList from './CoatList.vue'
import EyesPanel from './EyesPanel.vue'
import StackPanel from './StackPanel.vue'

vi.mock('comlink', () => import('../../workers/inProcess'))

let page: StageBench
const P = (n: number): string => `${n}0000000-0000-4000-8000-000000000000`
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop())
  page.bench.stock = [
    item('paint', P(1), { name: 'Chalk', hex: '#f3f1ea', opacity: 0.85, kind: 'acrylic' }),
    item('paint', P(2), { name: 'Brick', hex: '#b0282a', opacity: 0.6, kind: 'acrylic' }),
    item('paint', P(3), { name: 'Soot', hex: '#17171a', opacity: 0.9, kind: 'acrylic' }),
  ]
})
afterEach(() => page.end())
const coat = (id: string, regionId: number, more: object = {}): Coat =>
  coatSchema.parse({ id, regionId, technique: 'base', ...more })

describe('the coats of a region', () => {
  /** The list as its stage holds it: what it says is what it is given next. */
  const open = async (coats: Coat[], region = 0) => {
    await page.piece()
    const at: VueWrapper = await page.show(CoatList, {
      modelValue: coats,
      region,
      facts: new Map(),
      'onUpdate:modelValue': (next: Coat[]) => void at.setProps({ modelValue: next }),
    })
    const now = (): Coat[] => at.props('modelValue' as never) as Coat[]
    return { at, now }
  }
  it('are changed without touching those of other regions', async () => {
    const { at, now } = await open([coat('a', 0), coat('b', 1), coat('c', 0)])
    expect(at.findAll('.coat')).toHaveLength(2)
    await choose(at.findAll('.coat')[1]!, 'Paint', P(2))
    expect(now().map((c) => [c.id, c.paintId])).toEqual([
      ['a', null],
      ['b', null],
      ['c', P(2)],
    ])
    await press(at, 'Remove coat 1')
    expect(now().map((c) => c.id)).toEqual(['b', 'c'])
  })
  it('begin as their technique usually is: a glaze thin and thinned, an airbrushed one with the airbrush', async () => {
    const { at, now } = await open([])
    expect(at.text()).toContain('Start with a base coat')
    await press(at, '+ glaze')
    await press(at, '+ airbrush')
    expect(now()).toMatchObject([
      { technique: 'glaze', film: 10, pigment: 0.25, tool: 'brush', regionId: 0 },
      { technique: 'airbrush', film: 24, tool: 'airbrush' },
    ])
    await choose(at.findAll('.coat')[0]!, 'Technique', 'airbrush')
    expect(now()[0]).toMatchObject({ technique: 'airbrush', tool: 'airbrush' })
  })
  it('take a mix as their base: in the one that is there, or in a new one under all others', async () => {
    const { at, now } = await open([coat('w', 0, { technique: 'wash', paintId: P(3) })])
    const list = at.vm as unknown as { take: (drops: { paint: string; drops: number }[]) => void }
    list.take([
      { paint: P(1), drops: 3 },
      { paint: P(2), drops: 1 },
    ])
    await settle()
    expect(now().map((c) => c.technique)).toEqual(['base', 'wash'])
    expect(now()[0]!.mix).toEqual([
      { paintId: P(1), drops: 3 },
      { paintId: P(2), drops: 1 },
    ])
    expect(at.findAll('.coat')[0]!.text()).toContain('3 Chalk + 1 Brick')
    list.take([{ paint: P(2), drops: 2 }])
    await settle()
    expect(now()).toHaveLength(2)
    expect(now()[0]).toMatchObject({ mix: [{ paintId: P(2), drops: 2 }], paintId: null })
    // One paint instead of the mix.
    await choose(at.findAll('.coat')[0]!, 'Paint', P(1))
    expect(now()[0]).toMatchObject({ mix: [], paintId: P(1) })
  })
  it('show how much is covered only of what is in spots', async () => {
    const { at } = await open([
      coat('a', 0),
      coat('b', 0, { technique: 'stipple' }),
      coat('c', 0, { technique: 'powder' }),
    ])
    const [base, dots, powder] = at.findAll('.coat')
    expect(base!.text()).not.toContain('coverage')
    expect(dots!.text()).toContain('coverage')
    expect(dots!.text()).toContain('dots')
    expect(powder!.text()).not.toContain('dots')
  })
})

describe('stacks of coats', () => {
  const open = async (scheme: object) => {
    page.bench.replies.set(`GET /pieces/${PIECE}/scheme`, {
      version: 1,
      regions: [{ id: 0, name: 'Scarf' }],
      coats: [],
      maps: [],
      ...scheme,
    })
    await page.piece()
    useScheme()
    await settle()
    return page.show(StackPanel, {
      region: useScheme().scheme!.regions[0],
      shown: 0,
      sent: () => null,
      kelvin: null,
    })
  }
  it('are proposed from the region’s colour in paints of the stock, and what was there is kept', async () => {
    const at = await open({
      regions: [regionSchema.parse({ id: 0, name: 'Scarf', target: '#a8281f' })],
      coats: [coat('old', 0, { paintId: P(3) }), coat('other', 1)],
    })
    const stack = LIBRARY[0]!
    await choose(at, 'Stack', stack.id)
    await press(at, 'Add these coats')
    await vi.waitFor(() => expect(useScheme().scheme!.variants).toHaveLength(1), 120_000)
    const { coats, variants } = useScheme().scheme!
    const mine = coats.filter((c) => c.regionId === 0)
    expect(mine.map((c) => c.technique)).toEqual(stack.coats.map((c) => c.technique))
    for (const c of mine)
      for (const p of [c.paintId, ...c.mix.map((m) => m.paintId)]) if (p) expect([P(1), P(2), P(3)]).toContain(p)
    expect(coats.some((c) => c.id === 'other')).toBe(true)
    expect(variants[0]).toMatchObject({ regionId: 0, name: 'base', coats: [{ id: 'old' }] })
    expect(at.emitted('changed')).toHaveLength(1)
  })
  it('need a colour first, and say where it is given', async () => {
    const at = await open({})
    await press(at, 'Add these coats')
    expect(at.find('[role=alert]').text()).toContain('Give the region a colour first')
    expect(useScheme().scheme!.coats).toEqual([])
  })
  it('that were kept change places with what is there, and none is lost', async () => {
    const at = await open({
      coats: [coat('now', 0, { technique: 'glaze' })],
      variants: [
        { id: 'v', regionId: 0, name: 'brighter', coats: [coat('with this value', 0, { technique: 'wash' })] },
      ],
    })
    await press(at, 'Use')
    const { coats, variants } = useScheme().scheme!
    expect(coats.map((c) => c.id)).toEqual(['with this value'])
    expect(variants).toMatchObject([{ id: 'v', name: 'glaze', coats: [{ id: 'now' }] }])
    await press(at, /^Delete “glaze”/)
    expect(useScheme().scheme!.variants).toEqual([])
  })
  it('are kept in the workshop’s library under a name, in place of one that has it', async () => {
    page.bench.replies.set(
      'GET /workshop',
      shop({
        stacks: [
          { name: 'Rust', coats: [coat('x', 0)] },
          { name: 'Bone', coats: [coat('y', 0)] },
        ],
      }),
    )
    page.bench.replies.set('PUT /workshop', shop())
    const at = await open({ coats: [coat('now', 0, { technique: 'chips' })] })
    await at.find('form').trigger('submit')
    await settle()
    expect(at.find('[role=alert]').text()).toBe('Give the stack a name.')
    await control(at, 'Name of this stack').setValue(' Rust ')
    await at.find('form').trigger('submit')
    await settle()
    const { stacks } = page.bench.sent.at(-1)!.body as { stacks: { name: string; coats: Coat[] }[] }
    expect(stacks.map((s) => [s.name, s.coats[0]!.technique])).toEqual([
      ['Bone', 'base'],
      ['Rust', 'chips'],
    ])
  })
})

describe('eyes', () => {
  /** Two balls of 12 mm, 40 mm apart, looking to the front. */
  const pair = concatenate([sphereBody(12, 4, [-20, 0, 0]), sphereBody(12, 4, [20, 0, 0])])
  const open = async (eyes: object | null = null) => {
    await page.piece()
    useViewport().shown = { mesh: pair, hash: 'a'.repeat(64), of: 'mesh-sculpt', bodyFaces: pair.triangles.length / 3 }
    const at: VueWrapper = await page.show(EyesPanel, {
      modelValue: eyes,
      'onUpdate:modelValue': (next: object) => void at.setProps({ modelValue: next }),
    })
    await unfold(at)
    type Asked = { hint: string; taken: (p: object) => void } | null
    const asked = (): Asked => (at.emitted('ask') ?? []).at(-1)![0] as Asked
    const now = () =>
      at.props('modelValue' as never) as {
        balls: { centre: number[]; radius: number }[]
        turn: number
        lift: number
        distance: number
      } | null
    return { at, asked, now }
  }
  const on = (x: number, companion: string | null = null) => ({
    point: [x, -12, 0],
    normal: [0, -1, 0],
    face: 0,
    companion,
  })
  it('are two presses: a ball is fitted to the skin about each, left to right whichever came first', async () => {
    const { at, asked, now } = await open()
    await type(at, /^Surface around the place/, '5')
    await press(at, 'Choose the eyes')
    asked()!.taken(on(20))
    await settle()
    expect(now()!.balls).toHaveLength(1)
    expect(asked()!.hint).toContain('the other eyeball')
    asked()!.taken(on(-20))
    await settle()
    const { balls } = now()!
    expect(balls.map((b) => Math.sign(b.centre[0]!))).toEqual([-1, 1])
    for (const [i, b] of balls.entries()) {
      expect(Math.abs(b.radius - 12)).toBeLessThan(0.3)
      expect(Math.abs(b.centre[0]! - [-20, 20][i]!)).toBeLessThan(0.3)
    }
    expect(asked()).toBeNull()
    expect(at.text()).toContain('Both look within')
  })
  it('take no press on another part', async () => {
    const { at, asked, now } = await open()
    await press(at, 'Choose the eyes')
    asked()!.taken(on(20, 'plinth-sculpt'))
    await settle()
    expect(now()).toBeNull()
  })
  const balls = [
    { centre: [-20, 0, 0], radius: 12, off: 0.1 },
    { centre: [20, 0, 0], radius: 12, off: 0.1 },
  ]
  const both = { partId: PART, balls, turn: 0, lift: 0, distance: 300, lid: 'calm', iris: 0.5, pupil: 0.2 }
  it('look where what they look at is dragged to', async () => {
    const { at, now } = await open(both)
    const { target, onTarget } = useViewport().scene
    // Drawn nearer than it is, straight before them.
    expect(target![1]).toBeLessThan(-40)
    expect(target![0]).toBeCloseTo(0)
    onTarget!([30, -60, 0], true)
    await settle()
    expect(now()!.turn).not.toBe(0)
    expect(now()!.distance).toBe(300)
    const seen = gazeTarget(balls as never, now()!.turn, now()!.lift, 60)
    expect(Math.abs(seen[0] / seen[1] - 30 / -60)).toBeLessThan(0.05)
    await type(at, 'Looks to its own left', '-95')
    expect(now()!.turn).toBe(-80)
  })
  it('of another part are none of this one’s', async () => {
    const { at } = await open({ ...both, partId: '99999999-9999-4999-8999-999999999999' })
    expect(at.text()).toContain('Click both eyeballs')
    expect(useViewport().scene.markers).toEqual([])
    expect(button(at, 'Choose the eyes').exists()).toBe(true)
  })
})
