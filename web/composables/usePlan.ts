import { computed, onBeforeUnmount, ref } from 'vue'
import { z } from 'zod'
import { logEntry, newLogEntry, plan as planSchema, type LogEntry, type PlanRecord, type PlanStepRecord } from '../../contract/pieces'
import { api, tell } from '../api'
import { useChanges } from '../stores/changes'

/** The bench plan of a piece with its ticks, timers and log, kept current. */
export function usePlan(pieceId: () => string) {
  const plan = ref<PlanRecord | null>(null), log = ref<LogEntry[]>([]), fault = ref(''), now = ref(Date.now())
  const clock = setInterval(() => { now.value = Date.now() }, 1000)
  async function load(): Promise<void> {
    try {
      plan.value = await api(planSchema, 'GET', `/pieces/${pieceId()}/plan`)
      log.value = await api(z.array(logEntry), 'GET', `/pieces/${pieceId()}/log`)
      fault.value = ''
    } catch (e) { fault.value = e instanceof Error ? e.message : String(e) }
  }
  const off = useChanges().listen((c) => { if ((c.type === 'piece' && c.id === pieceId()) || c.type === 'workshop' || c.type === 'hello') void load() })
  onBeforeUnmount(() => { off(); clearInterval(clock) })
  void load()
  async function guard(work: () => Promise<unknown>): Promise<boolean> {
    try { await work(); fault.value = ''; await load(); return true } catch (e) { fault.value = e instanceof Error ? e.message : String(e); return false }
  }
  const tick = (s: PlanStepRecord, done: boolean): Promise<boolean> => guard(() => tell('PUT', `/pieces/${pieceId()}/ticks`, { stepKey: s.key, doneAt: done ? new Date().toISOString() : null, timerUntil: done && s.waiting > 0 ? new Date(Date.now() + s.waiting * 1000).toISOString() : null }))
  const startTimer = (s: PlanStepRecord, seconds: number): Promise<boolean> => guard(() => tell('PUT', `/pieces/${pieceId()}/ticks`, { stepKey: s.key, doneAt: s.doneAt, timerUntil: seconds > 0 ? new Date(Date.now() + seconds * 1000).toISOString() : null }))
  async function write(stepKey: string | null, text: string, photo: File | null): Promise<boolean> {
    return guard(async () => {
      if (photo && !/^image\/(png|jpeg|webp)$/.test(photo.type)) throw new Error(`${photo.name}: photos are PNG, JPEG or WebP pictures.`)
      const hash = photo ? (await api(z.object({ hash: z.string() }), 'POST', '/blobs', photo)).hash : null
      await api(logEntry, 'POST', `/pieces/${pieceId()}/log`, newLogEntry.parse({ stepKey, text, photo: hash }))
    })
  }
  const next = computed(() => plan.value?.steps.find((s) => !s.doneAt) ?? null)
  /** Seconds left on a step's timer, 0 when it has run out, null without one. */
  const left = (s: PlanStepRecord): number | null => (s.timerUntil ? Math.max(0, Math.round((new Date(s.timerUntil).getTime() - now.value) / 1000)) : null)
  return { plan, log, fault, now, tick, startTimer, write, next, left }
}

export function duration(seconds: number): string {
  const m = Math.round(seconds / 60)
  return m < 60 ? `${m} min` : m < 1440 ? `${Math.floor(m / 60)} h${m % 60 ? ` ${m % 60}` : ''}` : `${(m / 1440).toFixed(m % 1440 ? 1 : 0)} d`
}
export const clock = (s: number): string => (s >= 3600 ? `${Math.floor(s / 3600)}:${String(Math.floor((s % 3600) / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}` : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`)
