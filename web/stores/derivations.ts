import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import {
  derivation,
  type Check,
  type DerivationKind,
  type DerivationRecord,
  type ReportOf,
} from '../../contract/derivations'
import type { OperationRecord } from '../../contract/operations'
import type { CheckKind } from '../../core/checks/registry'
import { api, ApiProblem, tell } from '../api'
import { useChanges } from './changes'

/** A check of one kind. */
export type CheckOf<K extends CheckKind> = Check & { kind: K }

/** Replies are seconds behind at most; this many ends cannot pass in that time. */
const MAX_OVERTAKEN = 1000

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
      if (overtaken.size > MAX_OVERTAKEN) overtaken.delete(overtaken.values().next().value!)
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
    try {
      note(await api(derivation, 'GET', `/derivations/${key}`))
    } catch (e) {
      const d = known.get(key)
      // While the server is away it is read again with the next news; any other answer stays, and nobody waits for it.
      if (!d || !(e instanceof ApiProblem) || e.code === 'offline') return
      Object.assign(d, { status: 'failed', problem: { code: e.code, message: e.message } })
    }
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
  async function ask<K extends CheckKind>(mesh: string, check: CheckOf<K>): Promise<DerivationRecord<K>> {
    return note(await api(derivation, 'POST', '/checks', { mesh, check })) as DerivationRecord<K>
  }
  /** The answer if that was asked before, now or in another session; asks nothing new. */
  async function peek<K extends CheckKind>(mesh: string, check: CheckOf<K>): Promise<DerivationRecord<K> | null> {
    const d = await api(derivation.nullable(), 'POST', '/checks/known', { mesh, check })
    return d && (note(d) as DerivationRecord<K>)
  }
  /** Asks and waits for the end; a problem is thrown as a sentence. */
  const settled = async <K extends CheckKind>(mesh: string, check: CheckOf<K>): Promise<DerivationRecord<K>> =>
    ended(await ask(mesh, check))
  /** Asks, waits for the end and gives what was reported; a problem is thrown as a sentence. */
  const reported = async <K extends CheckKind>(mesh: string, check: CheckOf<K>): Promise<ReportOf<K>> =>
    (await settled(mesh, check)).report!
  /** The result of an operation on a mesh, computed now; a problem is thrown as a sentence. */
  const tried = async <K extends OperationRecord['kind']>(
    mesh: string,
    op: OperationRecord & { kind: K },
  ): Promise<DerivationRecord<K>> =>
    ended(note(await api(derivation, 'POST', '/trials', { mesh, op })) as DerivationRecord<K>)
  async function ended<K extends DerivationKind>(d: DerivationRecord<K>): Promise<DerivationRecord<K>> {
    while (d.status === 'waiting' || d.status === 'running') await new Promise((r) => setTimeout(r, 120))
    if (d.status === 'failed')
      throw new ApiProblem(
        422,
        d.problem?.code ?? 'failed',
        d.problem?.message ?? text('stores.derivations.itFailed'),
        {},
      )
    return d
  }
  const cancel = (key: string): Promise<void> => tell('POST', `/derivations/${key}/cancel`)
  const busy = computed(() => [...known.values()].filter((d) => d.status === 'waiting' || d.status === 'running'))
  return { known, note, ask, peek, settled, reported, tried, cancel, busy }
})
