import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { z } from 'zod'
import { logEntry, newLogEntry, type LogEntry } from '../../contract/pieces'
import { plan as planSchema, type PlanRecord, type PlanStepRecord } from '../../contract/plan'
import { api, tell } from '../api'
import { useChanges } from './changes'
import { usePiece } from './piece'

/** The bench plan of the piece on the table with its ticks, timers and log, kept current. */
export const usePlan = defineStore('plan', () => {
  const piece = usePiece()
  const id = computed(() => piece.piece?.id ?? null)
  const plan = ref<PlanRecord | null>(null),
    log = ref<LogEntry[]>([]),
    fault = ref(''),
    now = ref(Date.now())
  setInterval(() => {
    now.value = Date.now()
  }, 1000)
  /** How many look at the plan itself: only then is measured what it is not sure of. */
  const measured = ref(0)
  function lookedAt(): void {
    onMounted(() => {
      measured.value++
      void load()
    })
    onBeforeUnmount(() => {
      measured.value--
    })
  }
  async function load(): Promise<void> {
    const of = id.value
    if (!of) return
    try {
      const [p, l] = [
        await api(planSchema, 'GET', `/pieces/${of}/plan${measured.value > 0 ? '?measure=1' : ''}`),
        await api(z.array(logEntry), 'GET', `/pieces/${of}/log`),
      ]
      // The table may have changed hands meanwhile.
      if (of !== id.value) return
      plan.value = p
      log.value = l
      fault.value = ''
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
    }
  }
  watch(
    id,
    () => {
      plan.value = null
      log.value = []
      void load()
    },
    { immediate: true },
  )
  useChanges().listen((c) => {
    const ours = c.type === 'piece' && c.id === id.value,
      surer = c.type === 'derivation' && c.status === 'done' && plan.value?.pending.includes(c.key ?? '')
    if (ours || surer || c.type === 'workshop' || c.type === 'hello') void load()
  })
  async function guard(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work()
      fault.value = ''
      await load()
      return true
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
      return false
    }
  }
  const named = (s: PlanStepRecord) => ({ stepKey: s.key, title: s.title.slice(0, 300), phase: s.phase })
  const tick = (s: PlanStepRecord, done: boolean): Promise<boolean> =>
    guard(() =>
      tell('PUT', `/pieces/${id.value}/ticks`, {
        ...named(s),
        doneAt: done ? new Date().toISOString() : null,
        timerUntil: done && s.waiting > 0 ? new Date(Date.now() + s.waiting * 1000).toISOString() : null,
      }),
    )
  const startTimer = (s: PlanStepRecord, seconds: number): Promise<boolean> =>
    guard(() =>
      tell('PUT', `/pieces/${id.value}/ticks`, {
        ...named(s),
        doneAt: s.doneAt,
        timerUntil: seconds > 0 ? new Date(Date.now() + seconds * 1000).toISOString() : null,
      }),
    )
  async function write(stepKey: string | null, text: string, photo: File | null): Promise<boolean> {
    return guard(async () => {
      if (photo && !/^image\/(png|jpeg|webp)$/.test(photo.type))
        throw new Error(`${photo.name}: photos are PNG, JPEG or WebP pictures.`)
      const hash = photo ? (await api(z.object({ hash: z.string() }), 'POST', '/blobs', photo)).hash : null
      await api(logEntry, 'POST', `/pieces/${id.value}/log`, newLogEntry.parse({ stepKey, text, photo: hash }))
    })
  }
  const next = computed(() => plan.value?.steps.find((s) => !s.doneAt) ?? null)
  /** Seconds left on a step's timer, 0 when it has run out, null without one. */
  const left = (s: PlanStepRecord): number | null =>
    s.timerUntil ? Math.max(0, Math.round((new Date(s.timerUntil).getTime() - now.value) / 1000)) : null
  return { lookedAt, plan, log, fault, now, tick, startTimer, write, next, left }
})
