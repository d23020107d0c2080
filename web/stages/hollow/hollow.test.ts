// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { OperationInput } from '../../../contract/operations'
import type { HoleNear } from '../../../core/shape/holeNear'
import type { WallLoad } from '../../../core/fit/wallLoad'
import { useViewport } from '../../viewport/useViewport'
import { button, choose, control, press, settle, StageBench, type } from '../stageTesting'

let page: StageBench
const HOLLOW: OperationInput & { kind: 'hollow' } = { kind: 'hollow', wall: 2, voxel: 0.5, opening: 1 }
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const site = (x: number, more: object = {}) => ({
  point: [x, 0, 0] as [number, number, number],
  direction: [0, 0, 1] as [number, number, number],
  diameter: 4,
  depth: 2,
  clear: 5,
  edge: 6.25,
  hidden: 0.8,
  covered: false,
  cavity: 0,
  reason: 'lowest place of the cavity',
  score: { hidden: 0.8, place: 1, thin: 0.9, edge: 0.7 },
  ...more,
})
const near = (r: Partial<HoleNear>): HoleNear => ({ asked: null, problem: null, instead: null, ...r })
/** A press on the part itself. */
const on = (x: number) => ({
  point: [x, 0, 0] as [number, number, number],
  normal: [0, 0, -1] as [number, number, number],
  face: 0,
  companion: null,
})

