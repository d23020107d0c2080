// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { health } from '../../../core/mesh/health'
import { measure } from '../../../core/mesh/measure'
import { boxBody } from '../../../core/testBodies'
import { MEASURES, OWN, PIECE } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { button, control, press, settle, StageBench, type, unfold } from '../stageTesting'

let page: StageBench
const body = boxBody(10, 10, 20)
const looked = (more: object = {}) => ({ ...health(body), measures: measure(body), points: 0, ...more })
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const places = (count: number) => ({ count, lengths: [], places: [], complete: true })

describe('cropping to a box', () => {
  const open = async () => {
    const at = await page.on(() => import('./TidyPanel.vue'))
    await unfold(at)
    return at
  }
  it('shows the box as it would be, and cuts to it only when that is pressed', async () => {
    page.bench.trials.set('trim', { removed: 40 })
    const at = await open()
    expect(button(at, 'Keep what is inside').element.disabled).toBe(true)
    await type(at, 'from the left', '10')
    await type(at, 'from above', '25')
    const points = useViewport().scene.line!.points
    expect(Math.min(...points.map((p) => p[0]))).toBeCloseTo(1)
    expect(Math.max(...points.map((p) => p[2]))).toBeCloseTo(15)
    expect(page.bench.operations).toEqual([])
    await press(at, 'Keep what is inside')
    expect(page.bench.operations).toMatchObject([
      { kind: 'trim', planes: [], box: { min: [1, 0, 0], max: [10, 10, 15] } },
    ])
    expect(control(at, 'from the left').element.value).toBe('0')
  })
  it('is not done to nothing: sides that pass each other leave nothing to keep', async () => {
    const at = await open()
    await type(at, 'from the left', '60')
    await type(at, 'from the right', '50')
    expect(button(at, 'Keep what is inside').element.disabled).toBe(true)
  })
  it('keeps the box where it could not be cut, with the reason', async () => {
    page.bench.trials.set('trim', {})
    page.bench.failing.set('trim', 'Nothing is left.')
    const at = await open()
    await type(at, 'from below', '30')
    await press(at, 'Keep what is inside')
    expect(usePiece().problem).toBe('Nothing is left.')
    expect(control(at, 'from below').element.value).toBe('30')
    expect(button(at, 'Keep what is inside').element.disabled).toBe(false)
  })
})

describe('fewer faces and a smoother skin', () => {
  it('are proposed by what there is, and are tried before they are kept', async () => {
    page.bench.checks.set('health', looked({ faces: 250_000 }))
    page.bench.trials.set('simplify', {})
    const at = await page.on(() => import('./TidyPanel.vue'))
    expect(control(at, /^Faces/).element.value).toBe('125000')
    await type(at, /^Faces/, '80000')
    await press(at, 'Reduce faces')
    const tried = page.bench.sent.find((s) => s.call === 'POST /trials')!.body as { op: object }
    expect(tried.op).toMatchObject({ kind: 'simplify', faces: 80_000 })
  })
  it('are no matter of a cloud of points', async () => {
    page.bench.checks.set('health', looked({ points: 9000 }))
    const at = await page.on(() => import('./TidyPanel.vue'))
    expect(at.text()).not.toContain('Fewer faces')
  })
})

describe('repair', () => {
  it('is held against what was there before: what changed, and nothing else', async () => {
    // What it was and what it is now are two meshes, asked about one after the other.
    const answers = [looked({ openEdges: places(12), crumbs: places(3) }), looked({ crumbs: places(3) })]
    page.bench.checks.set('health', () => answers.shift() ?? looked({ crumbs: places(3) }))
    page.bench.operations = [{ kind: 'repair' }]
    const at = await page.on(() => import('./RepairPanel.vue'))
    await settle()
    const rows = at.findAll('tbody tr').map((r) => r.findAll('td').map((c) => c.text()))
    // Of what is as it was only the faces are named.
    expect(rows.map((r) => r[0])).toContain('faces')
    expect(rows.map((r) => r[0])).not.toContain('crumbs')
    for (const [what, before, after] of rows) if (what !== 'faces') expect(before).not.toBe(after)
    expect(button(at, 'Light repair').element.disabled).toBe(true)
  })
  it('rebuilds with a voxel by the size of the body, or one’s own', async () => {
    page.bench.trials.set('rebuild', {})
    const at = await page.on(() => import('./RepairPanel.vue'))
    // 20 mm over 256.
    expect(control(at, /^Voxel size for rebuilding/).element.value).toBe('0.08')
    expect(at.text()).toContain('256 across the part')
    await type(at, /^Voxel size for rebuilding/, '0.3')
    expect(at.text()).not.toContain('256 across the part')
    await press(at, 'Rebuild surface')
    expect((page.bench.sent.find((s) => s.call === 'POST /trials')!.body as { op: object }).op).toMatchObject({
      kind: 'rebuild',
      voxel: 0.3,
    })
  })
})

