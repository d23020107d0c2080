import { text as message } from '../i18n'
import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'
import { z } from 'zod'
import { tick as tickSchema, type TickInput } from '../../contract/bench'
import { logEntry, type LogEntry } from '../../contract/pieces'
import { plan as planSchema, type PlanRecord, type PlanStepRecord } from '../../contract/plan'
import { waitsFor, type Awaited } from '../../core/plan/steps/waitsFor'
import { api } from '../api'
import { messageOf } from '../messageOf'
import { inOrder } from '../composables/newest'
import { preparePhoto } from '../shell/photo'
import { useChanges } from './changes'
import { useOutbox } from './outbox'
import { usePiece } from './piece'
import { useTimers } from './timers'

const ticksOf = (piece: string | null): string => `/pieces/${piece}/ticks`
/** A tick on its way. */
interface Said {
  path: string
  body: Pick<TickInput, 'stepKey'> & Partial<TickInput>
  arrived: boolean
}

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
  /** What was done here and is not in what was told yet, though it may have arrived: a plan takes a while to be laid. */
  const said = ref<Said[]>([])
  /** The plan as the server told it, under what was done here. */
  const plan = computed<PlanRecord | null>(() => {
    if (!told.value) return null
    const own = [...outbox.waiting, ...said.value]
      .filter((w) => w.path === ticksOf(id.value))
      .map((w) => tickSchema.parse(w.body))
    if (own.length === 0) return told.value
    const steps = told.value.steps.map((s) => {
      return own
        .filter((t) => t.stepKey === s.key)
        .reduce(
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
  const question = inOrder()
  /** plans that are on their way, and derivations that ended meanwhile: a plan that still waits for one of them is asked again */
  let asked = 0
  const ended = new Set<string>()
  async function load(): Promise<void> {
    const of = id.value
    if (!of) return
    const isNews = question()
    const arrived = said.value.filter((s) => s.arrived)
    let isBehind = false
    asked++
    try {
      const [p, l] = [
        await api(planSchema, 'GET', `/pieces/${of}/plan${measured.value > 0 ? '?measure=1' : ''}`),
        await api(z.array(logEntry), 'GET', `/pieces/${of}/log`),
      ]
      // The table may have changed hands meanwhile; and an answer that was overtaken would take back what was done since.
      if (of !== id.value || !isNews()) return
      told.value = p
      isBehind = p.pending.some((key) => ended.has(key))
      log.value = l
      said.value = said.value.filter((s) => !arrived.includes(s))
      fault.value = ''
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      if (--asked === 0) ended.clear()
    }
    if (isBehind) await load()
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
    if (asked > 0 && c.type === 'derivation' && c.key && (c.status === 'done' || c.status === 'failed'))
      ended.add(c.key)
    const ours = c.type === 'piece' && c.id === id.value,
      surer = c.type === 'derivation' && c.status === 'done' && plan.value?.pending.includes(c.key ?? ''),
      all = ['workshop', 'stock', 'calendar', 'room', 'hello'].includes(c.type)
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
      fault.value = messageOf(e)
      return false
    }
  }
  const say = (s: PlanStepRecord, more: Partial<TickInput>): Promise<boolean> =>
    guard(async () => {
      const what = reactive({
        path: ticksOf(id.value),
        body: { stepKey: s.key, title: s.title.slice(0, 300), phase: s.phase, ...more },
        arrived: false,
      })
      said.value.push(what)
      try {
        what.arrived = await outbox.send({ method: 'PUT', path: what.path, body: { ...what.body }, what: s.title })
        return what.arrived
      } finally {
        // Refused, or kept to be sent later.
        if (!what.arrived) said.value = said.value.filter((x) => x !== what)
      }
    })
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
        what: text || message('stores.plan.photo'),
      })
    })
  }
  const next = computed(() => plan.value?.steps.find((s) => !s.doneAt) ?? null)
  /** Seconds left on a step's timer, 0 when it has run out, null without one. */
  const left = (s: PlanStepRecord): number | null =>
    s.timerUntil ? Math.max(0, Math.round((new Date(s.timerUntil).getTime() - now.value) / 1000)) : null
  /** What has to be over before a step begins. */
  const awaited = (s: PlanStepRecord): Awaited[] => waitsFor(s, plan.value?.steps ?? [], now.value)
  return { lookedAt, awaited, plan, log, fault, now, begin, tick, correct, startTimer, write, next, left }
})
