// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { PlanRecord } from '../../../contract/plan'
import { OF_SCHEMES, SCHOOLS, type School } from '../../../core/defaults/plan'
import { ADHESIVES, FILLERS } from '../../../core/plan/materials/materials'
import { PART, PIECE, planReply, planStep } from '../../stores/fakeServer'
import { useOutbox } from '../../stores/outbox'
import { usePlan } from '../../stores/plan'
import { button, choose, control, enter, press, settle, StageBench, type } from '../stageTesting'
import { say } from '../../../core/words/say'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)
const saved = (): Record<string, unknown> => sent(`PATCH /pieces/${PIECE}`).at(-1) as Record<string, unknown>

describe('another way of working', () => {
  const question = (Object.keys(SCHOOLS) as School[]).find((k) => !OF_SCHEMES.includes(k))!
  const [one, two] = Object.keys(SCHOOLS[question].choices) as [string, string]
  const sums = (handsOn: number) => ({ handsOn, waiting: 3600, rework: 600, money: 0, finish: null })
  const difference = {
    now: sums(7200),
    then: sums(5400),
    added: ['Prime white'],
    removed: [],
    changed: [],
    kept: 1,
    lost: ['Prime grey'],
  }
  const open = async () => {
    page.bench.fields = { schools: { [question]: one } }
    page.bench.replies.set(`POST /pieces/${PIECE}/plan/compare`, difference)
    return page.on(() => import('./ComparePanel.vue'))
  }
  it('is weighed before it is taken: nothing is kept until then', async () => {
    const at = await open()
    expect(at.find('[data-difference]').exists()).toBe(false)
    await choose(at, SCHOOLS[question].question, two)
    expect(sent(`POST /pieces/${PIECE}/plan/compare`)).toEqual([{ schools: { [question]: two } }])
    expect(at.find('[data-difference]').text()).toContain('30 min less')
    expect(at.find('[data-difference]').text()).toContain('waitingthe same')
    expect(at.text()).toContain('Added: Prime white.')
    expect(at.text()).toContain('1 step that is done stays done.')
    expect(at.text()).toContain('Done, but no longer needed: Prime grey.')
    expect(sent(`PATCH /pieces/${PIECE}`)).toEqual([])
    await press(at, 'Apply')
    expect(saved()).toMatchObject({ schools: { [question]: two } })
    expect(at.find('[data-difference]').exists()).toBe(false)
  })
  it('is forgotten when it is left, or chosen back to what holds', async () => {
    const at = await open()
    await choose(at, SCHOOLS[question].question, two)
    await press(at, 'Cancel')
    expect(control(at, SCHOOLS[question].question).element.value).toBe(one)
    await choose(at, SCHOOLS[question].question, two)
    await choose(at, SCHOOLS[question].question, one)
    expect(at.find('[data-difference]').exists()).toBe(false)
    expect(sent(`PATCH /pieces/${PIECE}`)).toEqual([])
  })
  it('can do without a filler, and back with all of them asks nothing', async () => {
    const at = await open()
    const filler = [...FILLERS, ...ADHESIVES][0]!
    const box = control(at, say(filler.name))
    await box.setValue(false)
    await settle()
    expect(sent(`POST /pieces/${PIECE}/plan/compare`).at(-1)).toEqual({ schools: {}, without: [filler.id] })
    await box.setValue(true)
    await settle()
    expect(at.find('[data-difference]').exists()).toBe(false)
    await box.setValue(false)
    await settle()
    await press(at, 'Apply')
    expect(saved()).toMatchObject({ without: [filler.id] })
  })
  it('says why it could not be weighed', async () => {
    page.bench.fields = { schools: { [question]: one } }
    const at = await page.on(() => import('./ComparePanel.vue'))
    await choose(at, SCHOOLS[question].question, two)
    expect(at.find('[role=alert]').text()).not.toBe('')
    expect(at.findAll('button').some((b) => b.text() === 'Apply')).toBe(false)
  })
})

const pair = (more: Partial<PlanRecord['pairs'][number]> = {}): PlanRecord['pairs'][number] => ({
  key: 'a+b',
  a: 'arm',
  b: 'torso',
  ids: [PART, PART],
  pin: { wire: 1.5, printed: false, point: [1, 2, 3], outward: [0, 0, 1], radius: 4 } as never,
  word: 'snug',
  sentence: 'It should slide in by hand.',
  tried: null,
  remedies: [],
  ...more,
})
const planned = (more: Partial<PlanRecord>): void => {
  page.bench.replies.set(`GET /pieces/${PIECE}/plan`, planReply(more))
}

