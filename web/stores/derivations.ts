import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import { derivation, type Check, type DerivationRecord } from '../../contract/derivations'
import type { OperationRecord } from '../../contract/operations'
import { api, tell } from '../api'
import { useChanges } from './changes'

/** Replies are seconds behind at most; this many ends cannot pass in that time. */
const MOST_OVERTAKEN = 1000

/** Every derivation the page has met, kept current by the change stream. */
export const useDerivations = defineStore('derivations', () => {
  const known = reactive(new Map<string, DerivationRecord>())
  /** ended before the page had heard of them: the reply that brings them is older than their end */
  const overtaken = new Set<string>()

  useChanges().listen((c) => {
    if (c.type === 'hello') {
      for (const d of known.values()) if (d.status === 'waiting' || d.status === 'running') void refresh(d.key)
      return
    }
    if (c.type !== 'derivation' || !c.key) return
    const d = known.get(c.key)
    if (!d) {
      if (c.status === 'done' || c.status === 'failed') overtaken.add(c.key)
      if (overtaken.size > MOST_OVERTAKEN) overtaken.delete(overtaken.values().next().value!)
      return
    }
    // What is done stays done; word of its progress may come late. What failed may have been asked again: ask.
    if (d.status === 'done') return
    if (c.status === 'done' || c.status === 'failed' || d.status === 'failed') void refresh(c.key)
    else {
      d.status = c.status as 'waiting' | 'running'
      d.progress = c.progress ?? 0
    }
  })

  async function refresh(key: string): Promise<void> {
    note(await api(derivation, 'GET', `/derivations/${key}`))
  }
  function note(d: DerivationRecord): DerivationRecord {
    // A reply that was on its way must not undo a later one.
    const before = known.get(d.key)
    if (before && before.status === 'done' && d.status !== 'done') return before
    if (before) Object.assign(before, d)
    else known.set(d.key, d)
    if (overtaken.delete(d.key) && (d.status === 'waiting' || d.status === 'running')) void refresh(d.key)
    return known.get(d.key)!
  }
  async function ask(mesh: string, check: Check): Promise<DerivationRecord> {
    return note(await api(derivation, 'POST', '/checks', { mesh, check }))
  }
  /** The answer if that was asked before, now or in another session; asks nothing new. */
  async function peek(mesh: string, check: Check): Promise<DerivationRecord | null> {
    const d = await api(derivation.nullable(), 'POST', '/checks/known', { mesh, check })
    return d && note(d)
  }
  /** Asks and waits for the end; a problem is thrown as a sentence. */
  const settled = async (mesh: string, check: Check): Promise<DerivationRecord> => ended(await ask(mesh, check))
  /** The result of an operation on a mesh, computed now; a problem is thrown as a sentence. */
  const tried = async (mesh: string, op: OperationRecord): Promise<DerivationRecord> =>
    ended(note(await api(derivation, 'POST', '/trials', { mesh, op })))
  async function ended(d: DerivationRecord): Promise<DerivationRecord> {
    while (d.status === 'waiting' || d.status === 'running') await new Promise((r) => setTimeout(r, 120))
    if (d.status === 'failed') throw new Error(d.problem?.message ?? 'It failed.')
    return d
  }
  const cancel = (key: string): Promise<void> => tell('POST', `/derivations/${key}/cancel`)
  const busy = computed(() => [...known.values()].filter((d) => d.status === 'waiting' || d.status === 'running'))
  return { known, note, ask, peek, settled, tried, cancel, busy }
})
