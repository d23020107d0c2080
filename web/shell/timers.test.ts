// @vitest-environment happy-dom
import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { fakePage, PIECE } from '../stores/fakeServer'
import { useTimers } from '../stores/timers'
import TimerTray from './TimerTray.vue'

/** Seconds by which the server's clock is ahead of this device's. */
const AHEAD = 3600
let ran: object[] = []
let sent: string[] = []
let refuse = false
let hears: (news: object) => void = () => undefined
/** What runs every second. */
let everySecond: () => void = () => undefined
/** The moment by the server's clock. */
const serverTime = (seconds: number): string => new Date(Date.now() + 1000 * (AHEAD + seconds)).toISOString()
const timer = (id: string, seconds: number, more: object = {}): object => ({
  id: `${id}${PIECE.slice(1)}`,
  pieceId: PIECE,
  piece: 'Pilot',
  stepKey: 'cure',
  kind: 'wait',
  title: 'Cure',
  until: serverTime(seconds),
  ...more,
})
beforeEach(async () => {
  vi.useFakeTimers({ now: new Date('2026-11-29T10:00:00Z') })
  sent = []
  refuse = false
  fakePage(
    (url, init) => {
      if (init?.method !== 'GET') sent.push(`${init?.method} ${url} ${typeof init?.body === 'string' ? init.body : ''}`)
      if (refuse) return Promise.resolve(new Response(JSON.stringify({ detail: 'It is gone.' }), { status: 404 }))
      return Promise.resolve(new Response(JSON.stringify({ now: serverTime(0), timers: ran })))
    },
    (send) => (hears = send),
  )
  vi.stubGlobal('setInterval', (run: () => void) => {
    everySecond = run
    return 1
  })
  ran = []
  useTimers()
  await flushPromises()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
async function loaded(...list: object[]): Promise<ReturnType<typeof useTimers>> {
  ran = list
  const timers = useTimers()
  await timers.load()
  return timers
}
function pass(seconds: number): void {
  vi.setSystemTime(Date.now() + 1000 * seconds)
  everySecond()
}
const tray = (props: object = {}) =>
  mount(TimerTray, { props, global: { stubs: { RouterLink: RouterLinkStub } }, attachTo: document.body })

describe('clocks', () => {
  it('follow the server’s clock, whatever this device’s says', async () => {
    const timers = await loaded(timer('1', 90), timer('2', -5))
    expect(timers.running.map((t) => timers.left(t))).toEqual([90])
    expect(timers.over).toHaveLength(1)
    pass(60)
    expect(timers.left(timers.list[0]!)).toBe(30)
    pass(31)
    expect(timers.running).toEqual([])
    expect(timers.left(timers.list[0]!)).toBe(0)
  })
  it('are read again when the server says that they changed, and an overtaken answer is not shown', async () => {
    const timers = await loaded(timer('1', 60))
    const older = timers.load()
    ran = [timer('1', 60), timer('2', 120)]
    const newer = timers.load()
    await Promise.all([older, newer])
    expect(timers.list).toHaveLength(2)
    ran = []
    hears({ type: 'timers' })
    await flushPromises()
    expect(timers.list).toEqual([])
  })
  it('are found by the step that they belong to, and started in whole seconds with a title that fits', async () => {
    const timers = await loaded(timer('1', 60), timer('2', 60, { stepKey: 'prime-1' }))
    expect(timers.of(PIECE, 'prime-1').map((t) => t.id[0])).toEqual(['2'])
    expect(timers.of('elsewhere', 'cure')).toEqual([])
    await timers.start({ pieceId: PIECE, stepKey: 'cure', kind: 'wait', title: 'x'.repeat(400) }, 12.6)
    const body = JSON.parse(sent[0]!.split(/ (?=\{)/)[1]!) as { seconds: number; title: string }
    expect(body.seconds).toBe(13)
    expect(body.title).toHaveLength(300)
  })
  it('are announced once each', async () => {
    const shown: string[] = []
    function Said(title: string): void {
      shown.push(title)
    }
    Said.permission = 'granted'
    vi.stubGlobal('Notification', Said)
    await loaded(timer('1', 10), timer('2', 20, { kind: 'pot', title: 'Putty' }))
    pass(11)
    pass(1)
    expect(shown).toEqual(['Cure: the wait is over.'])
    pass(10)
    pass(1)
    expect(shown[1]).toContain('Putty: the mix has set')
  })
})

describe('the tray of clocks that ran out', () => {
  it('is there only when one has, says what that means, and where', async () => {
    await loaded(timer('1', 5, { kind: 'recoat', title: 'Second coat' }))
    const t = tray()
    expect(t.find('[role=alert]').exists()).toBe(false)
    pass(6)
    await nextTick()
    expect(t.find('[role=alert]').text()).toContain('Second coat: the next coat can go on.')
    expect(t.findComponent(RouterLinkStub).props('to')).toBe(`/pieces/${PIECE}/plan`)
  })
  it('tells the server that somebody dismissed it', async () => {
    await loaded(timer('1', -5))
    const t = tray({ dark: true })
    await t.find('button').trigger('click')
    await flushPromises()
    expect(sent).toEqual([`PUT /api/timers/1${PIECE.slice(1)}/heard `])
  })
  it('says so when that was refused, and can be dismissed again', async () => {
    await loaded(timer('1', -5))
    refuse = true
    const t = tray()
    await t.find('button').trigger('click')
    await flushPromises()
    expect(t.text()).toContain('It is gone.')
    refuse = false
    await t.find('button').trigger('click')
    await flushPromises()
    expect(t.text()).not.toContain('It is gone.')
    expect(sent).toHaveLength(2)
  })
})
