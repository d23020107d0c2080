// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { PIECE, planReply, planStep } from '../../stores/fakeServer'
import { useOutbox } from '../../stores/outbox'
import { useTimers, words } from '../../stores/timers'
import { useDerivations } from '../../stores/derivations'
import { button, press, settle, StageBench } from '../../stages/stageTesting'
import JobStrip from '../../shell/JobStrip.vue'
import TimerTray from '../../shell/TimerTray.vue'

vi.mock('comlink', () => import('../../workers/inProcess'))

let page: StageBench
const NOW = Date.UTC(2026, 10, 20, 10)
const clock = (id: string, seconds: number, more: object = {}): object => ({
  id,
  pieceId: PIECE,
  piece: 'Pilot',
  stepKey: 'wash',
  kind: 'wait',
  title: 'Wash',
  startedAt: new Date(NOW).toISOString(),
  until: new Date(NOW + 1000 * seconds).toISOString(),
  ...more,
})
const told = (...timers: object[]): void =>
  void page.bench.replies.set('GET /timers', { now: new Date(NOW).toISOString(), timers })
beforeEach(() => {
  page = new StageBench()
  told()
})
afterEach(() => {
  page.end()
  vi.useRealTimers()
})
const T = (n: number): string => `${n}0000000-0000-4000-8000-000000000000`

describe('clocks that the server keeps', () => {
  it('follow the server’s time, however wrong this device’s is', async () => {
    // The device is an hour ahead.
    vi.useFakeTimers({ toFake: ['Date'], now: NOW + 3_600_000 })
    told(clock(T(1), 90), clock(T(2), -5))
    const timers = useTimers()
    await timers.load()
    expect(timers.list.map((t) => timers.left(t))).toEqual([90, 0])
    expect(timers.running.map((t) => t.id)).toEqual([T(1)])
    expect(timers.over.map((t) => t.id)).toEqual([T(2)])
  })
  it('show the last answer of two, whichever comes first', async () => {
    const timers = useTimers()
    page.bench.slow = 15
    told(clock(T(1), 90))
    const first = timers.load()
    page.bench.slow = 1
    told(clock(T(2), 90))
    await Promise.all([timers.load(), first])
    expect(timers.list.map((t) => t.id)).toEqual([T(2)])
  })
  it('say what it means that each ran out, until somebody dismisses it', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: NOW })
    told(
      clock(T(1), -5, { kind: 'pot', title: 'Putty' }),
      clock(T(2), -5, { kind: 'recoat', title: 'Black' }),
      clock(T(3), 60),
    )
    await useTimers().load()
    const at = await page.show(TimerTray)
    expect(at.findAll('p b').map((b) => b.text())).toEqual([
      'Putty: the mix has set. Mix again if there is more to do.',
      'Black: the next coat can go on.',
    ])
    expect(words(clock(T(3), 0) as never)).toBe('Wash: the wait is over.')
    page.bench.replies.set(`PUT /timers/${T(1)}/heard`, {})
    await button(at, 'Dismiss').trigger('click')
    await settle()
    expect(page.bench.sent.map((s) => s.call)).toEqual([`PUT /timers/${T(1)}/heard`])
  })
})

describe('what is being computed', () => {
  const job = (key: string, kind: string, status: string, progress = 0.4): never =>
    ({ key, kind, status, progress, meshHash: null, blobs: {}, report: null, problem: null }) as never
  it('is named in words, what runs before what waits, and each can be cancelled', async () => {
    const derivations = useDerivations()
    for (const [i, kind] of ['hollow', 'display', 'support', 'rinse', 'balance'].entries())
      derivations.note(job(`k${i}`, kind, i === 0 ? 'waiting' : 'running'))
    derivations.note(job('done', 'slice', 'done'))
    const at = await page.show(JobStrip)
    expect(at.find('.what').text()).toBe('generating supports')
    expect(at.find('.percent').text()).toBe('40 %')
    page.bench.replies.set('POST /derivations/k2/cancel', {})
    page.bench.replies.set('POST /derivations/k0/cancel', {})
    await button(at, 'Cancel').trigger('click')
    await press(at, '3 more')
    // The picture of a sculpt is nobody's job.
    expect(at.findAll('.job .what').map((s) => s.text())).toEqual([
      'hollowing',
      'simulating rinsing',
      'calculating the balance',
    ])
    expect(at.find('.job .percent').text()).toBe('waiting')
    await at.findAll('.job button')[0]!.trigger('click')
    await settle()
    expect(page.bench.sent.map((s) => s.call)).toEqual(['POST /derivations/k2/cancel', 'POST /derivations/k0/cancel'])
  })
})

