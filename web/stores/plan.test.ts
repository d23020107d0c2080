import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { settled } from './fakeServer'
import { usePlan } from './plan'

/** What the server knows, and questions that it has taken and not answered yet. */
let begun: string | null, done: string | null, pending: string[]
let asked: { answer: () => void }[]
/** How the next thing that is sent ends: arrived, or kept for later; thrown when refused. */
let sending: { arrive: (kept?: boolean) => void; refuse: () => void }[]
const outbox = reactive({ waiting: [] as { path: string; body: object }[] })
vi.mock('./piece', () => ({ usePiece: () => ({ piece: { id: 'p' } }) }))
vi.mock('./timers', () => ({ useTimers: () => ({ now: 0, of: () => [] }) }))
const news = vi.hoisted(() => [] as ((c: { type: string; id?: string; key?: string; status?: string }) => void)[])
vi.mock('./changes', () => ({ useChanges: () => ({ listen: (l: (typeof news)[number]) => news.push(l) }) }))
vi.mock('./outbox', () => ({
  useOutbox: () => ({
    get waiting() {
      return outbox.waiting
    },
    send: (s: { path: string; body: { begunAt?: string; doneAt?: string } }) =>
      new Promise<boolean>((taken, refused) => {
        outbox.waiting = [s]
        sending.push({
          arrive: (kept = false) => {
            if (!kept) {
              begun = s.body.begunAt ?? begun
              done = s.body.doneAt ?? done
              outbox.waiting = []
            }
            taken(!kept)
          },
          refuse: () => {
            outbox.waiting = []
            refused(new Error('no'))
          },
        })
      }),
  }),
}))
vi.mock('../api', () => ({
  api: (_: unknown, __: string, path: string) =>
    path.endsWith('/log')
      ? Promise.resolve([])
      : new Promise((answer) => {
          // What it is when it is asked for, however late the answer comes.
          const is = {
            steps: [{ key: 'wash', title: 'Wash', phase: 'Clean and cure', begunAt: begun, doneAt: done }],
            pending,
          }
          asked.push({ answer: () => answer(is) })
        }),
}))
const shown = (p: ReturnType<typeof usePlan>): string =>
  p.next === null ? 'done' : p.next.begunAt ? 'begun' : 'not started'

describe('the plan on the page', () => {
  beforeEach(() => {
    begun = done = null
    pending = []
    asked = []
    sending = []
    news.length = 0
    outbox.waiting = []
    setActivePinia(createPinia())
  })
  const opened = async (): Promise<ReturnType<typeof usePlan>> => {
    const p = usePlan()
    asked.shift()!.answer()
    await settled()
    expect(shown(p)).toBe('not started')
    return p
  }

  it.each([false, true])(
    'never takes back what was done here: not while a plan is made again, nor by an answer that was overtaken (%s)',
    async (overtaken) => {
      const p = await opened()
      // Something else happened, and that answer is slow.
      news[0]!({ type: 'piece', id: 'p' })
      const began = p.begin(p.next!)
      expect(shown(p)).toBe('begun')
      sending.shift()!.arrive()
      await settled()
      expect(outbox.waiting).toEqual([])
      expect(shown(p)).toBe('begun')
      // One more question, put after it had arrived; whichever is answered first.
      const [before, after] = overtaken ? asked.reverse() : asked
      expect(asked).toHaveLength(2)
      before!.answer()
      await settled()
      expect(shown(p)).toBe('begun')
      after!.answer()
      expect(await began).toBe(true)
      await settled()
      expect(shown(p)).toBe('begun')
      asked = []
      // From now on it is the server's word alone: somebody else takes it back.
      begun = null
      news[0]!({ type: 'piece', id: 'p' })
      asked.shift()!.answer()
      await settled()
      expect(shown(p)).toBe('not started')
    },
  )
  it.each(['done', 'failed'])(
    'is asked again where what it waits for has %s before it arrived, and not for what has nothing to do with it',
    async (status) => {
      const p = await opened()
      pending = ['fit']
      news[0]!({ type: 'piece', id: 'p' })
      // On its way: what it waits for ends, and the page does not know of it yet.
      news[0]!({ type: 'derivation', key: 'fit', status })
      news[0]!({ type: 'derivation', key: 'other', status })
      pending = []
      expect(asked).toHaveLength(1)
      asked.shift()!.answer()
      await settled()
      expect(p.plan!.pending).toEqual(['fit'])
      expect(asked).toHaveLength(1)
      asked.shift()!.answer()
      await settled()
      expect(p.plan!.pending).toEqual([])
      expect(asked).toHaveLength(0)
    },
  )
  it('shows what is kept for later as done, and what was refused as it was, with the reason', async () => {
    const p = await opened()
    const ticked = p.tick(p.next!, true)
    sending.shift()!.arrive(true)
    expect(await ticked).toBe(true)
    expect(shown(p)).toBe('done')
    outbox.waiting = []
    const refused = p.begin(p.next!)
    sending.shift()!.refuse()
    expect(await refused).toBe(false)
    expect(shown(p)).toBe('not started')
    expect(p.fault).toBe('no')
  })
})