describe('drain holes', () => {
  const open = async () => {
    page.bench.operations = [HOLLOW]
    return page.on(() => import('./HolesPanel.vue'))
  }
  it('are proposed, and are drilled only when that is pressed', async () => {
    page.bench.checks.set('drainSites', { sites: [site(1), site(9)] })
    const at = await open()
    await press(at, 'Propose places')
    expect(at.findAll('li').map((l) => l.text())).toEqual([
      expect.stringContaining('lowest place of the cavity'),
      expect.stringContaining('lowest place of the cavity'),
    ])
    expect(useViewport().scene.markers).toMatchObject([{ point: [1, 0, 0] }, { point: [9, 0, 0] }])
    expect(page.bench.operations).toEqual([HOLLOW])
    await press(at, 'Drill 2')
    expect(page.bench.operations[1]).toEqual({
      kind: 'drill',
      holes: [site(1), site(9)].map(({ point, direction, diameter }) => ({ point, direction, diameter })),
    })
    expect(button(at, 'Drill 2').element.disabled).toBe(true)
  })
  it('are looked for with narrower diameters where the wanted one finds no place, which is said', async () => {
    const asked: number[] = []
    page.bench.checks.set('drainSites', ({ diameter }: { diameter: number }) => {
      asked.push(diameter)
      return { sites: diameter <= 2.5 ? [site(1, { diameter }), site(9, { diameter })] : [] }
    })
    const at = await open()
    await press(at, 'Propose places')
    for (let i = 0; i < 3; i++) await settle()
    expect(asked).toEqual([4, 3, 2.5])
    expect(at.find('[role=alert]').text()).toBe('Holes of 4 mm do not fit everywhere; holes of 2.5 mm do.')
  })
  it('say that no place takes one, and leave nothing to drill', async () => {
    page.bench.checks.set('drainSites', { sites: [] })
    const at = await open()
    await press(at, 'Propose places')
    for (let i = 0; i < 3; i++) await settle()
    expect(at.find('[role=alert]').text()).toContain('Leave the part solid')
    expect(button(at, 'Drill 0').element.disabled).toBe(true)
  })
  it('are set by hand where the skin is pressed, and moved under a joint that is near', async () => {
    page.bench.checks.set('holeNear', near({ asked: site(3), instead: site(5, { covered: true }) }))
    const at = await open()
    await press(at, 'Place drain hole')
    expect(useViewport().scene.mode).toBe('pick')
    useViewport().scene.onPick!(on(3))
    await settle()
    expect(at.find('li').text()).toContain('moved 2.0 mm: covered once assembled')
    expect(useViewport().scene.markers).toMatchObject([{ point: [5, 0, 0], kind: 'hole' }])
    // What stands beside the part is not the part.
    useViewport().scene.onPick!({ ...on(3), companion: 'mesh-other' })
    await settle()
    expect(at.findAll('li')).toHaveLength(1)
  })
  it('say what is wrong with a place, are not drilled there, and go to the next place that does', async () => {
    page.bench.checks.set(
      'holeNear',
      near({ problem: { code: 'no-wall', message: 'It would miss the wall.' }, instead: site(7) }),
    )
    const at = await open()
    await press(at, 'Place drain hole')
    useViewport().scene.onPick!(on(3))
    await settle()
    expect(at.find('li').text()).toContain('It would miss the wall.')
    expect(useViewport().scene.markers).toMatchObject([{ kind: 'problem' }])
    expect(button(at, 'Drill 1').element.disabled).toBe(true)
    await press(at, '4.0 mm away')
    expect(at.find('li').text()).not.toContain('It would miss the wall.')
    expect(button(at, 'Drill 1').element.disabled).toBe(false)
  })
  it('slide along the skin and are looked at again only where they are let go', async () => {
    page.bench.operations = [
      HOLLOW,
      { kind: 'drill', holes: [{ point: [1, 0, 0], direction: [0, 0, 1], diameter: 4 }] },
    ]
    page.bench.checks.set('holeNear', near({ asked: site(2) }))
    const at = await page.on(() => import('./HolesPanel.vue'))
    const asked = (): number => page.bench.sent.filter((s) => s.call === 'POST /checks').length
    const before = asked()
    const { scene } = useViewport()
    expect(scene.onGrab!(on(8))).toBe(false)
    expect(scene.onGrab!(on(1.5))).toBe(true)
    scene.onSlide!(on(1.7), false)
    scene.onSlide!(on(2), false)
    await settle()
    expect(asked()).toBe(before)
    scene.onSlide!(on(2), true)
    await settle()
    expect(asked()).toBe(before + 1)
    expect(at.find('li').text()).toContain('wall 2.0 mm, 6.3 mm from an edge')
    expect(button(at, 'Drill 1').element.disabled).toBe(false)
  })
  it('are all closed again when none is left', async () => {
    page.bench.operations = [
      HOLLOW,
      { kind: 'drill', holes: [{ point: [1, 0, 0], direction: [0, 0, 1], diameter: 4 }] },
    ]
    const at = await page.on(() => import('./HolesPanel.vue'))
    await press(at, 'Remove hole 1')
    await press(at, 'Close all holes')
    expect(page.bench.operations.map((o) => o.kind)).toEqual(['hollow'])
  })
  it('give plugs as parts of their own, each taken from the part as it was before it was hollowed', async () => {
    page.bench.operations = [
      { kind: 'scale', factor: 2, about: 'foot' },
      HOLLOW,
      { kind: 'drill', holes: [{ point: [1, 0, 0], direction: [0, 0, 1], diameter: 4 }] },
    ]
    const { OWN } = await import('../../stores/fakeServer')
    OWN.drill = { drill: { holes: [site(1)], volumeRemoved: 9 } }
    const at = await page.on(() => import('./HolesPanel.vue'))
    await type(at, 'Clearance', '0.15')
    await press(at, 'Make one plug as parts')
    expect(page.bench.arranged).toMatchObject({
      create: [
        {
          name: 'Plug 1 of bust',
          operations: [{ kind: 'scale' }, { kind: 'plug', diameter: 4, depth: 2, clearance: 0.15 }],
        },
      ],
    })
    OWN.drill = { drill: { holes: [], volumeRemoved: 0 } }
  })
})

