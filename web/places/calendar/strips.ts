import { dateText } from '../../manner'
import type { CalendarRecord } from '../../../contract/bench'
import { windowsOf } from '../../../core/plan/scheduling/windows'
import type { WorkshopSchedule } from '../../../core/plan/scheduling/workshop'
import { isoDay, wallClock } from '../../../core/math/wallClock'

const MINUTE = 60_000
/** Space between two windows of one day, ms of the strip's scale. */
const GAP = 20 * MINUTE

/** One stretch of bench hours, drawn to scale; `at` is where it begins on its row, ms of the scale. */
export interface Strip {
  from: number
  to: number
  at: number
}
export interface Block {
  id: string
  start: number
  end: number
  /** on the row, ms of the scale; a step that goes on in another window has several */
  at: number
  length: number
}
export interface Row {
  day: number
  person: string
  strips: Strip[]
  blocks: Block[]
  /** ms of bench time on it, gaps counted */
  length: number
  /** stretches on it in which nothing may be sprayed */
  shut: { at: number; length: number }[]
  /** tasks whose wait goes on past the last of the day's hours, and until when */
  overnight: { id: string; until: number }[]
}

/** The days of a schedule as rows of bench time, one for each person: hours when nobody works take no room. */
export function rowsOf(c: CalendarRecord, laid: WorkshopSchedule, first: number, days: number): Row[] {
  const clock = wallClock(c.zone)
  const rows: Row[] = []
  for (let d = 0; d < days; d++) {
    const day = first + d
    const [begins, ends] = [clock.at(day, 0), clock.at(day + 1, 0)]
    for (const person of c.people) {
      // From midnight, so that today keeps its shape while it goes by.
      const own = windowsOf(person, begins, c.zone, 1)
      const strips: Strip[] = []
      let at = 0
      own.from.forEach((from, i) => {
        if (i > 0) at += GAP
        strips.push({ from, to: own.to[i]!, at })
        at += own.to[i]! - from
      })
      const mine = laid.placed.filter((p) => p.person === person.name)
      const blocks = mine
        .filter((p) => p.start < ends && p.end > begins)
        .flatMap((p) =>
          strips.flatMap((s) => {
            const from = Math.max(p.start, s.from),
              to = Math.min(p.end, s.to)
            return to > from || (p.start === p.end && p.start >= s.from && p.start < s.to)
              ? [{ id: p.id, start: p.start, end: p.end, at: s.at + from - s.from, length: to - from }]
              : []
          }),
        )
      const closes = strips.at(-1)?.to ?? ends
      rows.push({
        day,
        person: person.name,
        strips,
        blocks,
        length: at,
        shut: (c.closed.spray ?? []).flatMap(([a, b]) =>
          strips.flatMap((s) => {
            const from = Math.max(a, s.from),
              to = Math.min(b, s.to)
            return to > from ? [{ at: s.at + from - s.from, length: to - from }] : []
          }),
        ),
        overnight: mine
          .filter((p) => p.end > begins && p.end <= ends && p.free > closes + 10 * MINUTE)
          .map((p) => ({ id: p.id, until: p.free })),
      })
    }
  }
  return rows
}

/** "Thu 26" */
export const dayName = (day: number): string => dateText(isoDay(day), 'weekdayNumber')
/** "18:40" on the workshop's clock */
export const hourOf = (ms: number, zone: string): string => {
  const m = wallClock(zone).minutesOf(ms)
  return dateText(new Date(2026, 0, 1, Math.floor(m / 60), m % 60), 'time')
}
/** "Thu 26, 18:40" */
export const momentOf = (ms: number, zone: string): string =>
  `${dayName(wallClock(zone).dayOf(ms))}, ${hourOf(ms, zone)}`
/** "26 Nov" */
export const dateName = (day: number): string => dateText(isoDay(day), 'day')

/** Letters for pieces, and a tint each that goes round the colour wheel in large steps. */
export const letterOf = (i: number): string =>
  String.fromCharCode(65 + (i % 26)) + (i >= 26 ? String(Math.floor(i / 26)) : '')
export const tintOf = (i: number): string => `oklch(0.87 0.07 ${(40 + 137.5 * i) % 360})`
