// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fakePage, MEASURES } from './fakeServer'
import { useDerivations } from './derivations'

/** The server's own view of what is computed, by key. */
const server = new Map<string, Record<string, unknown>>()
let asked: string[] = []
let hears: (news: object) => void = () => undefined
const row = (key: string, status: string, more: object = {}): Record<string, unknown> => ({
  key,
  kind: 'measures',
  status,
  progress: status === 'done' ? 1 : 0,
  meshHash: null,
  blobs: {},
  report: null,
  problem: null,
  ...more,
})
const measured = (volume: number): object => ({ ...MEASURES, volume })
const json = (value: unknown, status = 200): Response => new Response(JSON.stringify(value), { status })
/** Holds answers back until a test lets them go. */
let held: (() => void)[] | null = null
beforeEach(() => {
  server.clear()
  asked = []
  held = null
  fakePage(
    (url, init) => {
      const path = url.replace('/api', '')
      asked.push(`${init?.method} ${path}`)
      const key = path.startsWith('/derivations/') ? path.split('/')[2]! : 'k'
      const reply = server.has(key)
        ? json(server.get(key))
        : path === '/checks/known'
          ? json(null)
          : json({ detail: 'gone' }, 404)
      return held ? new Promise((r) => held!.push(() => r(reply))) : Promise.resolve(reply)
    },
    (send) => (hears = send),
  )
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const check = { kind: 'measures' } as never

describe('what is computed', () => {
  it('is asked once, followed by the news of it, and given when it ends', async () => {
    server.set('k', row('k', 'waiting'))
    const store = useDerivations()
    const report = store.reported('mesh', check)
    await flushPromises()
    expect(store.busy.map((d) => d.key)).toEqual(['k'])
    hears({ type: 'derivation', key: 'k', status: 'running', progress: 0.4 })
    expect(store.known.get('k')).toMatchObject({ status: 'running', progress: 0.4 })
    server.set('k', row('k', 'done', { report: measured(5) }))
    hears({ type: 'derivation', key: 'k', status: 'done' })
    expect(await report).toEqual(measured(5))
    expect(store.busy).toEqual([])
    expect(asked).toEqual(['POST /checks', 'GET /derivations/k'])
  })
  it('that fails is thrown as its sentence', async () => {
    server.set('k', row('k', 'failed', { problem: { code: 'open', message: 'The body is open.' } }))
    await expect(useDerivations().settled('mesh', check)).rejects.toThrow('The body is open.')
  })
  it('stays done whatever comes late: word of its progress, or an answer that was on its way', async () => {
    server.set('k', row('k', 'done', { report: measured(5) }))
    const store = useDerivations()
    await store.ask('mesh', check)
    hears({ type: 'derivation', key: 'k', status: 'running', progress: 0.2 })
    expect(store.known.get('k')!.status).toBe('done')
    expect(store.note(row('k', 'running') as never).status).toBe('done')
    expect(store.known.get('k')!.report).toEqual(measured(5))
  })
  it('that ended while the answer that names it was on its way is asked again, not waited for', async () => {
    server.set('k', row('k', 'waiting'))
    held = []
    const store = useDerivations()
    const settled = store.settled('mesh', check)
    await flushPromises()
    // The news of its end is faster than the answer that says that it waits.
    hears({ type: 'derivation', key: 'k', status: 'done' })
    const slow = held
    held = null
    server.set('k', row('k', 'done', { report: measured(7) }))
    slow.forEach((go) => go())
    expect((await settled).report).toEqual(measured(7))
  })
  it('that failed and is asked again elsewhere is read again', async () => {
    server.set('k', row('k', 'failed', { problem: { code: 'stopped', message: 'It was cancelled.' } }))
    const store = useDerivations()
    await store.ask('mesh', check)
    server.set('k', row('k', 'running'))
    hears({ type: 'derivation', key: 'k', status: 'waiting' })
    await flushPromises()
    expect(store.known.get('k')!.status).toBe('running')
  })
  it('is read again after the line was cut, as far as it had not ended', async () => {
    server.set('k', row('k', 'running'))
    const store = useDerivations()
    await store.ask('mesh', check)
    store.note(row('other', 'done', { report: measured(2) }) as never)
    asked = []
    server.set('k', row('k', 'done', { report: measured(1) }))
    hears({ type: 'hello' })
    await flushPromises()
    expect(asked).toEqual(['GET /derivations/k'])
    expect(store.known.get('k')!.status).toBe('done')
  })
  it('that cannot be read any more fails in words, so that nobody waits for it for ever', async () => {
    server.set('k', row('k', 'waiting'))
    const store = useDerivations()
    const settled = store.settled('mesh', check)
    await flushPromises()
    server.delete('k')
    hears({ type: 'derivation', key: 'k', status: 'done' })
    await expect(settled).rejects.toThrow('gone')
  })
  it('can be looked up without asking for it', async () => {
    const store = useDerivations()
    expect(await store.peek('mesh', check)).toBeNull()
    server.set('k', row('k', 'done', { report: measured(1) }))
    expect((await store.peek('mesh', check))!.key).toBe('k')
    expect(asked).toEqual(['POST /checks/known', 'POST /checks/known'])
  })
  it('is cancelled at the server, whose word of it counts', async () => {
    server.set('k', row('k', 'running'))
    const store = useDerivations()
    await store.ask('mesh', check)
    await store.cancel('k')
    expect(asked.at(-1)).toBe('POST /derivations/k/cancel')
    expect(store.known.get('k')!.status).toBe('running')
  })
})