describe('the wall', () => {
  const open = (props: object = {}) =>
    page.on(() => import('./WallPanel.vue'), { wall: 2, voxel: 0.5, opening: 1, source: 'usual', ...props })
  const load = (places: WallLoad['places']): WallLoad => ({
    places,
    planned: { stress: 14.26, height: 33.4 },
    solid: { stress: 4, height: 30 },
  })
  it('is hollowed as it is set, thicker where it was brushed, and one spot for a place brushed twice', async () => {
    const at = await open({ wall: 2.4 })
    await press(at, 'Brush')
    const { scene } = useViewport()
    expect(scene.mode).toBe('brush')
    scene.onPick!(on(0))
    scene.onPick!(on(1))
    scene.onPick!(on(9))
    scene.onPick!({ ...on(30), companion: 'mesh-other' })
    await settle()
    expect(at.text()).toContain('1.5 mm more at 2')
    await press(at, 'Hollow')
    expect(page.bench.operations).toMatchObject([
      { kind: 'hollow', wall: 2.4, thicker: { by: 1.5, dabs: [{ point: [0, 0, 0] }, { point: [9, 0, 0] }] } },
    ])
    // Whoever hollows is done brushing.
    expect(useViewport().scene.mode).not.toBe('brush')
  })
  it('is made thicker where a push would break it, by as much as the worst place asks for', async () => {
    page.bench.checks.set(
      'wallLoad',
      load([
        { point: [0, 0, 20], reach: 6, stress: 12, wall: 2.9 },
        { point: [0, 0, 33], reach: 4, stress: 14.26, wall: 3.44 },
      ]),
    )
    const at = await open()
    await press(at, 'Find the highest load')
    expect(at.find('[role=status]').text()).toBe(
      'The highest stress is 33 mm up: 14.3 MPa of 10 allowed. The wall there becomes 3.4 mm.',
    )
    await press(at, 'Hollow')
    expect(page.bench.operations).toMatchObject([
      { thicker: { by: 1.4, dabs: [{ point: [0, 0, 20], radius: 13 }, { radius: 9 }] } },
    ])
  })
  it('says that even solid it bends too much, and that nothing is needed where the wall does', async () => {
    page.bench.checks.set('wallLoad', load([{ point: [0, 0, 20], reach: 6, stress: 44, wall: null }]))
    const at = await open()
    await press(at, 'Find the highest load')
    expect(at.find('[role=status]').text()).toContain('Even solid, it bends too much there. Reinforce it with wire.')
    page.bench.checks.set('wallLoad', load([]))
    await type(at, 'Cured resin is allowed', 20)
    await press(at, 'Find the highest load')
    expect(at.find('[role=status]').text()).toContain('14.3 MPa of 20 allowed. The wall is strong enough.')
    expect(page.bench.sent.at(-1)!.body).toMatchObject({ check: { allow: 20, wall: 2, push: 3 } })
  })
  it('never has bars that are thicker than what is between them', async () => {
    const at = await open()
    await choose(at, 'Infill', 'bars')
    await type(at, 'Spacing', 3)
    await type(at, 'Thickness', 8)
    await press(at, 'Hollow')
    expect(page.bench.operations[0]).toMatchObject({ fill: { kind: 'bars', spacing: 3, thickness: 3 / 2.1 } })
  })
  it('shows what the part was hollowed with, and does the same again only when asked', async () => {
    page.bench.operations = [
      {
        ...HOLLOW,
        thicker: { by: 0.7, dabs: [{ point: [1, 1, 1], radius: 5 }] },
        fill: { kind: 'gyroid', spacing: 12, thickness: 1.5 },
      },
    ]
    const at = await open()
    expect(at.text()).toContain('0.7 mm more at 1')
    expect(control(at, 'Spacing').element.value).toBe('12')
    // Spots that are made already are not in the way of what else is set on the part.
    expect(useViewport().scene.markers).toEqual([])
    await press(at, 'Remove all')
    await press(at, 'Hollow again')
    expect(page.bench.operations[0]).not.toHaveProperty('thicker')
    expect(page.bench.operations[0]).toMatchObject({ fill: { kind: 'gyroid' } })
  })
})

