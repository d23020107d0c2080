import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { cleaning, type Cleaning, type CleanStepRecord } from '../../contract/runs'
import { failed, known, MEASURING, NONE } from '../../core/findings/facts'
import type { KnownAt } from '../../core/findings/judge'
import { api } from '../api'
import { messageOf } from '../messageOf'
import { newestOnly } from '../composables/newest'
import { useChanges } from './changes'
import { usePiece } from './piece'
import { useRuns } from './runs'
import { useStock } from './stock'

/** Plates that came off the printer, and how the one that is looked at is cleaned. */
export const useCleaning = defineStore('cleaning', () => {
  const piece = usePiece(),
    runs = useRuns(),
    stock = useStock()
  const done = computed(() => runs.plates.filter((p) => p.state === 'ended' || p.state === 'judged'))
  const chosen = ref<string | null>(null)
  const plate = computed(() => done.value.find((p) => p.id === chosen.value) ?? done.value[0] ?? null)
  const list = ref<Cleaning | null>(null)
  const fault = ref('')
  const load = newestOnly(async () => {
    const id = plate.value?.id
    if (!id) return
    try {
      const got = await api(cleaning, 'GET', `/plates/${id}/cleaning`)
      fault.value = ''
      if (id === plate.value?.id) list.value = got
    } catch (e) {
      fault.value = messageOf(e)
    }
  })
  watch(
    () => plate.value?.id,
    () => {
      list.value = null
      void load()
    },
    { immediate: true },
  )
  useChanges().listen((c) => {
    if ((c.type === 'run' && c.id === piece.piece?.id) || c.type === 'hello') void load()
  })
  async function tick(s: CleanStepRecord, on: boolean): Promise<void> {
    if (plate.value)
      list.value = await api(cleaning, 'PUT', `/plates/${plate.value.id}/cleaning`, { key: s.key, done: on })
  }
  const facts = computed<KnownAt<'clean'>>(() => {
    if (!plate.value) return { baths: NONE }
    const baths = stock.workshop?.baths,
      l = list.value
    if (!baths || !l) return { baths: fault.value ? failed(fault.value) : MEASURING }
    // What is washed already carries nothing more.
    const open = (key: string): boolean => l.steps.some((s) => s.key === key && s.doneAt === null)
    return {
      baths: known({ baths, carryOver: { first: open('wash') ? l.first : 0, second: open('rinse') ? l.second : 0 } }),
    }
  })
  return { done, chosen, plate, list, tick, known: facts }
})
