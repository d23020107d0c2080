// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { sculpt } from '../../../contract/sculpts'
import { MEASURES, otherPart, OWN, PART } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import { button, choose, control, enter, press, settle, shop, StageBench, type, unfold } from '../stageTesting'

let page: StageBench
const OTHER = '99999999-9999-4999-8999-999999999999'
beforeEach(() => {
  page = new StageBench()
  page.bench.checks.set('measures', MEASURES)
  page.bench.replies.set('GET /workshop', shop())
})
afterEach(() => page.end())

describe('a nameplate', () => {
  const REPORT = { nameplate: { width: 20, height: 6, depth: 1, stroke: 0.3, centre: [0, -5, 5], outward: [0, -1, 0] } }
  const open = () => page.on(() => import('./NameplatePanel.vue'))
  it('is tried as it is set, in the millimetres of the sculpt before its size', async () => {
    OWN.nameplate = REPORT
    page.bench.trials.set('nameplate', REPORT)
    page.bench.operations = [{ kind: 'scale', factor: 2, about: 'foot' }]
    const at = await open()
    expect(button(at, 'Add nameplate').element.disabled).toBe(true)
    await control(at, 'Text').setValue('TERN')
    await press(at, 'sunk')
    await type(at, 'Height of capitals', '5')
    await press(at, 'Add nameplate')
    const op = page.bench.operations.find((o) => o.kind === 'nameplate')
    expect(op).toMatchObject({ text: 'TERN', style: 'sunk', letter: 2.5, relief: 0.3, recess: 0.4, up: null })
    // Twice as large on the table; a stroke of 0.6 mm prints.
    expect(at.text()).toContain('40.0 × 12.0 mm')
    expect(at.text()).toContain('0.60 mm')
    await type(at, /^Above the foot/, '8')
    await press(at, 'Change nameplate')
    expect(page.bench.operations.find((o) => o.kind === 'nameplate')).toMatchObject({ up: 4, letter: 2.5 })
    await press(at, 'Remove nameplate')
    expect(page.bench.operations.map((o) => o.kind)).toEqual(['scale'])
  })
  it('says that a stroke is too thin to print at this size', async () => {
    OWN.nameplate = { nameplate: { ...REPORT.nameplate, stroke: 0.05 } }
    page.bench.operations = [
      {
        kind: 'nameplate',
        text: 'TERN',
        face: 'sans',
        style: 'raised',
        letter: 1,
        relief: 0.3,
        recess: 0,
        around: 90,
        up: null,
      },
    ]
    const at = await open()
    expect(at.text()).toContain('too thin to print')
    expect((control(at, 'Text').element as unknown as HTMLTextAreaElement).value).toBe('TERN')
    expect(button(at, 'sans').classes()).toContain('btn-primary')
  })
})

describe('another sculpt under the same operations', () => {
  const NEW = '77777777-7777-4777-8777-777777777777'
  const open = async () => {
    page.bench.replies.set('GET /sculpts', [
      sculpt.parse({
        id: NEW,
        version: 1,
        family: NEW,
        edition: 1,
        name: 'Left hand',
        fileName: 'hand.stl',
        mesh: 'f'.repeat(64),
        createdAt: '2026-11-01T10:00:00Z',
        usedIn: [],
      }),
    ])
    page.bench.replies.set('GET /sculpts/intakes', [])
    page.bench.operations = [{ kind: 'scale', factor: 2, about: 'origin' }]
    // The new sculpt is 4 mm to the right, and 1 mm higher.
    page.bench.checks.set('measures', (_: never, mesh: string) => ({
      ...MEASURES,
      box: mesh.startsWith('f') ? { min: [4, 0, 1], max: [14, 10, 31] } : MEASURES.box,
    }))
    const at = await page.on(() => import('./SwapPanel.vue'))
    await unfold(at)
    await settle()
    return at
  }
  const swapped = () =>
    page.bench.arranged as { changes: { operations: { kind: string; shift?: number[] }[] }[]; swap: object[] }
  it('stands with its foot where the other’s was, all else as it is', async () => {
    const at = await open()
    await at.find('.pick').trigger('click')
    await settle()
    expect(swapped().swap).toEqual([{ id: PART, sculpt: NEW, version: 2 }])
    const [{ operations }] = swapped().changes as [{ operations: { kind: string; shift?: number[] }[] }]
    expect(operations.map((o) => o.kind).sort()).toEqual(['place', 'scale'])
    expect(operations.find((o) => o.kind === 'place')!.shift).toEqual([-4, 0, -1])
  })
  it('stands as its file has it where that is wanted: nothing is moved', async () => {
    const at = await open()
    await at.find('#swap-align').setValue('frame')
    await at.find('.pick').trigger('click')
    await settle()
    expect(swapped().changes).toEqual([])
    expect(swapped().swap).toEqual([{ id: PART, sculpt: NEW, version: 1 }])
  })
})

