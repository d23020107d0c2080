// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { FlawRecord, Inspection } from '../../../contract/flaws'
import { PART, PIECE } from '../../stores/fakeServer'
import { useInspection } from '../../stores/inspection'
import { useViewport } from '../../viewport/useViewport'
import { button, press, settle, StageBench, type } from '../stageTesting'
import { FLAWS } from './flawWords'

let page: StageBench
const flaw = (n: number, more: Partial<FlawRecord> = {}): FlawRecord => ({
  id: `0000000${n}-0000-4000-8000-000000000000`,
  partId: PART,
  point: [n, 0, 0],
  kind: 'pit',
  size: 0.8,
  note: '',
  photo: null,
  pass: 1,
  closedPass: null,
  state: 'open',
  cause: null,
  region: null,
  version: 1,
  ...more,
})
const pass = (n: number, ended: boolean, found: number) => ({
  pass: n,
  begunAt: '2026-11-20T10:00:00Z',
  endedAt: ended ? '2026-11-20T11:00:00Z' : null,
  note: '',
  found,
})
const inspected = (more: Partial<Inspection>): Inspection => ({ passes: [], flaws: [], closed: false, ...more })
const told = (more: Partial<Inspection>): void =>
  void page.bench.replies.set(`GET /pieces/${PIECE}/inspection`, inspected(more))
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)
const open = () => page.on(() => import('../PrimeStage.vue'))
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())

describe('looking over a primed part', () => {
  it('begins with a first pass, and can mark nothing before', async () => {
    told({})
    const at = await open()
    expect(at.text()).toContain('Not inspected yet')
    expect(at.text()).not.toContain('Mark what you see')
    page.bench.replies.set(`POST /pieces/${PIECE}/inspection/passes`, inspected({ passes: [pass(1, false, 0)] }))
    await press(at, 'Start pass 1')
    expect(at.text()).toContain('Mark what you see')
    expect(button(at, 'No flaws found: finish').exists()).toBe(true)
  })
  it('marks a flaw of the kind that is chosen where it is pressed, as large as such flaws are', async () => {
    told({ passes: [pass(1, false, 0)] })
    const at = await open()
    await press(at, FLAWS.pit.word)
    expect(useViewport().scene.hint).toContain(FLAWS.pit.hint)
    const made = flaw(1, { size: FLAWS.pit.size, point: [4, 5, 6] })
    page.bench.replies.set(`POST /pieces/${PIECE}/flaws`, made)
    told({ passes: [pass(1, false, 1)], flaws: [made] })
    useViewport().scene.onPick!({ point: [4, 5, 6], normal: [0, 0, 1], face: 0, companion: null })
    await settle()
    expect(sent(`POST /pieces/${PIECE}/flaws`)).toMatchObject([
      { kind: 'pit', size: FLAWS.pit.size, partId: PART, point: [4, 5, 6] },
    ])
    // It is open to say more of, and marking goes on.
    expect(at.find('[data-flaw=pit]').classes()).toContain('open')
    expect(useViewport().scene.mode).toBe('pick')
    expect(useViewport().scene.markers).toMatchObject([{ point: [4, 5, 6], kind: 'hand' }])
  })
  it('lists what is open first, numbered as they were marked, and nothing of other parts', async () => {
    told({
      passes: [pass(1, false, 3)],
      flaws: [
        flaw(1),
        flaw(2, { state: 'mended', closedPass: 1 }),
        flaw(3, { kind: 'scratch' }),
        flaw(4, { partId: '99999999-9999-4999-8999-999999999999' }),
      ],
    })
    const at = await open()
    expect(at.findAll('[data-flaw] .n').map((n) => n.text())).toEqual(['3', '1', '2'])
    expect(at.findAll('[data-flaw]').at(-1)!.text()).toContain('repaired in pass 1')
  })
  it('says what helps and with which caution before it is mended, and keeps a note and the press after it', async () => {
    told({ passes: [pass(1, false, 1)], flaws: [flaw(1, { cause: { kind: 'tip', tip: 0.4, focal: false } })] })
    page.bench.replies.set(`PUT /flaws/${flaw(1).id}`, flaw(1, { version: 2 }))
    const at = await open()
    await at.find('[data-flaw] .name').trigger('click')
    await settle()
    expect(useViewport().spot).toEqual([1, 0, 0])
    expect(at.find('[data-flaw]').text()).toContain('A support tip of 0.4 mm was here.')
    expect(at.findAll('.caution').length).toBeGreaterThan(0)
    page.bench.slow = 10
    await type(at, 'Size', '1.2')
    await press(at, 'Mark as repaired')
    for (let i = 0; i < 4; i++) await settle()
    expect(sent(`PUT /flaws/${flaw(1).id}`)).toEqual([
      { size: 1.2, version: 1 },
      { state: 'mended', version: 1 },
    ])
  })
  it('accepts what is left only with a reason', async () => {
    told({ passes: [pass(2, false, 1)], flaws: [flaw(1)] })
    page.bench.replies.set(
      `PUT /pieces/${PIECE}/inspection/passes/2`,
      inspected({ passes: [pass(2, true, 1)], flaws: [flaw(1, { state: 'accepted' })], closed: true }),
    )
    const at = await open()
    expect(button(at, 'Accept the remaining flaws').element.disabled).toBe(true)
    const reason = at.findAll('[data-passes] input').at(0)!
    await reason.setValue('under the plinth')
    await press(at, 'Accept the remaining flaws')
    expect(sent(`PUT /pieces/${PIECE}/inspection/passes/2`)).toEqual([{ note: 'under the plinth', acceptRest: true }])
    expect(at.text()).toContain('Inspected')
    expect(at.text()).toContain('accepted')
    expect(button(at, 'Start pass 3').exists()).toBe(true)
  })
  it('shows a change by somebody else, and says why its own was refused', async () => {
    told({ passes: [pass(1, false, 1)], flaws: [flaw(1)] })
    const at = await open()
    await at.find('[data-flaw] .name').trigger('click')
    told({ passes: [pass(1, false, 1)], flaws: [flaw(1, { version: 7, size: 3 })] })
    await press(at, 'Accept')
    expect(at.find('[data-flaw] [role=alert]').text()).not.toBe('')
    expect(useInspection().flaws[0]).toMatchObject({ version: 7, size: 3, state: 'open' })
  })
})
