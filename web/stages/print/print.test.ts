// @vitest-environment happy-dom
import { DOMWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { DeviceRecord, PlateRecord } from '../../../contract/runs'
import { MEASURES, OWN, PART, PIECE } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { usePlating } from '../../stores/plating'
import { useRuns } from '../../stores/runs'
import { useViewport } from '../../viewport/useViewport'
import { machine, PLATE, plate, RUN, run, still } from '../plateTesting'
import { useOneChange } from './useOneChange'
import { button, press, PRINTER_ID, RESIN_ID, settle, shop, StageBench, type } from '../stageTesting'

let page: StageBench
const printed = (plates: PlateRecord[], devices: DeviceRecord[] = []): void => {
  page.bench.replies.set(`GET /pieces/${PIECE}/runs`, plates.length > 0 ? [run(plates)] : [])
  page.bench.replies.set('GET /devices', devices)
}
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)
const stage = () => page.on(() => import('../PrintStage.vue'))
beforeEach(() => {
  page = new StageBench()
  page.stocked()
})
afterEach(() => {
  page.end()
  OWN.orient = { offset: [0, 0, 0] }
})

describe('a plate of a run', () => {
  it('says in its own words how far it is', async () => {
    const words: [Partial<PlateRecord>, string][] = [
      [{ state: 'planned' }, '2 parts, 1 h 30'],
      [{ state: 'sending', progress: { ...still, sent: 25, size: 100 } }, 'sent 25 %'],
      [{ state: 'sending', progress: { ...still, lostAt: '2026-11-20T10:00:00Z' } }, 'no answer'],
      [{ state: 'printing' }, 'printing, by hand'],
      [{ state: 'printing', device: 'p1', progress: { ...still, layer: 12 } }, 'layer 12 of 400'],
      [{ state: 'printing', device: 'p1', progress: { ...still, layer: 9, state: 'paused' } }, 'paused at layer 9'],
      [
        { state: 'printing', device: 'p1', progress: { ...still, layer: 9, state: 'interrupted' } },
        'interrupted at layer 9',
      ],
      [{ state: 'ended' }, 'result not entered'],
      [{ state: 'judged', outcomes: [{ partId: PART, copy: 0, result: 'usable' }] }, 'all parts succeeded'],
      [{ state: 'judged', outcomes: [{ partId: PART, copy: 1, result: 'failed' }] }, '1 of 2 failed'],
    ]
    const { default: PlateCard } = await import('./PlateCard.vue')
    printed([])
    await page.piece()
    for (const [more, word] of words) {
      const at = await page.show(PlateCard, { plate: plate(more), chosen: false })
      expect(at.find('[data-plate-word]').text()).toBe(word)
    }
  })
  it('is sent to the machines that are its printer, and to none that does not answer', async () => {
    printed(
      [plate({ state: 'planned' })],
      [
        machine(),
        machine({ serial: 'p2', reachable: false, card: { ...machine().card, serial: 'p2', name: 'In the shed' } }),
        machine({ serial: 'p3', printerId: null, card: { ...machine().card, serial: 'p3', name: 'Unknown' } }),
      ],
    )
    page.bench.replies.set(`POST /plates/${PLATE}/send`, plate({ state: 'sending' }))
    const at = await stage()
    expect(button(at, 'Send to In the shed and start').element.disabled).toBe(true)
    expect(at.text()).not.toContain('Unknown')
    await press(at, 'Send to By the window and start')
    expect(sent(`POST /plates/${PLATE}/send`)).toEqual([{ device: 'p1' }])
    await press(at, 'Started by hand')
    expect(sent(`POST /plates/${PLATE}/send`)[1]).toEqual({ device: null })
  })
  it('says what to do where no machine on the net is its printer', async () => {
    printed([plate({ state: 'planned' })], [machine({ printerId: null })])
    const at = await stage()
    expect(at.text()).toContain('No network device is Test printer.')
  })
  it('is paused while it prints and goes on when it stands still; a refusal is said', async () => {
    printed(
      [plate({ state: 'printing', device: 'p1', progress: { ...still, layer: 3, state: 'printing' } })],
      [machine()],
    )
    const at = await stage()
    await press(at, 'Pause')
    expect(sent(`POST /plates/${PLATE}/commands`)).toEqual([{ do: 'pause' }])
    expect(at.find('[role=alert]').exists()).toBe(true)
    printed(
      [plate({ state: 'printing', device: 'p1', progress: { ...still, layer: 3, state: 'paused' } })],
      [machine()],
    )
    await useRuns().fresh()
    await settle()
    await press(at, 'Continue')
    expect(sent(`POST /plates/${PLATE}/commands`)[1]).toEqual({ do: 'resume' })
  })
})

