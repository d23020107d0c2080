// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { CalendarRecord, CalendarTask } from '../../../contract/bench'
import { NO_WISH, useCalendar } from '../../stores/calendar'
import { choose, control, enter, press, settle, shop, StageBench } from '../../stages/stageTesting'
import * as made from './calendarTesting'
import StepPanel from './StepPanel.vue'
import TimePanel from './TimePanel.vue'
import TogetherPanel from './TogetherPanel.vue'

vi.mock('comlink', () => import('../../workers/inProcess'))
vi.mock('../../workers/schedule.worker?worker', async () => {
  const { InProcess } = await import('../../workers/inProcess')
  return {
    default: class extends InProcess {
      constructor() {
        super('schedule.worker.ts')
      }
    },
  }
})

/** Two pieces at one bench, one person, from nine to five every day; laid by the worker's own code. */
let page: StageBench
const H = 3_600_000
const A = 'aaaaaaaa-0000-4000-8000-000000000000',
  B = 'bbbbbbbb-0000-4000-8000-000000000000'
const NINE = Date.UTC(2026, 10, 23, 9)
const task = (of: string, key: string, more: Partial<CalendarTask> = {}): CalendarTask =>
  made.task(`${of}: ${key}`, of, { key, title: `${key} ${of[0]}`, ...more })
const told = (tasks: CalendarTask[], more: Partial<CalendarRecord> = {}): void => {
  const pieces = [A, B].map((id) => made.piece(id, `Piece ${id[0]}`))
  page.bench.replies.set(
    'GET /calendar',
    made.calendar([[540, 1020]], { now: NINE, zone: 'UTC', pieces, tasks, ...more }),
  )
}
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop())
})
afterEach(() => page.end())
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)
const WISH = `PUT /pieces/${A}/steps/glue/wish`

describe('what is wanted of a step', () => {
  const open = async (more: Partial<CalendarTask> = {}, record: Partial<CalendarRecord> = {}) => {
    told([task(A, 'glue', more), task(A, 'fill', { after: [`${A}: glue`] }), task(B, 'wash')], record)
    await useCalendar().load()
    page.bench.replies.set(WISH, {})
    return page.show(StepPanel, { id: `${A}: glue` })
  }
  it('says when it is scheduled and how much slack it has', async () => {
    const at = await open()
    expect(at.text()).toContain('starts')
    expect(at.text()).toContain('1 h')
    expect(at.text()).toContain('slack')
  })
  it('keeps what was wanted before when something else is', async () => {
    const edit = { ...NO_WISH, handsOn: 1800 }
    const at = await open({ edit })
    await enter(at, 'Start at', '2026-11-25T10:30')
    expect(sent(WISH)).toEqual([{ ...edit, notBefore: '2026-11-25T10:30:00.000Z' }])
    await enter(at, 'Wait, minutes', '90')
    expect(sent(WISH)[1]).toEqual({ ...edit, waiting: 5400 })
    await enter(at, 'Work, minutes', '')
    expect(sent(WISH)[2]).toEqual({ ...edit, handsOn: null })
  })
  it('reads and writes times by the workshop’s own clock', async () => {
    const edit = { ...NO_WISH, notBefore: '2026-11-25T10:30:00.000Z' }
    const at = await open({ edit }, { zone: 'Pacific/Auckland' })
    // Thirteen hours ahead in November.
    expect(control(at, 'Start at').element.value).toBe('25/11/2026, 23:30')
    await enter(at, 'Start at', '2026-11-26T09:00')
    expect(sent(WISH)).toMatchObject([{ notBefore: '2026-11-25T20:00:00.000Z' }])
    await enter(at, 'Start at', '')
    expect(sent(WISH)[1]).toMatchObject({ notBefore: null })
  })
  it('waits for a step of another piece, and no longer', async () => {
    const edit = { ...NO_WISH, after: [{ piece: B, step: 'gone' }] }
    const at = await open({ edit })
    expect(at.text()).toContain('a step that is done')
    await choose(at, /Not before this step is finished/, JSON.stringify({ piece: B, step: 'wash' }))
    expect(sent(WISH)).toMatchObject([
      {
        after: [
          { piece: B, step: 'gone' },
          { piece: B, step: 'wash' },
        ],
      },
    ])
    await press(at, 'Remove “not before a step that is done”')
    expect(sent(WISH)[1]).toMatchObject({ after: [] })
  })
  it('goes back to what the plan says, and says why it was refused', async () => {
    const at = await open({ edit: { ...NO_WISH, handsOn: 60 } })
    await press(at, 'Follow the plan')
    expect(sent(WISH)).toEqual([NO_WISH])
    page.bench.replies.delete(WISH)
    await enter(at, 'Work, minutes', '5')
    expect(at.find('[role=alert]').text()).not.toBe('')
  })
})

