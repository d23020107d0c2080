import { isoDay, wallClock, weekday } from '../../math/wallClock'
import type { Person } from './types'

/** Days that are looked ahead. */
const HORIZON = 500

/** Half-open stretches of time, ms: from[i] up to to[i], rising and apart. */
export interface Stretches {
  from: Float64Array
  to: Float64Array
}

/**
 * When a person works, from a moment on. Days are stepped by the calendar and hours are those of the clock on the wall, so that
 * a clock change makes a window longer or shorter and moves nothing else.
 *
 * @param zone of the clock on the wall; the machine's own where there is none
 */
export function windowsOf(person: Person, start: number, zone?: string, days = HORIZON): Stretches {
  const clock = wallClock(zone)
  const off = new Set(person.off)
  const spans: [number, number][] = []
  const first = clock.dayOf(start)
  for (let d = 0; d < days; d++) {
    const day = first + d
    if (off.has(isoDay(day))) continue
    for (const h of person.hours) {
      if (h.weekday !== weekday(day) || h.to <= h.from) continue
      const from = Math.max(start, clock.at(day, h.from)),
        to = clock.at(day, h.to)
      if (to > from) spans.push([from, to])
    }
  }
  return joined(spans)
}

/** Hours that overlap or meet are one window. */
function joined(spans: [number, number][]): Stretches {
  spans.sort((a, b) => a[0] - b[0])
  const out: [number, number][] = []
  for (const [from, to] of spans) {
    const last = out.at(-1)
    if (last && from <= last[1]) last[1] = Math.max(last[1], to)
    else out.push([from, to])
  }
  return { from: Float64Array.from(out, (s) => s[0]), to: Float64Array.from(out, (s) => s[1]) }
}
