import type { PlanStep } from './steps/types'

/** Bench hours on a weekday (0 Sunday), in minutes from local midnight. */
export interface BenchHours {
  weekday: number
  from: number
  to: number
}

export interface Slot {
  key: string
  /** ms since the epoch */
  start: number
  /** hands off */
  end: number
  /** the next step may begin */
  free: number
}

export interface Schedule {
  slots: Slot[]
  finish: number
  /** keys on the longest chain, first to last */
  critical: string[]
  /** steps that fit no bench window at all */
  impossible: string[]
}

const DAY = 86_400_000

/**
 * Lays steps on the bench hours in order, one pair of hands: each starts at the first moment when its
 * predecessors' waiting is over, the hands are free and the rest of the bench window holds it. Work longer than
 * any window is split over several. Local days are stepped by calendar, so a clock change moves nothing.
 *
 * @param done when steps already ticked were finished, ms
 */
export function schedule(
  steps: readonly PlanStep[],
  hours: readonly BenchHours[],
  now: number,
  done: ReadonlyMap<string, number> = new Map(),
): Schedule {
  const free = new Map<string, number>(),
    cause = new Map<string, string>()
  const slots: Slot[] = []
  const impossible: string[] = []
  let hands = now
  const usable = hours.filter((h) => h.to > h.from)
  for (const step of steps) {
    const ticked = done.get(step.key)
    if (ticked !== undefined) {
      free.set(step.key, ticked + step.waiting * 1000)
      continue
    }
    let ready = now
    for (const p of step.after) {
      const f = free.get(p) ?? now
      if (f > ready) {
        ready = f
        cause.set(step.key, p)
      }
    }
    if (hands > ready) {
      ready = hands
      const before = slots.at(-1)
      if (before) cause.set(step.key, before.key)
    }
    const laid = usable.length === 0 ? null : lay(ready, step.handsOn * 1000, usable)
    if (!laid) {
      impossible.push(step.key)
      free.set(step.key, ready)
      continue
    }
    hands = laid.end
    free.set(step.key, laid.end + step.waiting * 1000)
    slots.push({ key: step.key, start: laid.start, end: laid.end, free: laid.end + step.waiting * 1000 })
  }
  const finish = slots.reduce((m, s) => Math.max(m, s.free), now)
  const critical: string[] = []
  for (let key = slots.find((s) => s.free === finish)?.key; key; key = cause.get(key)) critical.unshift(key)
  return { slots, finish, critical, impossible }
}

/** First stretch of bench time from `ready` that holds `work` ms, whole if any window is long enough, else split. */
function lay(ready: number, work: number, hours: readonly BenchHours[]): { start: number; end: number } | null {
  const longest = Math.max(...hours.map((h) => (h.to - h.from) * 60_000))
  const whole = work <= longest
  let start = -1,
    left = work
  for (let d = 0; d < 800; d++) {
    const day = new Date(ready + d * DAY)
    // Midday keeps the date right on days of 23 or 25 hours.
    const noon = new Date(day.getFullYear(), day.getMonth(), day.getDate(), 12)
    for (const h of hours.filter((x) => x.weekday === noon.getDay()).sort((a, b) => a.from - b.from)) {
      const open = new Date(noon.getFullYear(), noon.getMonth(), noon.getDate(), 0, h.from).getTime()
      const close = new Date(noon.getFullYear(), noon.getMonth(), noon.getDate(), 0, h.to).getTime()
      const from = Math.max(open, ready)
      if (from >= close) continue
      if (whole) {
        if (close - from >= work) return { start: from, end: from + work }
        continue
      }
      if (start < 0) start = from
      if (close - from >= left) return { start, end: from + left }
      left -= close - from
    }
  }
  return null
}