describe('true scale', () => {
  const pressAt = async (x: number): Promise<void> => {
    useViewport().scene.onPick!({ point: [x, 0, 0], normal: [0, 0, 1], face: 0, companion: null })
    await settle()
  }
  it('is set by two places and how far apart they are in truth; a third click starts again', async () => {
    page.bench.trials.set('calibrate', { factor: 2 })
    const at = await page.on(() => import('./CalibratePanel.vue'))
    await press(at, 'Choose two places')
    expect(useViewport().scene.hint).toContain('the first of two places')
    await pressAt(0)
    expect(useViewport().scene.hint).toContain('second place')
    expect(button(at, 'Calibrate').element.disabled).toBe(true)
    await pressAt(25)
    expect(at.text()).toContain('25.00 units apart now')
    await pressAt(4)
    expect(useViewport().scene.markers.map((m) => m.point[0])).toEqual([4])
    await pressAt(29)
    await type(at, 'True distance', '50')
    await press(at, 'Calibrate')
    expect(page.bench.operations).toMatchObject([{ kind: 'calibrate', from: [4, 0, 0], to: [29, 0, 0], distance: 50 }])
    expect(useViewport().scene.mode).not.toBe('pick')
  })
  it('set again uses the places as they were on the imported scan', async () => {
    OWN.calibrate = { factor: 2 }
    page.bench.trials.set('calibrate', { factor: 2 })
    page.bench.operations = [{ kind: 'calibrate', from: [0, 0, 0], to: [25, 0, 0], distance: 50 }]
    const at = await page.on(() => import('./CalibratePanel.vue'))
    expect(at.text()).toContain('× 2.0000')
    await press(at, 'Choose two places')
    await pressAt(10)
    await pressAt(30)
    await type(at, 'True distance', '30')
    await press(at, 'Calibrate')
    expect(page.bench.operations).toMatchObject([{ from: [5, 0, 0], to: [15, 0, 0], distance: 30 }])
    await press(at, 'Remove calibration')
    expect(page.bench.operations).toEqual([])
    OWN.calibrate = { factor: 1 }
  })
})

describe('the sculpt that came', () => {
  const open = () => page.on(() => import('../ImportStage.vue'))
  it('is asked for where there is none, and what was refused says why until it is dismissed', async () => {
    page.bench.replies.set(`GET /pieces/${PIECE}`, {
      id: PIECE,
      createdAt: '2026-11-01',
      name: 'Pilot',
      version: 1,
      partList: [],
      intakes: [
        {
          id: 'aaaaaaaa-0000-4000-8000-000000000000',
          fileName: 'cut.stl',
          status: 'refused',
          problem: { code: 'x', message: 'The file ends early.' },
          passedOver: [],
        },
        {
          id: 'bbbbbbbb-0000-4000-8000-000000000000',
          fileName: 'big.stl',
          status: 'waiting',
          problem: null,
          passedOver: [],
        },
      ],
    })
    page.bench.replies.set('DELETE /intakes/aaaaaaaa-0000-4000-8000-000000000000', {})
    const at = await open()
    expect(at.text()).toContain('Add a sculpt')
    expect(at.findAll('[role=alert]').map((a) => a.text())).toEqual(['The file ends early.'])
    expect(at.text()).toContain('big.stl is being read …')
    await press(at, 'Dismiss')
    expect(page.bench.sent.map((s) => s.call)).toEqual(['DELETE /intakes/aaaaaaaa-0000-4000-8000-000000000000'])
  })
  it('is measured, and said to be inside out where it is', async () => {
    page.bench.checks.set('health', looked({ volume: -2000, measures: { ...MEASURES } }))
    const at = await open()
    expect(at.text()).toContain('2.0 ml, inside out')
    expect(at.text()).toContain('bust.stl')
  })
})