describe('the result of a plate', () => {
  const judge = async (p = plate()) => {
    printed([p])
    page.bench.replies.set(`PUT /plates/${PLATE}/judgement`, plate({ ...p, state: 'judged' }))
    page.bench.replies.set(`POST /plates/${PLATE}/causes`, [])
    const at = await stage()
    await press(at, 'Enter result')
    return at
  }
  it('is good for what nobody found fault with, and kept only when that is said', async () => {
    const at = await judge()
    await press(
      at.findAll('li').find((l) => l.text().startsWith('bust 2'))!,
      'failed',
    )
    expect(sent(`PUT /plates/${PLATE}/judgement`)).toEqual([])
    await press(at, 'Save result')
    expect(sent(`PUT /plates/${PLATE}/judgement`)).toEqual([
      {
        version: 4,
        marks: [],
        weighed: null,
        outcomes: [
          { partId: PART, copy: 1, result: 'failed' },
          { partId: PART, copy: 0, result: 'good' },
        ],
      },
    ])
    expect(at.find('[role=status]').text()).toBe('Saved. The print statistics include it.')
  })
  it('has faults where they are pressed: what is missing makes the part failed, what is rough leaves it of use', async () => {
    const at = await judge()
    const { FAULTS } = await import('./faultWords')
    await press(at, FAULTS.missing.word)
    expect(useViewport().scene.mode).toBe('pick')
    useViewport().scene.onPick!({ point: [1, 2, 12.34], normal: [0, 0, 1], face: 0, companion: null })
    await settle()
    expect(useViewport().scene.mode).not.toBe('pick')
    const [first] = at.findAll('li')
    expect(button(first!, 'failed').attributes('aria-pressed')).toBe('true')
    expect(at.find('[data-mark=missing]').text()).toContain('12.3 mm up, to 40.0 mm')
    await press(at, /^bust 2/)
    await press(at, FAULTS.ragged.word)
    useViewport().scene.onPick!({ point: [0, 0, 5], normal: [0, 0, 1], face: 0, companion: null })
    await settle()
    expect(button(at.findAll('li')[1]!, 'usable').attributes('aria-pressed')).toBe('true')
    expect(at.findAll('[data-mark]')).toHaveLength(1)
    await press(at, 'No fault')
    expect(at.findAll('[data-mark]')).toHaveLength(0)
    await press(at, 'Save result')
    expect(sent(`PUT /plates/${PLATE}/judgement`)).toMatchObject([
      { marks: [{ kind: 'missing', copy: 0, point: [1, 2, 12.34], reach: [12.34, 40] }] },
    ])
  })
  it('is weighed against what the parts hold in resin', async () => {
    const at = await judge()
    // Two parts of 4 ml at 1.2 g/ml.
    expect(at.text()).toContain('Expected: 9.6 g with supports')
    await type(at, 'Weight of everything on the plate', '10.8')
    expect(at.text()).toContain('+12.5 %')
  })
  it('is not overwritten by news of the plate while somebody says it', async () => {
    const at = await judge()
    await press(at.findAll('li')[0]!, 'failed')
    printed([plate({ version: 5, took: 5000 })])
    await useRuns().fresh()
    await settle()
    expect(button(at.findAll('li')[0]!, 'failed').attributes('aria-pressed')).toBe('true')
    await press(at, 'Save result')
    expect(sent(`PUT /plates/${PLATE}/judgement`)).toMatchObject([{ version: 5 }])
  })
  it('asks for what failed to be printed again, that and nothing else', async () => {
    page.bench.operations = [{ kind: 'orient', quaternion: [0, 0, 0, 1] }]
    page.bench.fields = { plating: { copies: { [PART]: 5 }, spares: { [PART]: 2 } } }
    const at = await judge(
      plate({
        state: 'judged',
        outcomes: [
          { partId: PART, copy: 0, result: 'failed' },
          { partId: PART, copy: 1, result: 'good' },
        ],
      }),
    )
    await press(at, 'Print the failed part again')
    expect(usePlating().wish).toMatchObject({ copies: { [PART]: 1 }, spares: {}, locks: {} })
    expect(useRuns().reprintOf).toBe(RUN)
    expect(at.text()).toContain('Print the failed parts of run 3 again')
    await press(at, 'Not a reprint')
    expect(at.text()).toContain('Prepare run 4')
  })
})

