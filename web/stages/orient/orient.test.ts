// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { OrientationScore } from '../../../core/print/orient/orientation'
import { otherPart, OWN, PART } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { button, choose, control, press, settle, StageBench, type } from '../stageTesting'

let page: StageBench
const HELD = OWN.support
const tip = (x: number, more: object = {}) => ({
  point: [x, 0, 8],
  grade: 'strut',
  landsOn: 'plate',
  force: 1,
  utilisation: 0.4,
  worstZ: 9,
  byHand: false,
  island: false,
  focal: false,
  length: 8,
  clearance: 1,
  ...more,
})
beforeEach(() => {
  page = new StageBench()
  page.stocked()
  page.bench.checks.set('layers', { areas: [], suction: [], islands: [], cups: [] })
})
afterEach(() => {
  OWN.support = HELD
  page.end()
})
/** measures of a cube of 1 mm */
const CUBE = { size: [1, 1, 1], box: { min: [0, 0, 0], max: [1, 1, 1] }, area: 6, volume: 1, centre: [0.5, 0.5, 0.5] }
/** Supported: lifted by 5 mm, with tips at 0, 10 and 20 mm. */
const supported = (): void => {
  const { support } = HELD as { support: object }
  OWN.support = { support: { ...support, tips: [tip(0), tip(10), tip(20, { utilisation: 1.3 })], shift: [0, 0, 5] } }
  page.bench.operations = [
    { kind: 'orient', quaternion: [0, 0, 0, 1] },
    { kind: 'support', limit: 40, spacing: 3, clearance: 0.6, lift: 5 },
  ]
}
const stage = () => page.on(() => import('../OrientStage.vue'))
const last = () => page.bench.operations.at(-1) as unknown as Record<string, unknown>
const at = (x: number, z = 8) => ({
  point: [x, 0, z] as [number, number, number],
  normal: [0, 0, 1] as [number, number, number],
  face: 0,
  companion: null,
})

