const DAY = 86_400_000

/** Days of the calendar are counted from 1970-01-01, whatever the zone. */
export const isoDay = (day: number): string => new Date(day * DAY).toISOString().slice(0, 10)
export const dayNumber = (iso: string): number => Math.round(Date.parse(`${iso}T00:00:00Z`) / DAY)
/** 0 Sunday. */
export const weekday = (day: number): number => (((day + 4) % 7) + 7) % 7

/** The day on which a moment falls by the clock of a zone, ISO. @param at ms; now when it is not given */
export const dayAt = (zone?: string, at = Date.now()): string => isoDay(wallClock(zone).dayOf(at))
/** ms by which what is due on a day has to be done: the last second of that day by the clock of a zone. */
export const dueAt = (day: string, zone?: string): number => wallClock(zone).at(dayNumber(day) + 1, 0) - 1000
/** Whole days from one ISO day to another. */
export const daysBetween = (from: string, to: string): number => dayNumber(to) - dayNumber(from)

/**
 * A moment as it is written in ISO 8601: with an offset it is that moment, without one the clock on the wall of a zone shows it.
 *
 * @throws RangeError of what is no moment
 */
export function momentIn(zone: string | undefined, iso: string): number {
  const m = /^(\d{4}-\d\d-\d\d)T(\d\d):(\d\d)(?::(\d\d)(\.\d+)?)?$/.exec(iso)
  if (m)
    return (
      wallClock(zone).at(dayNumber(m[1]!), Number(m[2]) * 60 + Number(m[3])) +
      1000 * Number(`${m[4] ?? 0}${m[5] ?? ''}`)
    )
  const ms = Date.parse(iso)
  if (Number.isNaN(ms)) throw new RangeError(`“${iso}” is no moment. It is written as 2026-03-01T18:00.`)
  return ms
}

export interface WallClock {
  /** ms since the epoch at which the clock shows so many minutes from midnight of a day; where it is turned on, later, where back, the first */
  at(day: number, minutes: number): number
  dayOf(ms: number): number
  /** minutes since midnight that the clock shows */
  minutesOf(ms: number): number
}

/**
 * The clock on the wall of a time zone: what it shows when, and back.
 *
 * @param zone IANA name; the machine's own where there is none
 * @throws RangeError of a zone that is not known
 */
export function wallClock(zone?: string): WallClock {
  const there = clocks.get(zone)
  if (there) return there
  const made = clockOf(zone)
  clocks.set(zone, made)
  return made
}

/** Making a formatter takes longer than asking it: one for each zone. */
const clocks = new Map<string | undefined, WallClock>()
/** Quarters of an hour that are remembered at most. */
const KNOWN = 20_000

function clockOf(zone?: string): WallClock {
  const format = new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  })
  /** ms by which the clock is ahead of UTC; asked once a quarter of an hour, as no clock is turned within one. */
  const known = new Map<number, number>()
  const ahead = (ms: number): number => {
    const quarter = Math.floor(ms / 900_000)
    let o = known.get(quarter)
    if (o === undefined) {
      const p = Object.fromEntries(format.formatToParts(quarter * 900_000).map((x) => [x.type, Number(x.value)]))
      o = Date.UTC(p.year!, p.month! - 1, p.day!, p.hour!, p.minute!, p.second!) - quarter * 900_000
      if (known.size > KNOWN) known.clear()
      known.set(quarter, o)
    }
    return o
  }
  return {
    at(day, minutes) {
      const shown = day * DAY + minutes * 60_000
      const before = ahead((day - 1) * DAY),
        after = ahead((day + 2) * DAY)
      if (before === after) return shown - before
      // The clock is turned hereabouts: of the readings that are true the first; in a gap, as if it had not been turned yet.
      const first = shown - before,
        second = shown - after
      if (ahead(first) === before) return first
      return ahead(second) === after ? second : first
    },
    dayOf: (ms) => Math.floor((ms + ahead(ms)) / DAY),
    minutesOf: (ms) => Math.floor(((((ms + ahead(ms)) % DAY) + DAY) % DAY) / 60_000),
  }
}