describe('a step that is pulled', () => {
  const open = async () => {
    told([task(A, 'glue'), task(A, 'fill', { after: [`${A}: glue`] }), task(B, 'wash')])
    await useCalendar().load()
    return useCalendar()
  }
  it('is only tried: what it pushes is known, and left, all is as it was', async () => {
    const store = await open()
    const before = store.made!.laid.slots.get(`${A}: glue`)!.start
    await store.tryAt(`${A}: glue`, NINE + 5 * H)
    expect(store.trial!.laid.slots.get(`${A}: glue`)!.start).toBeGreaterThanOrEqual(NINE + 5 * H)
    expect(store.trial!.laid.slots.get(`${A}: fill`)!.start).toBeGreaterThanOrEqual(NINE + 6 * H)
    expect(store.made!.laid.slots.get(`${A}: glue`)!.start).toBe(before)
    store.leave()
    expect(store.trial).toBeNull()
    expect(page.bench.sent).toEqual([])
  })
  it('shows the last place of two, whichever is worked out first', async () => {
    const store = await open()
    await Promise.all([store.tryAt(`${A}: glue`, NINE + 2 * H), store.tryAt(`${A}: glue`, NINE + 4 * H)])
    expect(store.trial!.at).toBe(NINE + 4 * H)
    const late = store.tryAt(`${A}: glue`, NINE + 6 * H)
    store.leave()
    await late
    expect(store.trial).toBeNull()
  })
  it('is kept as a wish with the order that it was tried in', async () => {
    const store = await open()
    page.bench.replies.set(WISH, {})
    page.bench.replies.set('PUT /calendar/order', {})
    await store.tryAt(`${A}: glue`, NINE + 3 * H)
    const { order } = store.trial!.laid
    await store.keep()
    expect(sent(WISH)).toEqual([{ ...NO_WISH, notBefore: new Date(NINE + 3 * H).toISOString() }])
    expect(sent('PUT /calendar/order')).toEqual([{ order }])
    expect(store.trial).toBeNull()
  })
})

describe('steps in one go', () => {
  const setup = { key: 'spray primer, grey', seconds: 900 }
  it('are proposed with what that spares, done together, and taken apart again', async () => {
    told([task(A, 'prime', { setup }), task(B, 'prime', { setup })])
    await useCalendar().load()
    page.bench.replies.set('POST /batches', {})
    const at = await page.show(TogetherPanel)
    expect(at.text()).toContain('Spray primer, grey A B: saves 15 min')
    await press(at, 'Do together')
    expect(sent('POST /batches')).toMatchObject([
      {
        key: setup.key,
        steps: [
          { piece: A, step: 'prime' },
          { piece: B, step: 'prime' },
        ],
      },
    ])
    told([task(A, 'prime', { setup }), task(B, 'prime', { setup })], {
      batches: [{ id: 'x', key: setup.key, tasks: [`${A}: prime`, `${B}: prime`] }],
    })
    await useCalendar().load()
    await settle()
    page.bench.replies.set('DELETE /batches/x', {})
    await press(at, 'Do separately')
    expect(sent('DELETE /batches/x')).toHaveLength(1)
  })
  it('are no longer named when only one of them is left to do', async () => {
    told([task(A, 'prime', { setup })], {
      batches: [{ id: 'x', key: setup.key, tasks: [`${A}: prime`, `${B}: prime`] }],
    })
    await useCalendar().load()
    const at = await page.show(TogetherPanel)
    expect(at.text()).not.toContain('Do separately')
  })
})

describe('time to spare', () => {
  afterEach(() => void vi.useRealTimers())
  it('is filled with what fits into it now, and nothing that takes longer', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: NINE })
    told([task(A, 'glue', { work: 1500 }), task(B, 'wash', { work: 7200 })])
    await useCalendar().load()
    const at = await page.show(TimePanel)
    await settle()
    expect(at.findAll('li').map((l) => l.text())).toEqual([expect.stringContaining('glue a')])
    expect(at.text()).toContain('25 min in all.')
    await at.find('.what').trigger('click')
    expect(at.emitted('select')).toEqual([[`${A}: glue`]])
    const minutes = control(at, 'I have')
    await minutes.setValue('10')
    await minutes.trigger('blur')
    await settle()
    expect(at.text()).toContain('Nothing that can start now fits into this time')
  })
})
