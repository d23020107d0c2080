import { describe, expect, it } from 'vitest'
import type { CalendarRecord } from '../../../contract/bench'
import { scheduleWorkshop } from '../../../core/plan/scheduling/workshop'
import { dayNumber, wallClock } from '../../../core/math/wallClock'
import * as made from './calendarTesting'
import { dateName, dayName, hourOf, letterOf, momentOf, rowsOf } from './strips'

const ZONE = 'Europe/Berlin'
const clock = wallClock(ZONE)
const DAY = dayNumber('2026-10-24')
const task = (id: string, work: number, waiting = 0, after: string[] = []): CalendarRecord['tasks'][number] =>
  made.task(id, 'p', { work, waiting, after })
const record = (tasks: CalendarRecord['tasks'], more: Partial<CalendarRecord> = {}): CalendarRecord =>
  made.calendar(
    [
      [9 * 60, 12 * 60],
      [18 * 60, 20 * 60],
    ],
    { now: clock.at(DAY, 8 * 60), zone: ZONE, pieces: [made.piece('p', 'Pilot')], tasks, ...more },
  )
const H = 3_600_000

describe('strips of bench time', () => {
  it('leave hours out in which nobody works, and put a step where its work falls', () => {
    const c = record([task('a', 3600), task('b', 7200, 10 * 3600, ['a']), task('c', 5400, 0, ['b'])])
    const rows = rowsOf(c, scheduleWorkshop(c), DAY, 2)
    const [first, second] = rows
    // Three hours, a gap that is no time, two hours.
    expect(first!.strips.map((s) => s.to - s.from)).toEqual([3 * H, 2 * H])
    expect(first!.length).toBeGreaterThan(5 * H)
    expect(first!.length).toBeLessThan(5.5 * H)
    expect(first!.blocks.map((b) => [b.id, b.at, b.length])).toEqual([
      ['a', 0, H],
      ['b', H, 2 * H],
    ])
    // Dries from noon to ten at night, past the last of the hours; goes on the next morning.
    expect(first!.overnight.map((o) => [o.id, hourOf(o.until, ZONE)])).toEqual([['b', '22:00']])
    expect(second!.blocks.map((b) => b.id)).toEqual(['c'])
  })
  it('show work that no window holds as the pieces it is done in, and keep their hours over a clock change', () => {
    const c = record([task('long', 4 * 3600)])
    const [sat, sun] = rowsOf(c, scheduleWorkshop(c), DAY, 2)
    expect(sat!.blocks.map((b) => b.length)).toEqual([3 * H, H])
    expect(sun!.blocks).toEqual([])
    expect(sun!.strips.map((s) => hourOf(s.from, ZONE))).toEqual(['09:00', '18:00'])
    // The night between is an hour longer.
    expect(sun!.strips[0]!.from - sat!.strips[0]!.from).toBe(25 * H)
  })
  it('have a row for each of the people, and say where nothing may be sprayed', () => {
    const { hours } = record([]).people[0]!
    const people = [
      { name: 'Ada', hours, off: [] },
      { name: 'Bo', hours, off: ['2026-10-24'] },
    ]
    const spray: [number, number][] = [[clock.at(DAY, 11 * 60), clock.at(DAY, 19 * 60)]]
    const c = record([task('a', 3600)], { people, closed: { spray } })
    const rows = rowsOf(c, scheduleWorkshop(c), DAY, 1)
    expect(rows.map((r) => [r.person, r.strips.length, r.blocks.length])).toEqual([
      ['Ada', 2, 1],
      ['Bo', 0, 0],
    ])
    expect(rows[0]!.shut.map((s) => s.length)).toEqual([H, H])
  })
  it('are named as one reads them', () => {
    expect([dayName(DAY), dateName(DAY), momentOf(clock.at(DAY, 605), ZONE)]).toEqual([
      'Sat 24',
      '24 Oct',
      'Sat 24, 10:05',
    ])
    expect([0, 25, 26, 27].map(letterOf)).toEqual(['A', 'Z', 'A1', 'B1'])
  })
})
