import type { Person } from './types'

/** Days that are looked ahead. */
const HORIZON = 500

/** Half-open stretches of time, ms: from[i] up to to[i], rising and apart. */
export interface Stretches {
  from: Float64Array
  to: Float64Array
}

/**
 * When a person works, from a moment on. Days are stepped by the calendar and hours are local ones, so that a clock change
 * makes a window longer or shorter and moves nothing else.
 */
export function windowsOf(person: Person, start: number, days = HORIZON): Stretches {
  const off = new Set(person.off)
  const spans: [number, number][] = []
  const first = new Date(start)
  for (let d = 0; d < days; d++) {
    // Midday keeps the date right on days of 23 or 25 hours.
    const noon = new Date(first.getFullYear(), first.getMonth(), first.getDate() + d, 12)
    if (off.has(dayOf(noon))) continue
    const at = (minutes: number): number =>
      new Date(noon.getFullYear(), noon.getMonth(), noon.getDate(), 0, minutes).getTime()
    for (const h of person.hours) {
      if (h.weekday !== noon.getDay() || h.to <= h.from) continue
      const from = Math.max(start, at(h.from)),
        to = at(h.to)
      if (to > from) spans.push([from, to])
    }
  }
  return joined(spans)
}

const two = (v: number): string => String(v).padStart(2, '0')
const dayOf = (d: Date): string => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`

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
