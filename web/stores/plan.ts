import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { z } from 'zod'
import { tick as tickSchema, type TickInput } from '../../contract/bench'
import { logEntry, type LogEntry } from '../../contract/pieces'
import { plan as planSchema, type PlanRecord, type PlanStepRecord } from '../../contract/plan'
import { api } from '../api'
import { preparePhoto } from '../shell/photo'
import { useChanges } from './changes'
import { useOutbox } from './outbox'
import { usePiece } from './piece'
import { useTimers } from './timers'

/** The bench plan of the piece on the table with its ticks, timers and log, kept current; what waits to be sent is in it already. */
export const usePlan = defineStore('plan', () => {
  const piece = usePiece(),
    outbox = useOutbox(),
    timers = useTimers()
  const id = computed(() => piece.piece?.id ?? null)
  const told = ref<PlanRecord | null>(null),
    log = ref<LogEntry[]>([]),
    fault = ref('')
  const now = computed(() => timers.now)
  /** The plan as the server told it, under what was done here and has not arrived there. */
  const plan = computed<PlanRecord | null>(() => {
    if (!told.value) return null
    const path = `/pieces/${id.value}/ticks`
    const own = outbox.waiting.filter((w) => w.path === path).map((w) => tickSchema.parse(w.body))
    if (own.length === 0) return told.value
    const steps = told.value.steps.map((s) => {
      const said = own.filter((t) => t.stepKey === s.key)
      return said.reduce(
        (step, t) => ({
          ...step,
          begunAt: t.begunAt === undefined ? step.begunAt : t.begunAt,
          doneAt: t.doneAt === undefined ? step.doneAt : t.doneAt,
        }),
        s,
      )
    })
    return { ...told.value, steps }
  })
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
      told.value = p
      log.value = l
      fault.value = ''
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
    }
  }
  watch(
    id,
    () => {
      told.value = null
      log.value = []
      void load()
    },
    { immediate: true },
  )
  useChanges().listen((c) => {
    const ours = c.type === 'piece' && c.id === id.value,
      surer = c.type === 'derivation' && c.status === 'done' && plan.value?.pending.includes(c.key ?? ''),
      all = ['workshop', 'calendar', 'room', 'hello'].includes(c.type)
    if (ours || surer || all) void load()
  })
  /** Whether it was done; what could not be sent is kept and counts as done. */
  async function guard(work: () => Promise<boolean>): Promise<boolean> {
    try {
      const arrived = await work()
      fault.value = ''
      if (arrived) await load()
      return true
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
      return false
    }
  }
  const say = (s: PlanStepRecord, more: Partial<TickInput>): Promise<boolean> =>
    guard(() =>
      outbox.send({
        method: 'PUT',
        path: `/pieces/${id.value}/ticks`,
        body: { stepKey: s.key, title: s.title.slice(0, 300), phase: s.phase, ...more },
        what: s.title,
      }),
    )
  const moment = (): string => new Date().toISOString()
  const begin = (s: PlanStepRecord): Promise<boolean> =>
    say(s, { begunAt: moment(), planned: s.handsOn, ...(s.window ? { sets: s.window } : {}) })
  const tick = (s: PlanStepRecord, done: boolean): Promise<boolean> =>
    say(s, done ? { doneAt: moment(), planned: s.handsOn, waits: s.waiting } : { doneAt: null, begunAt: null })
  const correct = (s: PlanStepRecord, took: number): Promise<boolean> => say(s, { took })
  /** The wait of a step, as a clock by itself. */
  const startTimer = (s: PlanStepRecord, seconds: number, kind: 'wait' | 'recoat' = 'wait'): Promise<boolean> =>
    guard(async () => {
      const at = { pieceId: id.value!, stepKey: s.key }
      const running = timers.of(at.pieceId, at.stepKey).find((t) => t.kind === kind)
      if (seconds > 0) await timers.start({ ...at, kind, title: s.title }, seconds)
      else if (running) await timers.stop(running)
      return true
    })
  async function write(stepKey: string | null, text: string, photo: File | null): Promise<boolean> {
    return guard(async () => {
      const picture = photo ? await preparePhoto(photo) : null
      return outbox.send({
        method: 'POST',
        path: `/pieces/${id.value}/log`,
        body: { id: crypto.randomUUID(), at: moment(), stepKey, text },
        photo: picture,
        what: text || 'Photo',
      })
    })
  }
  const next = computed(() => plan.value?.steps.find((s) => !s.doneAt) ?? null)
  /** Seconds left on a step's timer, 0 when it has run out, null without one. */
  const left = (s: PlanStepRecord): number | null =>
    s.timerUntil ? Math.max(0, Math.round((new Date(s.timerUntil).getTime() - now.value) / 1000)) : null
  return { lookedAt, plan, log, fault, now, begin, tick, correct, startTimer, write, next, left }
})
