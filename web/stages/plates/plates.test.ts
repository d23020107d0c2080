// @vitest-environment happy-dom
import { DOMWrapper, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { NestReport } from '../../../core/print/nest/nestReport'
import { MEASURES, otherPart, PART, PIECE } from '../../stores/fakeServer'
import { usePlating } from '../../stores/plating'
import { useRequestedFix } from '../../stores/requestedFix'
import { button, choose, enter, press, PRINTER, PRINTER_ID, settle, StageBench } from '../stageTesting'

let page: StageBench
const SECOND = '99999999-9999-4999-8999-999999999999'
const plate = (number: number, copies: number[]): NestReport['nesting']['plates'][number] => ({
  printer: PRINTER_ID,
  number,
  resin: '',
  parts: copies.map((copy) => ({ id: PART, copy, x: 12 * copy, y: 0, angle: 0 })),
  height: 40,
  seconds: 7200,
  filled: 0.2,
})
const nested = (plates: NestReport['nesting']['plates'], left: NestReport['nesting']['left'] = []): NestReport => ({
  nesting: { plates, left, seconds: 7200 * plates.length, finish: 7200 * plates.length, vatChanges: 0 },
  oneByOne: { seconds: 9000, finish: 9000, plates: 3, left: 0 },
  only: [{ printer: PRINTER_ID, seconds: 9000, finish: 9000, plates: 3, left: 2 }],
  soonest: null,
  shapes: [
    {
      id: PART,
      height: 40,
      loops: [
        [
          [-5, -5],
          [5, -5],
          [5, 5],
          [-5, 5],
        ],
      ],
    },
  ],
})
beforeEach(() => {
  page = new StageBench()
  page.stocked()
  page.bench.operations = [{ kind: 'orient', quaternion: [0, 0, 0, 1] }]
  page.bench.checks.set('nest', nested([plate(0, [0, 1]), plate(1, [2])]))
})
afterEach(() => page.end())
/** What was last said about how the parts are set on plates. */
const wished = (): Record<string, unknown> => {
  const last = page.bench.sent.filter((s) => s.call === `PATCH /pieces/${PIECE}`).at(-1)
  return (last!.body as { plating: Record<string, unknown> }).plating
}
const nestAsked = (): { parts: { copies: number; turn: boolean; locks: unknown[] }[]; aim: string } =>
  page.bench.sent
    .filter((s) => s.call === 'POST /checks')
    .map((s) => (s.body as { check: { kind: string } }).check)
    .filter((c) => c.kind === 'nest')
    .at(-1) as never
const open = async () => {
  const at = await page.on(() => import('./NestPanel.vue'))
  usePlating().open = true
  await settle()
  return at
}

describe('the plates of a piece', () => {
  it('are nested only while somebody looks, for the copies and spares that are wanted', async () => {
    page.bench.fields = { plating: { copies: { [PART]: 3 }, spares: { [PART]: 1 } } }
    await page.piece()
    usePlating()
    await settle()
    expect(page.bench.sent.some((s) => JSON.stringify(s.body).includes('"nest"'))).toBe(false)
    const at = await open()
    expect(nestAsked()).toMatchObject({ parts: [{ copies: 4, turn: true, locks: [] }], aim: 'hours' })
    expect(at.text()).toContain('of machine time on 2 plates')
    expect(at.findAll('.plates li').map((l) => l.text())).toEqual([
      expect.stringContaining('2 parts, 40 mm'),
      expect.stringContaining('1 part, 40 mm'),
    ])
  })
  it('take whole copies from none to two hundred', async () => {
    const at = await open()
    for (const [typed, kept] of [
      ['12', 12],
      ['-3', 0],
      ['999', 200],
      ['2.6', 3],
    ] as const) {
      await enter(at, 'Copies of bust', typed)
      expect(wished().copies).toEqual({ [PART]: kept })
    }
  })
  it('ask again when a part may not be turned', async () => {
    const at = await open()
    await choose(at, 'bust may be turned', false)
    expect(wished().straight).toEqual({ [PART]: true })
    expect(nestAsked().parts[0]!.turn).toBe(false)
  })
  it('always have a printer: the last one cannot be removed', async () => {
    const at = await open()
    const box = at.findAll<HTMLInputElement>('.fold input[type=checkbox]')[0]!
    const before = page.bench.sent.length
    await box.setValue(false)
    await settle()
    expect(page.bench.sent).toHaveLength(before)
    expect(usePlating().printers.map((p) => p.name)).toEqual(['Test printer'])
  })
  it('say of each part that no printer takes why it has no place', async () => {
    page.bench.checks.set(
      'nest',
      nested(
        [],
        [
          { id: PART, why: 'tall' },
          { id: PART, why: 'taken' },
        ],
      ),
    )
    const at = await open()
    expect(at.findAll('[role=alert]').map((p) => p.text())).toEqual([
      'bust is too tall for every printer.',
      'bust does not fit where it was placed.',
    ])
  })
  it('compare other ways, and of a way that leaves parts out only say how many', async () => {
    const at = await open()
    const rows = at.findAll('tbody tr').map((r) => r.text())
    expect(rows.find((r) => r.startsWith('all on Test printer'))).toContain('2 do not fit')
    expect(rows.find((r) => r.startsWith('one by one'))).not.toContain('do not fit')
  })
  it('name what has not been stood up, and put none of it on a plate', async () => {
    page.bench.others = [otherPart(SECOND, 'plinth')]
    const at = await open()
    expect(at.text()).toContain('Without orientation, so not on a plate: plinth.')
    expect(nestAsked().parts).toHaveLength(1)
  })
  it('advise spares by what parts like it have come to, and none where all succeeded', async () => {
    const rate = { by: 'printer', what: 'Test printer', parts: 20, good: 12, rate: 0.6, low: 0.4, high: 0.8 }
    page.bench.replies.set('GET /record', { rates: [rate], times: [], plates: 20 })
    page.bench.fields = { plating: { copies: { [PART]: 4 } } }
    const at = await open()
    const advice = at.find('[data-spares=bust]')
    expect(advice.text()).toContain('by the results of similar parts so far')
    await press(advice, /^Print \d+ spares?|^Print a spare/)
    expect((wished().spares as Record<string, number>)[PART]).toBeGreaterThan(0)
    expect(at.find('[data-spares=bust]').exists()).toBe(false)
    await press(at, 'No spare of bust')
    expect(wished().spares).toEqual({ [PART]: 0 })
  })
  it('keep a place that a hand chose beside the other copies’, and give it up again', async () => {
    page.bench.fields = {
      plating: { locks: { [PART]: [{ copy: 1, printer: PRINTER_ID, plate: 0, x: 9, y: 9, angle: 0 }] } },
    }
    const at = await page.on(() => import('../PlatesStage.vue'))
    await press(new DOMWrapper(document.body), 'From above')
    const { default: PlateDrawing } = await import('./PlateDrawing.vue')
    at.getComponent(PlateDrawing).vm.$emit('put', { id: PART, copy: 0, x: 1, y: 2, angle: 0.5 })
    await settle()
    expect((wished().locks as Record<string, unknown[]>)[PART]).toEqual([
      { copy: 1, printer: PRINTER_ID, plate: 0, x: 9, y: 9, angle: 0 },
      { copy: 0, printer: PRINTER_ID, plate: 0, x: 1, y: 2, angle: 0.5 },
    ])
    expect(nestAsked().parts[0]!.locks).toHaveLength(2)
    await press(at, 'Unlock')
    expect(wished().locks).toEqual({})
  })
})

describe('a plate seen from above', () => {
  const open = async (copies: number[]) => {
    const { default: PlateDrawing } = await import('./PlateDrawing.vue')
    const at = await page.show(PlateDrawing, {
      plate: plate(0, copies),
      printer: PRINTER,
      shapes: nested([]).shapes,
      names: { [PART]: 'bust' },
      locked: {},
    })
    // A millimetre a pixel, the plate's middle at the picture's corner.
    const svg = at.find('svg').element as unknown as { getScreenCTM: () => unknown }
    svg.getScreenCTM = () => ({ inverse: () => null })
    vi.stubGlobal(
      'DOMPoint',
      class {
        constructor(
          readonly x: number,
          readonly y: number,
        ) {}
        matrixTransform(): this {
          return this
        }
      },
    )
    const pointer = (name: string, on: string, x: number, y: number, more: object = {}): Promise<void> =>
      at
        .find(on)
        .trigger(name, { pointerId: 1, button: 0, isPrimary: true, clientX: x, clientY: y, bubbles: true, ...more })
    return { at, pointer }
  }
  it('has its parts moved by hand, upward on the plate being upward on the screen', async () => {
    const { at, pointer } = await open([0])
    await pointer('pointerdown', '[data-part] path', 1, 1)
    await pointer('pointermove', 'svg', 11, -19)
    await pointer('pointerup', 'svg', 11, -19)
    expect(at.emitted('put')).toEqual([[{ id: PART, copy: 0, x: 10, y: 20, angle: 0 }]])
  })
  it('keeps a part where it was that would meet another or the edge, and says which', async () => {
    const { at, pointer } = await open([0, 1])
    await pointer('pointerdown', '[data-part="0"] path', 0, 0)
    await pointer('pointermove', 'svg', 5, 0)
    expect(at.find('[role=status]').text()).toBe('There it overlaps bust.')
    await pointer('pointerup', 'svg', 5, 0)
    await pointer('pointerdown', '[data-part="0"] path', 0, 0)
    await pointer('pointermove', 'svg', -45, 0)
    expect(at.find('[role=status]').text()).toBe('There it overlaps the edge.')
    await pointer('pointerup', 'svg', -45, 0)
    expect(at.emitted('put')).toBeUndefined()
  })
  it('leaves all as it is when the pointer is cancelled, hardly moved, or pressed beside the parts', async () => {
    const { at, pointer } = await open([0])
    await pointer('pointerdown', '[data-part] path', 0, 0)
    await pointer('pointermove', 'svg', 20, 0)
    await pointer('pointercancel', 'svg', 0, 0)
    await pointer('pointerdown', '[data-part] path', 0, 0)
    await pointer('pointermove', 'svg', 0.1, 0)
    await pointer('pointerup', 'svg', 0.1, 0)
    await pointer('pointerdown', '.bed', 30, 30)
    await pointer('pointermove', 'svg', 40, 30)
    await pointer('pointerup', 'svg', 40, 30)
    expect(at.emitted('put')).toBeUndefined()
  })
})

describe('a whole plate that is sliced', () => {
  it('is made as one body of its parts where they are, and is cancelled when the layout changes', async () => {
    page.bench.checks.set('plate', { measures: MEASURES })
    const at = await open()
    await button(at.findAll('.plates li')[0]!, 'Slice').trigger('click')
    await settle()
    const asked = page.bench.sent
      .map((s) => (s.body as { check?: { kind: string } }).check)
      .find((c) => c?.kind === 'plate')
    expect(asked).toMatchObject({
      parts: [
        { of: 0, x: 0, y: 0 },
        { of: 0, x: 12, y: 0 },
      ],
    })
    expect(usePlating().target?.plate.number).toBe(0)
    expect(at.emitted('slice')).toHaveLength(1)
    page.bench.checks.set('nest', nested([plate(0, [0, 1, 2])]))
    await enter(at, 'Copies of bust', '3')
    expect(usePlating().target).toBeNull()
  })
  it('says that it no longer exists where the layout has changed meanwhile', async () => {
    page.bench.checks.set('plate', { measures: MEASURES })
    await open()
    const plating = usePlating()
    const [first, second] = plating.report!.nesting.plates
    page.bench.slow = 20
    page.bench.checks.set('nest', nested([plate(0, [0, 1, 2])]))
    void plating.change({ aim: 'soonest' })
    for (let i = 0; i < 500 && !plating.behind; i++) await new Promise((r) => setTimeout(r, 1))
    await expect(plating.setUp(second!)).rejects.toThrow('this plate no longer exists')
    expect(plating.target).toBeNull()
    // The first is still there, with more on it: it is sliced as it is now.
    await plating.setUp(first!)
    expect(plating.target?.plate.parts).toHaveLength(3)
  })
})

describe('what is found on a plate', () => {
  it('is mended at Stand on the part that it concerns, at the place it has there', async () => {
    page.bench.others = [otherPart(SECOND, 'plinth', [{ kind: 'orient', quaternion: [0, 0, 0, 1] }])]
    const two = nested([
      {
        ...plate(0, [0]),
        parts: [
          { id: PART, copy: 0, x: -20, y: 0, angle: 0 },
          { id: SECOND, copy: 0, x: 20, y: 10, angle: Math.PI / 2 },
        ],
      },
    ])
    two.shapes.push({ ...two.shapes[0]!, id: SECOND })
    page.bench.checks.set('nest', two)
    page.bench.checks.set('plate', { measures: MEASURES })
    const at = await page.on(() => import('../PlatesStage.vue'))
    await usePlating().setUp(usePlating().report!.nesting.plates[0]!)
    const { default: FindingList } = await import('../../shell/FindingList.vue')
    const fixes = (at.getComponent(FindingList as never) as unknown as VueWrapper).props('fixes' as never) as {
      ventCup: (f: object) => unknown
    }
    // 2 mm in front of the plinth's middle on the plate: it is turned by a quarter.
    await fixes.ventCup({ act: 'ventCup', place: [20, 12, 7], label: 'Place drain hole there', effect: '' })
    await settle()
    expect(page.router.currentRoute.value.path).toBe(`/pieces/${PIECE}/orient`)
    const wanted = useRequestedFix().taken('orient')
    expect(wanted).toMatchObject({ act: 'ventCup' })
    const { place } = wanted as unknown as { place: number[] }
    expect(place[0]).toBeCloseTo(2)
    expect(place[1]).toBeCloseTo(0)
    expect(place[2]).toBe(7)
    const { usePiece } = await import('../../stores/piece')
    expect(usePiece().part!.name).toBe('plinth')
  })
})
