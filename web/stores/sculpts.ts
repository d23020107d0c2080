import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { z } from 'zod'
import { intake } from '../../contract/pieces'
import { sculpt as sculptSchema, type SculptRecord } from '../../contract/sculpts'
import { api, ApiProblem, tell } from '../api'
import { messageOf } from '../messageOf'
import { fieldEdits, queued, type FieldEdits } from '../composables/edits'
import { fetchedOnce } from '../composables/newest'
import { useChanges } from './changes'

/** The library of sculpts, and files on their way into it. */
export const useSculpts = defineStore('sculpts', () => {
  const list = ref<SculptRecord[]>([])
  const arriving = ref<z.infer<typeof intake>[]>([])
  const problem = ref<string | null>(null)
  useChanges().listen((c) => {
    // Which pieces use a sculpt changes with the pieces.
    if (asked() && (c.type === 'sculpts' || c.type === 'piece' || c.type === 'hello')) {
      void again().catch(() => undefined)
    }
  })
  const { load, again, asked } = fetchedOnce(async () => {
    list.value = (await api(z.array(sculptSchema), 'GET', '/sculpts')).map((s) => edits(s.id).withPending(s))
    arriving.value = await api(z.array(intake), 'GET', '/sculpts/intakes')
  })
  /** Editions of one sculpt together, the newest first. */
  const editions = (family: string): SculptRecord[] =>
    list.value.filter((s) => s.family === family).sort((a, b) => b.edition - a.edition)
  const newest = computed(() => list.value.filter((s) => editions(s.family)[0]?.id === s.id))
  const byId = (id: string | null | undefined): SculptRecord | null => list.value.find((s) => s.id === id) ?? null

  const editors = new Map<string, FieldEdits<SculptRecord>>()
  function edits(id: string): FieldEdits<SculptRecord> {
    const made =
      editors.get(id) ??
      fieldEdits<SculptRecord>({
        name: () => `sculpt ${id}`,
        current: () => byId(id),
        send: (fields, from) => api(sculptSchema, 'PATCH', `/sculpts/${id}`, { ...fields, version: from.version }),
        show: (s) => {
          list.value = list.value.map((x) => (x.id === id ? s : x))
        },
        read: (newer) => sculptSchema.safeParse(newer).data ?? null,
      })
    editors.set(id, made)
    return made
  }
  /** Whether it was done; why not is said. */
  async function guarded(work: () => Promise<void>): Promise<boolean> {
    let isDone = true
    problem.value = null
    try {
      await work()
    } catch (e) {
      isDone = false
      problem.value = messageOf(e)
      if (e instanceof ApiProblem && e.body.current) problem.value += text('stores.sculpts.theNewerVersionIs')
    }
    await again().catch(() => undefined)
    return isDone
  }
  const change = (s: SculptRecord, fields: Partial<SculptRecord>): Promise<boolean> =>
    guarded(() => edits(s.id).edit(fields))
  const setEdition = (s: SculptRecord, of: string | null): Promise<boolean> =>
    guarded(() =>
      queued(`sculpt ${s.id}`, async () => {
        await api(sculptSchema, 'PUT', `/sculpts/${s.id}/edition`, { version: byId(s.id)?.version ?? s.version, of })
        await again()
      }),
    )
  const remove = (id: string): Promise<boolean> => guarded(() => tell('DELETE', `/sculpts/${id}`))
  const restore = (id: string): Promise<boolean> => guarded(() => tell('POST', `/sculpts/${id}/restore`))
  const dismiss = (id: string): Promise<boolean> => guarded(() => tell('DELETE', `/intakes/${id}`))
  const drop = (files: readonly File[]): Promise<boolean> =>
    guarded(async () => {
      for (const f of files) await tell('POST', `/sculpts/files?name=${encodeURIComponent(f.name)}`, f)
    })
  return { list, newest, arriving, problem, load, byId, editions, change, setEdition, remove, restore, dismiss, drop }
})