describe('a piece that broke off', () => {
  const lost = (reach: [number, number]) => ({
    id: 'm',
    partId: PART,
    copy: 0,
    kind: 'missing' as const,
    point: [0, 0, 30] as [number, number, number],
    note: '',
    reach,
  })
  const open = async (marks: PlateRecord['marks'], volumes: number[]) => {
    page.bench.operations = [{ kind: 'orient', quaternion: [0, 0, 0, 1] }]
    page.bench.trials.set('cut', () => ({
      cut: { area: 1, seam: 1, pieces: 1 },
      measures: { ...MEASURES, volume: volumes.shift()! },
    }))
    printed([plate({ marks, outcomes: [{ partId: PART, copy: 0, result: 'failed' }] })])
    page.bench.replies.set(`POST /plates/${PLATE}/causes`, [])
    page.bench.replies.set(`POST /pieces/${PIECE}/arrange`, { created: [PART] })
    const at = await stage()
    await press(at, 'Enter result')
    await at.find('[data-mark] .name').trigger('click')
    await press(at, 'Print only this piece again')
    for (let i = 0; i < 4; i++) await settle()
    return at
  }
  const created = (): { operations: { kind: string; keep?: string; point?: number[] }[] }[] =>
    (sent(`POST /pieces/${PIECE}/arrange`)[0] as { create: never }).create
  it('is cut before the failure with a margin, and becomes a part of its own', async () => {
    const at = await open([lost([30, 40])], [100, 90])
    expect(created()).toMatchObject([
      { name: 'bust, piece that broke off', operations: [{ kind: 'cut', keep: 'above', point: [0, 0, 28.5] }] },
    ])
    expect(at.text()).toContain('is now a part. The cut has no room for a wire: glue it.')
    expect(button(at, 'Choose an orientation for the piece').exists()).toBe(true)
  })
  it('is cut closer where the margin would take what is sound as well', async () => {
    await open([lost([30, 40])], [300, 90])
    expect(created()[0]!.operations[0]!.point![2]).toBeCloseTo(30.1)
  })
  it('is cut beyond the failure where the print went on soundly', async () => {
    await open([lost([10, 20])], [100, 90])
    expect(created()[0]!.operations[0]).toMatchObject({ keep: 'below', point: [0, 0, 21.5] })
  })
  it('gets a hole for a wire at the widest place of the cut, which the part has to take', async () => {
    const site = {
      shape: 'pin',
      point: [0, 0, 28.5],
      direction: [0, 0, 1],
      width: 3,
      length: 8,
      draft: 3,
      clearance: 0.1,
    }
    page.bench.checks.set('keySites', { sites: [{ ...site, point: [9, 9, 9], width: 8 }, site] })
    page.bench.trials.set('fix', { fix: { walls: [2] } })
    const at = await open([lost([30, 40])], [100, 90])
    // 45 % of 3 mm, in the middle of the cut and not where another piece is widest.
    expect(created()[0]!.operations[1]).toMatchObject({
      kind: 'fix',
      fixings: [{ shape: 'pin', role: 'socket', point: [0, 0, 28.5], width: 1.4, length: 5.6, draft: 0 }],
    })
    expect(at.text()).toContain('with a hole for 1.4 mm wire')
  })
  it('says why it cannot be cut where the part is not stood up any more', async () => {
    printed([plate({ marks: [lost([30, 40])], outcomes: [{ partId: PART, copy: 0, result: 'failed' }] })])
    page.bench.replies.set(`POST /plates/${PLATE}/causes`, [])
    const at = await stage()
    await press(at, 'Enter result')
    await at.find('[data-mark] .name').trigger('click')
    await press(at, 'Print only this piece again')
    expect(at.find('[role=alert]').text()).toBe('The part no longer has an orientation.')
  })
})

