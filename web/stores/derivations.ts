import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import { derivation, type Check, type DerivationRecord } from '../../contract/derivations'
import { api, tell } from '../api'
import { useChanges } from './changes'

/** Every derivation the page has met, kept current by the change stream. */
export const useDerivations = defineStore('derivations', () => {
  const known = reactive(new Map<string, DerivationRecord>())

  useChanges().listen((c) => {
    if (c.type === 'hello') { for (const d of known.values()) if (d.status === 'waiting' || d.status === 'running') void refresh(d.key); return }
    if (c.type !== 'derivation' || !c.key) return
    const d = known.get(c.key)
    if (!d) return
    if (c.status === 'done' || c.status === 'failed') void refresh(c.key)
    else { d.status = c.status as 'waiting' | 'running'; d.progress = c.progress ?? 0 }
  })

  async function refresh(key: string): Promise<void> { note(await api(derivation, 'GET', `/derivations/${key}`)) }
  function note(d: DerivationRecord): DerivationRecord {
    // A reply that was on its way must not undo a later one.
    const before = known.get(d.key)
    if (before && before.status === 'done' && d.status !== 'done') return before
    if (before) Object.assign(before, d)
    else known.set(d.key, d)
    return known.get(d.key)!
  }
  async function ask(mesh: string, check: Check): Promise<DerivationRecord> {
    return note(await api(derivation, 'POST', '/checks', { mesh, check }))
  }
  /** Asks and waits for the end; a problem is thrown as a sentence. */
  async function settled(mesh: string, check: Check): Promise<DerivationRecord> {
    const d = await ask(mesh, check)
    while (d.status === 'waiting' || d.status === 'running') await new Promise((r) => setTimeout(r, 120))
    if (d.status === 'failed') throw new Error(d.problem?.message ?? 'It failed.')
    return d
  }
  const cancel = (key: string): Promise<void> => tell('POST', `/derivations/${key}/cancel`)
  const busy = computed(() => [...known.values()].filter((d) => d.status === 'waiting' || d.status === 'running'))
  return { known, note, ask, settled, cancel, busy }
})