describe('the bench', () => {
  const planned = (...steps: object[]): void =>
    void page.bench.replies.set(`GET /pieces/${PIECE}/plan?measure=1`, planReply({ finish: NOW, steps }))
  const open = async (query = '') => {
    page.bench.replies.set(`GET /pieces/${PIECE}/plan`, page.bench.replies.get(`GET /pieces/${PIECE}/plan?measure=1`))
    page.router.addRoute({ path: '/pieces/:id/bench', component: { template: '' } })
    await page.router.push(`/pieces/${PIECE}/bench${query}`)
    const at = await page.show((await import('../BenchMode.vue')).default)
    await settle()
    return at
  }
  const outgoing = () => vi.spyOn(useOutbox(), 'send').mockResolvedValue(true)
  it('shows the next step that is not done, large, with its cautions, and goes to others by the keys', async () => {
    planned(
      planStep('wash', { title: 'Wash', doneAt: '2026-11-20T09:00:00Z' }),
      planStep('cure', { title: 'Cure', cautions: ['Eye protection.'] }),
      planStep('fill', { title: 'Fill' }),
    )
    const at = await open()
    expect(at.find('h1').text()).toBe('Cure')
    expect(at.find('.caution').text()).toBe('Eye protection.')
    expect(at.text()).toContain('2 of 3')
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight' }))
    await settle()
    expect(at.find('h1').text()).toBe('Fill')
    expect(button(at, 'Next').element.disabled).toBe(true)
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft' }))
    await settle()
    expect(at.find('h1').text()).toBe('Cure')
  })
  it('opens at the step that was asked for', async () => {
    planned(planStep('wash', { title: 'Wash' }), planStep('fill', { title: 'Fill' }))
    const at = await open('?step=fill')
    expect(at.find('h1').text()).toBe('Fill')
  })
  it('writes a problem down with what was typed, leaves the step open, and looks again at what was not dry', async () => {
    planned(planStep('cure', { title: 'Cure' }))
    page.bench.replies.set('POST /timers', {})
    const at = await open()
    const send = outgoing()
    await press(at, 'Problem')
    await at.find('textarea').setValue(' still soft ')
    await press(at, 'Not dry, or still tacky')
    expect(send.mock.calls[0]![0]).toMatchObject({
      path: `/pieces/${PIECE}/log`,
      body: { stepKey: 'cure', text: 'Problem: Not dry, or still tacky. still soft' },
    })
    expect(page.bench.sent.find((s) => s.call === 'POST /timers')!.body).toMatchObject({
      stepKey: 'cure',
      kind: 'wait',
      seconds: 1800,
    })
    expect(at.find('[role=status]').text()).toContain('A timer runs')
    expect(at.find('h1').text()).toBe('Cure')
  })
  it('says nothing is written down that was not', async () => {
    planned(planStep('cure', { title: 'Cure' }))
    const at = await open()
    vi.spyOn(useOutbox(), 'send').mockRejectedValue(new Error('It is too long.'))
    await press(at, 'Note')
    await at.find('textarea').setValue('remember')
    await press(at, 'Save')
    expect(at.findAll('.said')).toHaveLength(0)
    expect(at.find('[role=alert]').text()).toBe('It is too long.')
    // What was typed is still there.
    expect(at.find('textarea').element.value).toBe('remember')
  })
  it('takes no letter for a command while somebody types', async () => {
    planned(planStep('cure', { title: 'Cure' }), planStep('fill', { title: 'Fill' }))
    const at = await open()
    await press(at, 'Note')
    await at.find('textarea').trigger('keydown', { key: 'ArrowRight' })
    await at.find('textarea').trigger('keydown', { key: 'p' })
    await settle()
    expect(at.find('section.panel').attributes('aria-label')).toBe('Note')
    await at.find('textarea').trigger('keydown', { key: 'Escape' })
    await settle()
    expect(at.find('section.panel').exists()).toBe(false)
    expect(at.find('h1').text()).toBe('Cure')
  })
  it('is over when all is done', async () => {
    planned(planStep('wash', { title: 'Wash', doneAt: '2026-11-20T09:00:00Z' }))
    const at = await open()
    expect(at.find('h1').text()).toBe('All done.')
  })
})