describe('the one change that follows from a cause', () => {
  const open = async () => {
    page.bench.replies.set('GET /workshop', shop())
    page.bench.operations = [
      { kind: 'orient', quaternion: [0, 0, 0, 1] },
      { kind: 'support', limit: 40, spacing: 3, clearance: 0.6, lift: 5, edits: [] },
    ]
    const { part } = await page.piece()
    return { ...useOneChange(), part }
  }
  const edits = (): unknown => (page.bench.operations[1] as { edits: unknown }).edits
  it('sets a strut or another grade where it was missing, and says so only when it is done', async () => {
    const { make, done, part } = await open()
    await make({ kind: 'support', point: [1, 2, 3] } as never, part, RESIN_ID)
    expect(edits()).toEqual([{ kind: 'add', point: [1, 2, 3], grade: 'strut' }])
    expect(done.value).toContain('A medium support is added there')
    // Somebody else has changed the part meanwhile.
    page.bench.version += 5
    await make({ kind: 'regrade', point: [4, 5, 6], grade: 'post' } as never, part, RESIN_ID)
    expect(done.value).toBe('')
    expect(usePiece().problem).not.toBe('')
    expect(edits()).toHaveLength(1)
  })
  it('exposes the resin longer from the next slicing on, or says that the resin is gone', async () => {
    const { make, done, fault, part } = await open()
    await make({ kind: 'exposure', to: 2.6 } as never, part, RESIN_ID)
    expect(done.value).toBe('Test resin will be exposed for 2.6 s from the next slicing on.')
    expect(page.bench.stock.at(-1)).toMatchObject({ data: { exposure: 2.6 } })
    await make({ kind: 'exposure', to: 3 } as never, part, PLATE)
    expect(done.value).toBe('')
    expect(fault.value).toBe('This resin is no longer in stock.')
  })
  it('says what is missing where the part has no generated supports', async () => {
    page.bench.operations = []
    await page.piece()
    const { make, fault } = useOneChange()
    await make({ kind: 'support', point: [0, 0, 0] } as never, usePiece().part, RESIN_ID)
    expect(fault.value).toContain('no generated supports')
  })
})

describe('a run', () => {
  it('is begun from the plates as they are nested, with the lot as it is on the bottle', async () => {
    page.bench.operations = [{ kind: 'orient', quaternion: [0, 0, 0, 1] }]
    const nestedPlate = {
      printer: PRINTER_ID,
      number: 0,
      resin: '',
      parts: [{ id: PART, copy: 0, x: 1, y: 2, angle: 0 }],
      height: 40,
      seconds: 60,
      filled: 0.1,
    }
    page.bench.checks.set('nest', {
      nesting: { plates: [nestedPlate], left: [], seconds: 60, finish: 60, vatChanges: 0 },
      oneByOne: { seconds: 60, finish: 60, plates: 1, left: 0 },
      only: [],
      soonest: null,
      shapes: [],
    })
    page.bench.checks.set('plate', { measures: MEASURES })
    page.bench.checks.set('slice', SLICED)
    printed([])
    page.bench.replies.set(`POST /pieces/${PIECE}/runs`, run([plate({ state: 'planned' })]))
    const at = await stage()
    expect(new DOMWrapper(document.body).text()).toContain('Nothing has been printed yet.')
    const lot = at.find<HTMLInputElement>('input[list=lots]')
    await lot.setValue('  L9 ')
    await press(at, 'Slice and prepare')
    for (let i = 0; i < 3; i++) await settle()
    expect(sent(`POST /pieces/${PIECE}/runs`)).toMatchObject([
      {
        resinId: RESIN_ID,
        lot: 'L9',
        reprintOf: null,
        plates: [{ printerId: PRINTER_ID, parts: [{ partId: PART, name: 'bust', copy: 0, x: 1, y: 2 }] }],
      },
    ])
  })
  it('is thrown away only while nothing of it was sent', async () => {
    printed([plate({ state: 'planned' })])
    page.bench.replies.set(`DELETE /runs/${RUN}`, {})
    const at = await stage()
    await press(at, 'Delete run')
    expect(sent(`DELETE /runs/${RUN}`)).toHaveLength(1)
    printed([plate({ state: 'printing' })])
    await useRuns().fresh()
    await settle()
    expect(at.text()).not.toContain('Delete run')
  })
})
const SLICED = {
  layers: 400,
  layerHeight: 0.1,
  pixels: [1600, 1200],
  seconds: 5400,
  resinMl: 12,
  resinCost: 1,
  areas: [],
  perimeters: [],
  peel: [],
  islands: [],
  cups: [],
  suction: [],
  brokenRows: 0,
  mended: null,
}
