import { openDB, type IDBPDatabase } from 'idb'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { z } from 'zod'
import { api, ApiProblem, tell } from '../api'
import { useChanges } from './changes'

/** Something that was done here and that the server is to be told; it bears being told twice. */
export interface Sending {
  /** in which order it was done; given when it is kept */
  n?: number
  method: 'PUT' | 'POST'
  path: string
  body: Record<string, unknown>
  /** goes before it; its hash is then `photo` in the body */
  photo?: Blob | null
  /** what it is, for who reads that it waits */
  what: string
}

const AGAIN_MS = 4000
/** Times that a fault of the server itself is waited out, before what met it is given up. */
const FAULTS = 5
/** It is not there, or something before it is. */
const away = (e: ApiProblem): boolean => e.status === 0 || (e.status >= 502 && e.status <= 504)

/**
 * What is done at the bench is kept in the browser first and sent then, in order, whenever the server is there. One tab sends at
 * a time; whatever breaks off in between is sent again, which changes nothing twice, as every message names what it makes.
 */
export const useOutbox = defineStore('outbox', () => {
  const waiting = ref<Sending[]>([]),
    refused = ref<{ what: string; why: string }[]>([])
  let opened: Promise<IDBPDatabase> | null = null
  const store = (): Promise<IDBPDatabase> =>
    (opened ??= openDB('undercut', 1, {
      upgrade: (d) => void d.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true }),
    }))
  const load = async (): Promise<void> => {
    waiting.value = (await (await store()).getAll('outbox')) as Sending[]
  }
  const drop = async (n: number): Promise<void> => {
    await (await store()).delete('outbox', n)
    await load()
  }

  /** @returns whether it has arrived; else it is kept, and arrives later. @throws ApiProblem when the server does not take it */
  async function send(s: Sending): Promise<boolean> {
    const n = (await (await store()).add('outbox', { ...s, body: { ...s.body } })) as number
    await load()
    await flush(n)
    const said = trouble.get(n)
    trouble.delete(n)
    if (said) throw said
    return !waiting.value.some((w) => w.n === n)
  }

  const trouble = new Map<number, ApiProblem>(),
    /** how often each met a fault */
    met = new Map<number, number>()
  /** @param asked who waits for an answer of its own */
  const flush = (asked: number | null = null): Promise<void> =>
    navigator.locks.request('undercut-outbox', async () => {
      await load()
      for (const s of [...waiting.value]) {
        try {
          await deliver(s)
        } catch (e) {
          if (!(e instanceof ApiProblem) || away(e)) return
          const times = (met.get(s.n!) ?? 0) + 1
          met.set(s.n!, times)
          if (e.status >= 500 && times < FAULTS) return
          // What is not taken now will never be; whoever did it is told.
          if (s.n === asked) trouble.set(s.n, e)
          else refused.value.push({ what: s.what, why: e.message })
        }
        await drop(s.n!)
      }
    })
  async function deliver(s: Sending): Promise<void> {
    const photo = s.photo ? (await api(z.object({ hash: z.string() }), 'POST', '/blobs', s.photo)).hash : null
    await tell(s.method, s.path, photo ? { ...s.body, photo } : s.body)
  }

  void load().catch(() => undefined)
  const again = (): void => {
    if (waiting.value.length > 0) void flush().catch(() => undefined)
  }
  setInterval(again, AGAIN_MS)
  useChanges().listen((c) => {
    if (c.type === 'hello') void load().then(again, () => undefined)
  })
  return { waiting, refused, send, flush }
})
