import { proxy, wrap, type Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { calendar as calendarSchema, type CalendarRecord, type CalendarTask, type StepEdit } from '../../contract/bench'
import { BATCH } from '../../core/plan/scheduling/batching'
import type { FitNow } from '../../core/plan/scheduling/fitsNow'
import { shiftOf, type WorkshopSchedule, type Shift } from '../../core/plan/scheduling/workshop'
import { api, tell } from '../api'
import { messageOf } from '../messageOf'
import { queued } from '../composables/edits'
import type { Scheduled, ScheduleWorker } from '../workers/schedule.worker'
import ScheduleThread from '../workers/schedule.worker?worker'
import { useChanges } from './changes'

/** ms that a better schedule is looked for */
const IMPROVE_MS = 5000
export const NO_WISH: StepEdit = {
  handsOn: null,
  waiting: null,
  notBefore: null,
  by: null,
  anyway: false,
  after: [],
}

/** The schedule of all pieces, laid in a worker, with what may be changed about it. */
export const useCalendar = defineStore('calendar', () => {
  const calendar = shallowRef<CalendarRecord | null>(null),
    made = shallowRef<Scheduled | null>(null),
    fault = ref('')
  let worker: Remote<ScheduleWorker> | null = null
  const thread = (): Remote<ScheduleWorker> => (worker ??= wrap<ScheduleWorker>(new ScheduleThread()))
  const watched = ref(0)
  const off = useChanges().listen((c) => {
    if (watched.value > 0 && ['piece', 'calendar', 'workshop', 'room', 'stock', 'run', 'hello'].includes(c.type)) soon()
  })
  onScopeDispose(off)
  let again: ReturnType<typeof setTimeout> | undefined
  /** Many changes come at once. */
  const soon = (): void => {
    clearTimeout(again)
    again = setTimeout(() => void load(), 250)
  }
  let asked = 0
  async function load(): Promise<void> {
    const mine = ++asked
    try {
      const c = await api(calendarSchema, 'GET', '/calendar')
      const t = await thread().all(c)
      if (mine !== asked) return
      calendar.value = c
      made.value = t
      trial.value = null
      fault.value = ''
    } catch (e) {
      if (mine === asked) fault.value = messageOf(e)
    }
  }

  const improving = ref<{ from: number; now: number; until: number } | null>(null)
  /** Looks for a better schedule for a while; what it finds is kept for everybody. */
  async function improve(): Promise<void> {
    const c = calendar.value,
      first = made.value
    if (!c || !first || improving.value || c.tasks.length < 2) return
    const run = { from: first.laid.cost, now: first.laid.cost, until: Date.now() + IMPROVE_MS }
    improving.value = run
    try {
      const better = await thread().improve(
        c,
        IMPROVE_MS,
        proxy((cost: number) => {
          improving.value = { ...run, now: Math.min(cost, run.from) }
        }),
      )
      // Not for an hour's gain over weeks is everybody's order changed.
      if (better.cost < first.laid.cost - 1) await tell('PUT', '/calendar/order', { order: better.order })
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      improving.value = null
    }
  }

  const task = computed(() => new Map((calendar.value?.tasks ?? []).map((t) => [t.id, t])))
  /** Tasks that are done in one block. */
  function tasksOf(id: string): CalendarTask[] {
    const c = calendar.value
    if (!c) return []
    const ids = id.startsWith(BATCH) ? (c.batches.find((b) => BATCH + b.id === id)?.tasks ?? []) : [id]
    return ids.flatMap((x) => task.value.get(x) ?? [])
  }

  /** How it would be laid if a step began no earlier than a moment; nothing is changed by it. */
  const trial = shallowRef<{ id: string; at: number; laid: WorkshopSchedule; shift: Shift } | null>(null)
  let tried = 0
  async function tryAt(id: string, at: number): Promise<void> {
    const c = calendar.value,
      now = made.value
    if (!c || !now) return
    const mine = ++tried
    const ids = new Set(tasksOf(id).map((t) => t.id))
    // What is to begin earlier than it waits for is asked no less, and lands where it can.
    const tasks = c.tasks.map((t) => (ids.has(t.id) ? { ...t, notBefore: at, wanted: at } : t))
    const first = [...ids][0]
    const order = [...now.laid.order]
    const laid = await thread().schedule({ ...c, tasks, order: first ? movedTo(order, id, at, now.laid) : order })
    if (mine === tried) trial.value = { id, at, laid, shift: shiftOf(now.laid, laid) }
  }
  function leave(): void {
    tried++
    trial.value = null
  }
  async function keep(): Promise<void> {
    const t = trial.value
    if (!t) return
    for (const x of tasksOf(t.id)) await wish(x, { ...(x.edit ?? NO_WISH), notBefore: new Date(t.at).toISOString() })
    await tell('PUT', '/calendar/order', { order: t.laid.order })
    await load()
  }
  const wish = (t: CalendarTask, w: StepEdit): Promise<void> =>
    tell('PUT', `/pieces/${t.piece}/steps/${encodeURIComponent(t.key)}/wish`, w)
  const takeBack = (t: CalendarTask): Promise<void> => wish(t, NO_WISH)

  const together = (key: string, tasks: readonly string[]): Promise<void> =>
    tell('POST', '/batches', {
      id: crypto.randomUUID(),
      key,
      steps: tasks.flatMap((id) => {
        const t = task.value.get(id)
        return t ? [{ piece: t.piece, step: t.key }] : []
      }),
    })
  const apart = (id: string): Promise<void> => tell('DELETE', `/batches/${id}`)
  const rest = (piece: { id: string; version: number; resting: boolean }): Promise<void> =>
    queued(`piece ${piece.id}`, async () => {
      const { version } = calendar.value?.pieces.find((p) => p.id === piece.id) ?? piece
      await tell('PATCH', `/pieces/${piece.id}`, { version, resting: !piece.resting })
      await load()
    })

  async function use(seconds: number, person: string | null): Promise<FitNow[]> {
    const c = calendar.value,
      t = made.value
    return c && t ? thread().use({ ...c, now: Date.now() }, t.laid, seconds, person) : []
  }
  return {
    calendar,
    made,
    fault,
    watched,
    load,
    improving,
    improve,
    task,
    tasksOf,
    trial,
    tryAt,
    leave,
    keep,
    wish,
    takeBack,
    together,
    apart,
    rest,
    use,
  }
})

/** An order with one task where its new time lies among the others. */
function movedTo(order: readonly string[], id: string, at: number, laid: WorkshopSchedule): string[] {
  const start = new Map(laid.placed.map((p) => [p.id, p.start]))
  const rest = order.filter((x) => x !== id)
  const k = rest.findIndex((x) => (start.get(x) ?? Infinity) >= at)
  return k === -1 ? [...rest, id] : [...rest.slice(0, k), id, ...rest.slice(k)]
}
