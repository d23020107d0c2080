import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { z } from 'zod'
import {
  inspection as inspectionSchema,
  flaw as flawSchema,
  type FlawRecord,
  type Inspection,
} from '../../contract/flaws'
import { failed, known, MEASURING, missing, NONE } from '../../core/findings/facts'
import type { KnownAt } from '../../core/findings/judge'
import { learnedFrom } from '../../core/plan/facts/flaws'
import { api, tell } from '../api'
import { messageOf } from '../messageOf'
import { queued } from '../composables/edits'
import { newestOnly } from '../composables/newest'
import { useChanges } from './changes'
import { usePiece } from './piece'

type Fields = z.input<typeof flawSchema>

/** Flaws of the piece on the table under primer, pass by pass, until a pass finds nothing. */
export const useInspection = defineStore('inspection', () => {
  const piece = usePiece()
  const id = computed(() => piece.piece?.id ?? null)
  const inspection = ref<Inspection | null>(null)
  const fault = ref('')
  const load = newestOnly(async () => {
    const of = id.value
    if (!of) return
    try {
      const got = await api(inspectionSchema, 'GET', `/pieces/${of}/inspection`)
      fault.value = ''
      if (of === id.value) inspection.value = got
    } catch (e) {
      fault.value = messageOf(e)
    }
  })
  watch(
    id,
    () => {
      inspection.value = null
      void load()
    },
    { immediate: true },
  )
  useChanges().listen((c) => {
    if ((c.type === 'piece' && c.id === id.value) || c.type === 'hello') void load()
  })
  const flaws = computed<FlawRecord[]>(() => inspection.value?.flaws ?? [])
  const open = computed(() => flaws.value.filter((f) => f.state === 'open'))
  const last = computed(() => inspection.value?.passes.at(-1) ?? null)
  /** the pass under way, null between passes */
  const pass = computed(() => (last.value && last.value.endedAt === null ? last.value : null))

  async function begin(): Promise<void> {
    inspection.value = await api(inspectionSchema, 'POST', `/pieces/${id.value}/inspection/passes`)
  }
  async function end(note: string, acceptRest: boolean): Promise<void> {
    if (!pass.value) return
    const path = `/pieces/${id.value}/inspection/passes/${pass.value.pass}`
    inspection.value = await api(inspectionSchema, 'PUT', path, { note, acceptRest })
  }
  async function mark(f: Pick<Fields, 'kind' | 'size' | 'partId' | 'point'>): Promise<string> {
    const made = await api(flawSchema, 'POST', `/pieces/${id.value}/flaws`, { ...f, id: crypto.randomUUID() })
    await load()
    return made.id
  }
  // A note and the click that follows it are two changes, each from the version that the one before left.
  const change = ({ id: of }: FlawRecord, fields: Partial<Fields>): Promise<void> =>
    queued(`flaw ${of}`, async () => {
      const now = flaws.value.find((f) => f.id === of)
      if (!now) return
      try {
        await api(flawSchema, 'PUT', `/flaws/${of}`, { ...fields, version: now.version })
      } finally {
        await load()
      }
    })
  async function drop(f: FlawRecord): Promise<void> {
    await tell('DELETE', `/flaws/${f.id}`)
    await load()
  }
  const facts = computed<KnownAt<'prime'>>(() => {
    const found = inspection.value
    if (!found) {
      const open = fault.value ? failed(fault.value) : MEASURING
      return { openFlaws: open, flawCauses: open }
    }
    return {
      openFlaws: last.value
        ? known({ open: open.value, pass: last.value.pass })
        : missing(text('stores.inspection.aFirstPassUnder')),
      flawCauses: found.flaws.length > 0 ? known(learnedFrom(found.flaws)) : NONE,
    }
  })
  return { inspection, flaws, open, last, pass, begin, end, mark, change, drop, known: facts }
})