describe('what is asked at Core', () => {
  const open = () => page.on(() => import('../HollowStage.vue'))
  it('proposes a wall by the size of the part, and says that it was the part’s size that chose it', async () => {
    const at = await open()
    expect(control(at, 'Wall').element.value).toBe('1.4')
    expect(at.text()).toContain('usual for 20 mm')
  })
  it('names a wall that was asked for as one’s own', async () => {
    page.bench.operations = [{ ...HOLLOW, wall: 2.2 }]
    const at = await open()
    expect(control(at, 'Wall').element.value).toBe('2.2')
    expect(at.text()).toContain('yours')
    expect(at.text()).toContain('2.00 mm at its thinnest')
  })
})

describe('draining', () => {
  const report = {
    trapped: 1234,
    pools: [],
    cavity: 20500,
    shut: 0,
    best: { down: [0, 0, -1], left: 0 },
    routine: [
      { down: [0, 0, -1], left: 1234 },
      { down: [1, 0, 0], left: 80 },
    ],
    stuck: [],
    voxel: 0.5,
  }
  const open = async (rinse: object) => {
    page.bench.operations = [
      HOLLOW,
      { kind: 'drill', holes: [{ point: [1, 0, 0], direction: [0, 0, 1], diameter: 4 }] },
    ]
    page.bench.checks.set('rinse', rinse)
    return page.on(() => import('./DrainPanel.vue'), { report })
  }
  it('turns the part as it is to be held, in the order that empties it', async () => {
    const at = await open({ openings: [], enter: -1, swept: 0, still: 0, deadEnds: [], streams: [] })
    expect(at.findAll('li .soft').map((l) => l.text())).toEqual(['1.2 ml left', '0.08 ml left'])
    await at.findAll('li button')[1]!.trigger('click')
    const q = useViewport().scene.quaternion!
    // What was to the right is down now.
    const [x, y, z, w] = q
    expect([2 * (x! * z! - w! * y!), 1 - 2 * (x! * x! + y! * y!)].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      -1, 0,
    ])
    await press(at, 'Reset view')
    expect(button(at, 'Reset view').element.disabled).toBe(true)
  })
  it('says that one hole cannot be flushed through', async () => {
    const at = await open({
      openings: [{ at: [1, 0, 0], area: 12, hole: 0 }],
      enter: -1,
      swept: 0,
      still: 9000,
      deadEnds: [],
      streams: [],
    })
    expect(at.text()).toContain('Nothing can be flushed through one hole')
    expect(at.text()).not.toContain('Syringe')
  })
  it('names the hole for the syringe, how much is swept, and three times its volume to use', async () => {
    const at = await open({
      openings: [
        { at: [1, 0, 0], area: 12, hole: null },
        { at: [5, 0, 0], area: 12, hole: 0 },
      ],
      enter: 1,
      swept: 15000,
      still: 5000,
      deadEnds: [{ at: [2, 2, 2], volume: 5000 }],
      streams: [
        [
          [5, 0, 0],
          [3, 0, 0],
          [1, 0, 0],
        ],
      ],
    })
    expect(at.text()).toContain('With a syringe into hole 1, the flow reaches 75 % of 20.0 ml; 5.0 ml do not move')
    expect(at.text()).toContain('Use at least 60.0 ml.')
    await press(at, 'Show the flow')
    const { markers } = useViewport().scene
    expect(markers.filter((m) => m.kind === 'warning')).toMatchObject([{ point: [2, 2, 2] }])
    expect(markers.filter((m) => m.kind === 'note').every((m) => [1, 3, 5].includes(m.point[0]))).toBe(true)
    await press(at, 'Stop')
    expect(useViewport().scene.markers).toEqual([])
  })
})