describe('supports', () => {
  it('are grown from the forces of this resin on this printer, standing the part up first', async () => {
    const s = await stage()
    await type(s, /^Between tips/, '4')
    await press(s, 'Generate supports')
    expect(page.bench.operations.map((o) => o.kind)).toEqual(['orient', 'support'])
    expect(last()).toMatchObject({ spacing: 4, limit: 40, lift: 5, edits: [] })
    expect(last().peelPressure).toBeGreaterThan(0)
  })
  it('are grown on the orientation that was being stored when they were asked for', async () => {
    const s = await stage()
    const tipped = { kind: 'orient', quaternion: [0.1, 0, 0, 0.99] } as const
    const asked = usePiece().apply({ ...tipped, quaternion: [...tipped.quaternion] })
    await press(s, 'Generate supports')
    await asked
    await settle()
    expect(page.bench.operations.map((o) => o.kind)).toEqual(['orient', 'support'])
    expect(page.bench.operations[0]).toMatchObject(tipped)
  })
  it('mark each tip by how hard it works, and say how many there are of each', async () => {
    supported()
    const s = await stage()
    const kinds = useViewport()
      .scene.markers.filter((m) => m.point[2] === 8 && m.kind !== 'warning')
      .map((m) => m.kind)
    expect(kinds).toEqual(['tip', 'tip', 'problem'])
    expect(s.text()).toContain('3 tips')
    expect(s.text()).toContain('130 %')
    // Each of the three has a size of its own in the file's words; the screen counts them by ours.
    expect(s.text()).toContain('fine, medium, strong0, 3, 0')
  })
  it('stand on joint faces only where there are any, and say so where there are none', async () => {
    page.bench.others = [otherPart('99999999-9999-4999-8999-999999999999', 'plinth')]
    page.bench.checks.set('measures', CUBE)
    page.bench.checks.set('coveredDabs', { dabs: [] })
    const s = await stage()
    await choose(s, /Method/, 'joints')
    await press(s, 'Generate supports')
    expect(s.text()).toContain('there are no joint faces for supports')
    expect(page.bench.operations.map((o) => o.kind)).toEqual(['orient'])
    page.bench.checks.set('coveredDabs', { dabs: [{ point: [1, 2, 3], radius: 1 }] })
    await usePiece().remove('orient')
    await settle()
    await press(s, 'Generate supports')
    expect(last()).toMatchObject({ school: 'joints', only: [{ radius: 1 }] })
  })
  it('are set, removed and graded by hand, on the body as it stood before they lifted it', async () => {
    supported()
    const s = await stage()
    const does = async (tool: string, x: number, z = 8): Promise<void> => {
      await press(s, tool)
      useViewport().scene.onPick!(at(x, z))
      await settle()
      await press(s, `Done ${{ Add: 'adding', Remove: 'removing', 'Change size': 'changing' }[tool]}`)
    }
    await choose(s, 'Size of tips placed by hand', 'post')
    await does('Add', 5)
    await does('Remove', 9)
    await does('Change size', 19)
    expect(last().edits).toEqual([
      { kind: 'add', point: [5, 0, 3], grade: 'post' },
      { kind: 'remove', point: [10, 0, 3] },
      { kind: 'regrade', point: [20, 0, 3], grade: 'post' },
    ])
    // All else of the supports is as it was asked for.
    expect(last()).toMatchObject({ spacing: 3, lift: 5 })
    await press(s, 'Remove')
    useViewport().scene.onPick!(at(60))
    await settle()
    expect(s.find('[role=alert]').text()).toBe('There is no tip within 12 mm of that place.')
    expect(last().edits).toHaveLength(3)
  })
  it('are moved by two presses or pulled along the skin, and never by a press that pulls nothing', async () => {
    supported()
    const s = await stage()
    await press(s, 'Move')
    useViewport().scene.onPick!(at(11))
    await settle()
    expect(useViewport().scene.markers.some((m) => m.over && m.point[0] === 10)).toBe(true)
    useViewport().scene.onPick!(at(14))
    await settle()
    expect(last().edits).toEqual([{ kind: 'move', point: [10, 0, 3], to: [14, 0, 3] }])
    const { scene } = useViewport()
    expect(scene.onGrab!(at(5))).toBe(false)
    expect(scene.onGrab!(at(1))).toBe(true)
    scene.onSlide!(at(3), false)
    await settle()
    expect(useViewport().scene.markers.some((m) => m.over && m.point[0] === 3)).toBe(true)
    scene.onSlide!(at(4), true)
    await settle()
    expect((last().edits as object[]).at(-1)).toEqual({ kind: 'move', point: [0, 0, 3], to: [4, 0, 3] })
    const edits = (last().edits as object[]).length
    expect(useViewport().scene.onGrab!(at(20))).toBe(true)
    useViewport().scene.onSlide!(at(20.2), true)
    await settle()
    expect(last().edits).toHaveLength(edits)
  })
  it('are painted closer in places, and the paint is kept from one growing to the next until it is forgotten', async () => {
    supported()
    const s = await stage()
    await press(s, 'More here')
    useViewport().scene.onPick!(at(3))
    useViewport().scene.onPick!(at(4))
    useViewport().scene.onPick!(at(30))
    await settle()
    await press(s, /^Generate again around 2/)
    expect(last()).toMatchObject({ more: [{ point: [3, 0, 3], radius: 5 }, { point: [30, 0, 3] }] })
    await press(s, 'Generate supports again')
    expect(last().more).toHaveLength(2)
    await press(s, /^Remove the brushed areas/)
    expect((last().more as unknown[] | undefined)?.length ?? 0).toBe(0)
  })
})