describe('the dry fit', () => {
  const open = async (p: PlanRecord['pairs'][number]) => {
    page.bench.operations = [
      { kind: 'scale', factor: 2, about: 'foot' },
      { kind: 'orient', quaternion: [0, 0, 0, 1] },
    ]
    page.bench.fields = { dryFits: { 'c+d': { tight: 0.3 }, ...(p.tried ? { [p.key]: p.tried } : {}) } }
    planned({ pairs: [p] })
    await page.piece()
    usePlan()
    await settle()
    return page.on(() => import('./DryFitSheet.vue'))
  }
  it('keeps how a pair went beside what was said of others', async () => {
    const at = await open(pair())
    expect(at.text()).toContain('0 of 1 tested')
    await press(at, 'too tight')
    expect(saved().dryFits).toEqual({ 'c+d': { tight: 0.3 }, 'a+b': { tight: 0.2 } })
    await press(at, 'too loose')
    expect(saved().dryFits).toMatchObject({ 'a+b': { tight: -0.2 } })
  })
  it('takes “fits” back by pressing it again', async () => {
    const at = await open(pair({ tried: { tight: null } }))
    expect(button(at, 'fits').attributes('aria-pressed')).toBe('true')
    await press(at, 'fits')
    expect(saved().dryFits).toEqual({ 'c+d': { tight: 0.3 } })
  })
  it('keeps the way it was off when by how much is corrected', async () => {
    const at = await open(pair({ tried: { tight: -0.2 }, remedies: ['Build up the pin with putty.'] }))
    expect(at.text()).toContain('Build up the pin with putty.')
    await type(at, /Too loose by/, '0.35')
    expect(saved().dryFits).toMatchObject({ 'a+b': { tight: -0.35 } })
  })
  it('makes a drilling guide for both, each looking into its own part, from the parts before they were stood up', async () => {
    const at = await open(pair())
    await press(at, 'Drilling guide, 1.6 mm')
    const { create } = page.bench.arranged as { create: { name: string; operations: Record<string, unknown>[] }[] }
    expect(create.map((c) => c.name)).toEqual(['Drilling guide for arm', 'Drilling guide for torso'])
    for (const [k, c] of create.entries()) {
      expect(c.operations.map((o) => o.kind)).toEqual(['scale', 'guide'])
      expect(c.operations[1]).toMatchObject({ point: [1, 2, 3], bore: 1.6, radius: 6.5 })
      expect((c.operations[1]!.direction as number[])[2]).toBe(k === 0 ? -1 : 1)
    }
  })
  it('offers no guide where the pin is printed on', async () => {
    const at = await open(
      pair({ pin: { wire: 1.5, printed: true, point: [1, 2, 3], outward: [0, 0, 1], radius: 4 } as never }),
    )
    expect(at.text()).not.toContain('Drilling guide')
  })
})

describe('a step of the plan', () => {
  const washing = {
    title: 'Wash',
    why: 'Uncured resin stays tacky.',
    waiting: 1800,
    cautions: ['Nitrile gloves.'],
    materials: ['wash liquid'],
    tools: ['tongs'],
    risks: [{ what: 'a scratch', chance: 0.004, costs: 900 }],
  }
  const open = async (more: object = {}) => {
    planned({ steps: [planStep('wash', { ...washing, ...more })] as never })
    await page.piece()
    usePlan()
    await settle()
    return page.on(() => import('./StepCard.vue'), { step: usePlan().plan!.steps[0]! })
  }
  it('shows its cautions, what is needed and what it risks before anything is pressed', async () => {
    const at = await open()
    expect(at.find('.caution').text()).toBe('Nitrile gloves.')
    expect(at.text()).toContain('At hand: wash liquid; tongs.')
    expect(at.text()).toContain('under 1 % for a scratch; 15 min to repair.')
    expect(button(at, 'Start timer 30 min').exists()).toBe(true)
  })
  /** What would go to the server, now or when it is there. */
  const outgoing = () => vi.spyOn(useOutbox(), 'send').mockResolvedValue(true)
  it('is begun with the window that it sets in, and done with how long it was planned to take', async () => {
    const at = await open({ window: 900 })
    const send = outgoing()
    await press(at, 'Start')
    await press(at, 'Mark as done')
    expect(send.mock.calls.map(([s]) => s)).toMatchObject([
      { path: `/pieces/${PIECE}/ticks`, body: { stepKey: 'wash', title: 'Wash', planned: 600, sets: 900 } },
      { path: `/pieces/${PIECE}/ticks`, body: { stepKey: 'wash', planned: 600, waits: 1800 } },
    ])
    expect(send.mock.calls[0]![0].body).not.toHaveProperty('doneAt')
  })
  it('is kept back while what it comes after still dries, and started early only with a reason, which the log keeps', async () => {
    const until = new Date(Date.now() + 3_600_000).toISOString()
    const primed = planStep('prime', { title: 'Prime grey', doneAt: '2026-11-20T10:00:00Z', timerUntil: until })
    page.bench.replies.set(
      `GET /pieces/${PIECE}/plan`,
      planReply({ steps: [primed, planStep('coat', { title: 'First coat', after: ['prime'] })] }),
    )
    page.bench.replies.set(`GET /pieces/${PIECE}/log`, [])
    await page.piece()
    usePlan()
    await settle()
    const at = await page.on(() => import('./StepCard.vue'), { step: usePlan().plan!.steps[1]! })
    const send = outgoing()
    expect(at.text()).toContain('Prime grey is not over until')
    expect(at.findAll('button').map((b) => b.text())).toEqual(['Start early'])
    expect(button(at, 'Start early').element.disabled).toBe(true)
    await type(at, 'Reason to start early', 'It is dry to the touch.')
    await at.find('form').trigger('submit')
    await settle()
    expect(send.mock.calls.map(([s]) => s)).toMatchObject([
      {
        path: `/pieces/${PIECE}/log`,
        body: { stepKey: 'coat', text: expect.stringContaining('It is dry to the touch.') },
      },
      { path: `/pieces/${PIECE}/ticks`, body: { stepKey: 'coat', planned: 600 } },
    ])
  })
  it('can be corrected once it is done, and never to less than nothing', async () => {
    const at = await open({ doneAt: '2026-11-20T10:00:00Z', took: 600 })
    const send = outgoing()
    const field = control(at, 'Minutes that it took')
    expect(field.element.value).toBe('10')
    for (const [typed, kept] of [
      ['25', 1500],
      ['-4', 0],
    ] as const) {
      await enter(at, 'Minutes that it took', typed)
      expect(send.mock.calls.at(-1)![0].body).toMatchObject({ took: kept })
    }
    expect(button(at, 'Mark as not done').exists()).toBe(true)
  })
})
