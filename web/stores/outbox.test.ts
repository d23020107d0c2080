// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiProblem } from '../api'
import { fakePage } from './fakeServer'
import { useOutbox, type Sending } from './outbox'

/** What the browser keeps: it outlives the page. */
const kept = new Map<number, Sending>()
let last = 0
vi.mock('idb', () => ({
  openDB: () =>
    Promise.resolve({
      getAll: () => Promise.resolve([...kept.values()].map((s) => structuredClone(s))),
      add: (_: string, s: Sending) => {
        kept.set(++last, { ...structuredClone(s), n: last })
        return Promise.resolve(last)
      },
      delete: (_: string, n: number) => Promise.resolve(void kept.delete(n)),
    }),
}))

/** Requests as they arrived, and what each is answered: a status, or no answer at all. */
let arrived: { path: string; body: unknown }[] = []
let answer: (path: string, nth: number) => number | null = () => 200
let hello: (news: object) => void = () => undefined
/** A page opened on what the browser keeps. */
function page(): ReturnType<typeof useOutbox> {
  fakePage(
    (url, init) => {
      const path = url.replace('/api', ''),
        status = answer(path, arrived.filter((a) => a.path === path).length)
      if (status === null) return Promise.reject(new TypeError('no network'))
      arrived.push({ path, body: typeof init?.body === 'string' ? JSON.parse(init.body) : init?.body })
      const said = path === '/blobs' ? { hash: 'photo-hash' } : status < 300 ? {} : { detail: `refused with ${status}` }
      return Promise.resolve(new Response(JSON.stringify(said), { status }))
    },
    (send) => (hello = send),
  )
  // One tab at a time: the locks of the browser, for one tab.
  let queue: Promise<unknown> = Promise.resolve()
  Object.defineProperty(navigator, 'locks', {
    configurable: true,
    value: { request: (_: string, run: () => Promise<void>) => (queue = queue.then(run, run)) },
  })
  return useOutbox()
}
const tick = (name: string, photo: Blob | null = null): Sending => ({
  method: 'PUT',
  path: `/steps/${name}`,
  body: { id: name },
  photo,
  what: `tick of ${name}`,
})
beforeEach(() => {
  kept.clear()
  arrived = []
  answer = () => 200
})

describe('what is done at the bench', () => {
  it('arrives at once where the server is there, and is kept no longer', async () => {
    const outbox = page()
    expect(await outbox.send(tick('wash'))).toBe(true)
    expect(arrived).toEqual([{ path: '/steps/wash', body: { id: 'wash' } }])
    expect(outbox.waiting).toEqual([])
    expect(kept.size).toBe(0)
  })
  it('is kept without the net, through a reload, and arrives once, in order, when it is back', async () => {
    answer = () => null
    const before = page()
    for (const name of ['wash', 'rinse', 'dry']) expect(await before.send(tick(name))).toBe(false)
    expect(before.waiting.map((w) => w.what)).toEqual(['tick of wash', 'tick of rinse', 'tick of dry'])
    const after = page()
    await flushPromises()
    expect(after.waiting).toHaveLength(3)
    answer = () => 200
    hello({ type: 'hello' })
    await vi.waitFor(() => expect(kept.size).toBe(0))
    expect(arrived.map((a) => a.path)).toEqual(['/steps/wash', '/steps/rinse', '/steps/dry'])
    expect(after.refused).toEqual([])
  })
  it('is not overtaken by what comes after it: while one cannot be sent, none is', async () => {
    answer = (path) => (path === '/steps/wash' ? 503 : 200)
    const outbox = page()
    await outbox.send(tick('wash'))
    await outbox.send(tick('rinse'))
    expect(arrived.map((a) => a.path)).not.toContain('/steps/rinse')
    expect(outbox.waiting).toHaveLength(2)
    answer = () => 200
    await outbox.flush()
    expect(arrived.map((a) => a.path).slice(-2)).toEqual(['/steps/wash', '/steps/rinse'])
  })
  it('sends the photo before what names it', async () => {
    const outbox = page()
    await outbox.send(tick('prime', new Blob(['picture'], { type: 'image/png' })))
    expect(arrived.map((a) => a.path)).toEqual(['/blobs', '/steps/prime'])
    expect(arrived[1]!.body).toEqual({ id: 'prime', photo: 'photo-hash' })
  })
  it('that is refused is thrown to whoever did it, dropped, and holds nothing else up', async () => {
    answer = (path) => (path === '/steps/gone' ? 404 : 200)
    const outbox = page()
    const refused = outbox.send(tick('gone'))
    await expect(refused).rejects.toThrow('refused with 404')
    await expect(refused).rejects.toBeInstanceOf(ApiProblem)
    expect(outbox.refused).toEqual([])
    expect(await outbox.send(tick('wash'))).toBe(true)
    expect(kept.size).toBe(0)
  })
  it('that is refused later, when nobody waits for it any more, is listed with its reason', async () => {
    answer = () => null
    const outbox = page()
    await outbox.send(tick('gone'))
    await outbox.send(tick('wash'))
    answer = (path) => (path === '/steps/gone' ? 409 : 200)
    await outbox.flush()
    expect(outbox.refused).toEqual([{ what: 'tick of gone', why: 'refused with 409' }])
    expect(arrived.at(-1)!.path).toBe('/steps/wash')
    expect(outbox.waiting).toEqual([])
  })
  it('waits a fault of the server out five times, then gives it up and says so', async () => {
    answer = (path) => (path === '/steps/odd' ? 500 : 200)
    const outbox = page()
    expect(await outbox.send(tick('odd'))).toBe(false)
    for (let i = 0; i < 3; i++) await outbox.flush()
    expect(outbox.refused).toEqual([])
    await outbox.flush()
    expect(outbox.refused).toEqual([{ what: 'tick of odd', why: 'refused with 500' }])
    expect(arrived).toHaveLength(5)
    expect(kept.size).toBe(0)
  })
})