const way = (x: number, more: Partial<OrientationScore> = {}): OrientationScore => {
  const a = (x * Math.PI) / 180
  return {
    up: [Math.sin(a), 0, Math.cos(a)],
    quaternion: [0, -Math.sin(a / 2), 0, Math.cos(a / 2)],
    height: 20,
    scar: 10 + x,
    overhang: 5,
    focal: 0,
    resin: 1,
    starts: 1,
    peak: 1,
    cup: 0,
    fits: true,
    front: true,
    score: x,
    ...more,
  }
}

describe('the orientation', () => {
  it('proposes the best of what was found, tells why, and sets it only when that is pressed', async () => {
    const ways = [way(40), way(0), way(80, { front: false })]
    page.bench.checks.set('orientations', { scores: ways, upright: way(0) })
    const s = await stage()
    await press(s, 'Find the best')
    expect(useViewport().scene.quaternion).toEqual(ways[0]!.quaternion)
    expect(s.text()).toContain('2 orientations, none of them worse than another')
    expect(s.text()).toContain('40°from upright')
    expect(s.text()).toContain('standing upright')
    expect(page.bench.operations).toEqual([])
    await press(s, 'Apply orientation')
    expect(page.bench.operations).toMatchObject([{ kind: 'orient', quaternion: ways[0]!.quaternion }])
    expect(button(s, 'Find the best').exists()).toBe(true)
  })
  it('searches with a side that must look up, within the printer less the lift', async () => {
    page.bench.checks.set('orientations', { scores: [way(40)] })
    const s = await stage()
    await press(s, 'A side must point up')
    useViewport().scene.onPick!({ ...at(0), normal: [1, 0, 0] })
    await settle()
    await press(s, 'Find the best')
    const { check } = page.bench.sent.filter((x) => x.call === 'POST /checks').at(-1)!.body as {
      check: { keep: unknown; volume: number[] }
    }
    expect(check.keep).toEqual({ direction: [1, 0, 0], within: 60 })
    expect(check.volume).toEqual([96, 72, 120 - 5 - 1].map((v) => expect.closeTo(v, 6)))
    await press(s, 'Remove condition')
    await press(s, 'Find the best')
    expect(
      (page.bench.sent.filter((x) => x.call === 'POST /checks').at(-1)!.body as { check: { keep: unknown } }).check
        .keep,
    ).toBeNull()
  })
  it('turns it by five degrees at a time from where it is, and puts it back', async () => {
    const s = await stage()
    await press(s, 'Tilt by hand')
    await press(s, 'forward 5°')
    await press(s, 'forward 5°')
    expect(s.text()).toContain('10°from upright')
    await press(s, 'back 5°')
    expect(s.text()).toContain('5°from upright')
    await press(s, 'Cancel')
    expect(page.bench.operations).toEqual([])
    expect(s.text()).not.toContain('from upright')
  })
  it('puts the face that is pressed down', async () => {
    const s = await stage()
    await press(s, 'Put a face down')
    useViewport().scene.onPick!({ ...at(0), normal: [1, 0, 0] })
    await settle()
    const [x, y, z, w] = useViewport().scene.quaternion!
    // What looked right looks down.
    expect(2 * (x! * z! - w! * y!)).toBeCloseTo(-1, 6)
  })
  it('stands pairs alike, in one step of undo', async () => {
    const other = '99999999-9999-4999-8999-999999999999'
    page.bench.others = [otherPart(other, 'left boot')]
    page.bench.checks.set('measures', CUBE)
    const s = await stage()
    await choose(s, /left boot is oriented alike/, true)
    await press(s, 'Tilt by hand')
    await press(s, 'right 5°')
    await press(s, 'Apply orientation')
    const { changes } = page.bench.arranged as { changes: { id: string; operations: { quaternion: number[] }[] }[] }
    expect(changes.map((c) => c.id)).toEqual([PART, other])
    expect(changes[0]!.operations[0]!.quaternion).toEqual(changes[1]!.operations[0]!.quaternion)
    await usePiece().undo()
    expect(page.bench.others[0]!.operations).toEqual([])
    expect(control(s, /left boot/).element.checked).toBe(true)
  })
})
