// @vitest-environment happy-dom
import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { useScaling } from '../../composables/useScaling'
import { LANDMARKS } from '../../../core/defaults/fit'
import { statureAlong } from '../../../core/fit/stature'
import { MEASURES, otherPart, PART, PIECE } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { button, choose, press, settle, shop, StageBench, type, unfold } from '../stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
  page.bench.checks.set('measures', MEASURES)
  page.bench.replies.set('GET /workshop', shop())
})
afterEach(() => page.end())
const on = (point: [number, number, number], companion: string | null = null) => ({
  point,
  normal: [0, 0, 1] as [number, number, number],
  face: 0,
  companion,
})
const arranged = () =>
  page.bench.arranged as {
    changes: { id: string; operations: Record<string, unknown>[] }[]
    create: { name: string; from: string; operations: Record<string, unknown>[] }[]
  }

describe('cutting a part in two', () => {
  const SITE = { shape: 'key', point: [5, 5, 10], direction: [0, 0, 1], width: 4, length: 5, draft: 3, clearance: 0.1 }
  const open = async () => {
    page.bench.trials.set('cut', { cut: { area: 100, seam: 40, pieces: 1 } })
    page.bench.trials.set('fix', { fix: { walls: [2] } })
    page.bench.checks.set('keySites', { sites: [SITE] })
    const at = await page.on(() => import('./CutPanel.vue'))
    await unfold(at)
    await settle()
    return at
  }
  it('gives two parts, the lower with the keys and the upper with their sockets', async () => {
    page.bench.operations = [
      { kind: 'scale', factor: 2, about: 'foot' },
      { kind: 'hollow', wall: 2, voxel: 0.5, opening: 1 },
    ]
    const at = await open()
    await press(at, 'level')
    await type(at, 'Position along the axis', '25')
    expect(useViewport().scene.plane).toMatchObject({ point: [5, 5, 5], normal: [0, 0, 1] })
    await press(at, 'Cut')
    const { changes, create } = arranged()
    expect(changes[0]!.operations.map((o) => o.kind)).toEqual(['scale', 'cut', 'fix', 'hollow'])
    expect(changes[0]!.operations[1]).toMatchObject({ keep: 'below', point: [5, 5, 5], line: [] })
    expect(changes[0]!.operations[2]).toMatchObject({ fixings: [{ shape: 'key', role: 'plug', width: 4 }] })
    expect(create).toMatchObject([{ name: 'bust, upper half', from: PART }])
    expect(create[0]!.operations.map((o) => o.kind)).toEqual(['scale', 'cut', 'fix', 'hollow'])
    expect(create[0]!.operations[1]).toMatchObject({ keep: 'above' })
    expect(create[0]!.operations[2]).toMatchObject({ fixings: [{ role: 'socket' }] })
  })
  it('leans the cut about its own place', async () => {
    const at = await open()
    await press(at, 'left from right')
    await type(at, 'Tilt', '30')
    const { normal } = useViewport().scene.plane!
    expect(normal[0]).toBeCloseTo(Math.cos(Math.PI / 6))
    expect(Math.hypot(...normal)).toBeCloseTo(1)
  })
  it('is done without keys where the section has no room or they cannot be made, and says so', async () => {
    const at = await open()
    page.bench.checks.set('keySites', { sites: [] })
    await press(at, 'level')
    await press(at, 'Cut')
    expect(arranged().changes[0]!.operations.map((o) => o.kind)).toEqual(['cut'])
    expect(at.find('[role=status]').text()).toContain('has no room for a key with 1.5 mm of wall')
    page.bench.operations = []
    page.bench.checks.set('keySites', { sites: [SITE] })
    page.bench.failing.set('fix', 'no')
    await usePiece().open(PIECE)
    await press(at, 'Cut')
    expect(arranged().changes[0]!.operations.map((o) => o.kind)).toEqual(['cut'])
  })
  it('keeps the part whole where a half is none, and says why', async () => {
    const at = await open()
    await press(at, 'level')
    page.bench.failing.set('cut', 'Nothing is left above.')
    await press(at, 'Cut')
    expect(page.bench.arranged).toBeNull()
    expect(usePiece().problem).toBe('Nothing is left above.')
  })
  it('runs through places that are pressed round the part, by the plane nearest to them', async () => {
    const at = await open()
    await press(at, 'along a line')
    page.bench.checks.set('skinLine', {
      line: [
        [0, 0, 10],
        [10, 0, 12],
        [10, 10, 10],
        [0, 10, 8],
      ],
    })
    expect(button(at, 'Cut').element.disabled).toBe(true)
    const places: [number, number, number][] = [
      [0, 0, 10],
      [10, 0, 12],
      [10, 10, 10],
      [0, 10, 8],
    ]
    for (const p of places) {
      useViewport().scene.onPick!(on(p))
      useViewport().scene.onPick!(on([50, 50, 50], 'plinth-sculpt'))
      await settle()
    }
    expect(at.text()).toContain('4 places')
    const { point, normal } = useViewport().scene.plane!
    expect(point).toEqual([5, 5, 10])
    expect(normal[2]).toBeGreaterThan(0)
    // All four lie in one plane: it is that one.
    for (const p of places) expect(p.reduce((s, v, k) => s + (v - point[k]!) * normal[k]!, 0)).toBeCloseTo(0, 6)
    await press(at, 'Remove the last')
    expect(at.text()).toContain('3 places')
    await press(at, 'Cut')
    expect(arranged().changes[0]!.operations[0]).toMatchObject({
      kind: 'cut',
      line: expect.arrayContaining([[0, 0, 10]]),
    })
    expect(at.text()).toContain('0 places')
  })
  it('is not keyed where that is not wanted', async () => {
    const at = await open()
    await press(at, 'level')
    await choose(at, /with keys/, false)
    await press(at, 'Cut')
    expect(arranged().changes[0]!.operations.map((o) => o.kind)).toEqual(['cut'])
    expect(at.find('[role=status]').exists()).toBe(false)
  })
})