describe('how the whole stands', () => {
  const open = () => page.on(() => import('./StandsPanel.vue'))
  it('is weighed by what each part is made of, and how full it is', async () => {
    page.bench.others = [otherPart(OTHER, 'plinth')]
    const at = await open()
    await choose(at, 'plinth is made of', 'filament')
    expect(page.bench.fields.materials).toMatchObject({ [OTHER]: { name: 'filament', density: 1.24, infill: 0.2 } })
    await enter(at, 'Filled share of plinth, percent', '250')
    expect(page.bench.fields.materials).toMatchObject({ [OTHER]: { name: 'filament', infill: 1 } })
    await choose(at, 'bust is made of', 'metal')
    expect(page.bench.fields.materials).toMatchObject({ [OTHER]: { infill: 1 }, [PART]: { density: 7.8, infill: 1 } })
  })
  it('is asked to bear as many degrees as somebody wants', async () => {
    const at = await open()
    expect(control(at, 'Should stand up to').element.value).toBe('15')
    await type(at, 'Should stand up to', '25')
    expect(page.bench.fields.tipWish).toBe(25)
  })
})

describe('where the face looks', () => {
  const on = (normal: [number, number, number], companion: string | null = null) => ({
    point: [0, 0, 0] as [number, number, number],
    normal,
    face: 0,
    companion,
  })
  it('is pressed on this part alone, told from the front of the table, and forgotten', async () => {
    const at = await page.on(() => import('./FacingPanel.vue'))
    await press(at, 'Choose the face')
    useViewport().scene.onPick!(on([0, -1, 0], 'plinth-sculpt'))
    await settle()
    expect(page.bench.fields.facing).toBeUndefined()
    // Thirty degrees to the right of the front, as one stands before it.
    const a = Math.PI / 6
    useViewport().scene.onPick!(on([Math.sin(a), -Math.cos(a), 0]))
    await settle()
    expect(page.bench.fields.facing).toMatchObject({ partId: PART, joint: null })
    expect(at.text()).toContain('the face30° to the right')
    expect(at.text()).toContain('front of the baseto the front')
    await press(at, 'Remove')
    expect(page.bench.fields.facing).toBeNull()
    expect(usePiece().piece!.facing).toBeNull()
  })
  it('turns with the part: pressed on one that is turned, it is kept as the sculpt has it', async () => {
    page.bench.operations = [
      { kind: 'place', quaternion: [0, 0, Math.SQRT1_2, Math.SQRT1_2], shift: [0, 0, 0], mirror: false },
    ]
    const at = await page.on(() => import('./FacingPanel.vue'))
    await press(at, 'Choose the face')
    useViewport().scene.onPick!(on([0, -1, 0]))
    await settle()
    const { direction } = page.bench.fields.facing as { direction: number[] }
    // A quarter turn to the left of the table’s front was its own right.
    for (const [k, v] of [-1, 0, 0].entries()) expect(direction[k]).toBeCloseTo(v, 6)
    expect(at.text()).toContain('the faceto the front')
  })
})