describe('stature along the body', () => {
  const points = LANDMARKS.map((_, i): [number, number, number] => [i % 2, 0, 20 - 4 * i])
  it('is measured from places pressed in order, and kept as on the sculpt before its size is set', async () => {
    const at = await page.on(() => import('./StaturePanel.vue'), { applied: 2, stature: 1800 })
    await press(at, 'Measure along the body')
    for (const [i, p] of points.entries()) {
      expect(useViewport().scene.hint).toContain(LANDMARKS[i])
      useViewport().scene.onPick!(on([99, 0, 0], 'plinth-sculpt'))
      useViewport().scene.onPick!(on(p))
      await settle()
    }
    const halved = points.map((p) => p.map((v) => v / 2))
    expect(page.bench.fields.landmarks).toEqual({ partId: PART, points: halved })
    expect(useViewport().scene.mode).not.toBe('pick')
    expect(at.text()).toContain(`${statureAlong(points).toFixed(1)} mm along the body`)
    await press(at, 'Remove measurement')
    expect(page.bench.fields.landmarks).toBeNull()
  })
  it('is left without a trace', async () => {
    const at = await page.on(() => import('./StaturePanel.vue'), { applied: 1, stature: 1800 })
    await press(at, 'Measure along the body')
    useViewport().scene.onPick!(on(points[0]!))
    await settle()
    expect(useViewport().scene.markers).toHaveLength(1)
    await press(at, 'Cancel')
    expect(useViewport().scene.markers).toEqual([])
    expect(page.bench.fields.landmarks).toBeUndefined()
  })
})

describe('a size that is set', () => {
  const scaling = () => effectScope().run(() => useScaling())!
  it('grows a part alone about its foot, and again from the size that it has', async () => {
    page.bench.operations = [{ kind: 'scale', factor: 2, axes: [1, 1, 1.1], about: 'foot' }]
    await page.piece()
    await scaling().by(1.5)
    expect(page.bench.operations).toMatchObject([{ kind: 'scale', factor: 3, axes: [1, 1, 1.1], about: 'foot' }])
  })
  it('grows parts that stand together about one point, all or none', async () => {
    const other = '99999999-9999-4999-8999-999999999999'
    page.bench.others = [otherPart(other, 'plinth')]
    await page.piece()
    await scaling().set(2, [1, 1, 1])
    expect(arranged().changes.map((c) => [c.id, c.operations[0]])).toMatchObject([
      [PART, { kind: 'scale', factor: 2, about: 'origin' }],
      [other, { kind: 'scale', factor: 2, about: 'origin' }],
    ])
  })
})
