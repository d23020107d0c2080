import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { ScheduleFacts } from '../../findings/facts'
import { scheduleFindings as scheduleFindingsOf } from '../../findings/schedule'
import { nextSpray, roomAhead, saturation, shutToSpray, type AirHour } from './air'
import { inWords } from '../../testSpoken'

const scheduleFindings = inWords(scheduleFindingsOf)

const HOUR = 3_600_000
const air = (temperature: number, humidity: number) => ({ temperature, humidity })

describe('the air', () => {
  it('holds as much water as the tables say', () => {
    // hPa over water: WMO-No. 8, annex 4.B.
    for (const [t, e] of [
      [0, 6.11],
      [10, 12.27],
      [20, 23.37],
      [30, 42.43],
    ] as const)
      // Within the three in a thousand that the formula promises.
      expect(Math.abs(saturation(t) / e - 1)).toBeLessThan(0.003)
  })
  it('dries as it comes in and is warmed, and keeps what the room adds', () => {
    // Five degrees and 90 %, in a room of twenty: 0.9 × 8.72 of 23.37 hPa.
    const now = { room: air(20, 33.6), open: air(5, 90) }
    expect(roomAhead(now, air(5, 90))).toEqual({ temperature: 20, humidity: 34 })
    // A room that has four hPa more than outside keeps them.
    const damp = { room: air(20, 33.6 + (100 * 4) / 23.37), open: air(5, 90) }
    expect(roomAhead(damp, air(5, 90)).humidity).toBe(51)
    fc.assert(
      fc.property(
        fc.integer({ min: -15, max: 35 }),
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 10, max: 26 }),
        (t, h, room) => {
          const ahead = roomAhead({ room: air(room, 50), open: air(12, 70) }, air(t, h))
          expect(ahead.humidity).toBeGreaterThanOrEqual(0)
          expect(ahead.humidity).toBeLessThanOrEqual(100)
          // More water outside is never a drier room.
          const wetter = roomAhead({ room: air(room, 50), open: air(12, 70) }, air(t, Math.min(100, h + 10)))
          expect(wetter.humidity).toBeGreaterThanOrEqual(ahead.humidity)
        },
      ),
      { seed: 6 },
    )
  })
  it('warms with the air outside, a fifth of the way', () => {
    const now = { room: air(20, 50), open: air(5, 80) }
    expect(roomAhead(now, air(15, 60)).temperature).toBe(22)
    expect(roomAhead(now, air(-5, 80)).temperature).toBe(18)
    expect(roomAhead(now, now.open)).toEqual(now.room)
  })
  it('is shut to spraying in whole stretches, and open next where an hour at least is fit', () => {
    const hour = (k: number, fit: boolean): AirHour => ({
      at: k * HOUR,
      room: air(20, 50),
      open: air(fit ? 15 : 5, 60),
    })
    const hours = [false, false, true, false, true, true].map((fit, k) => hour(k, fit))
    expect(shutToSpray(hours, 'open')).toEqual([
      [0, 2 * HOUR],
      [3 * HOUR, 4 * HOUR],
    ])
    expect(shutToSpray(hours, 'room')).toEqual([])
    expect(nextSpray(hours, 'open', 0)).toEqual({ from: 2 * HOUR, to: 3 * HOUR })
    // Half an hour of it is left: the next.
    expect(nextSpray(hours, 'open', 2.5 * HOUR)).toEqual({ from: 4 * HOUR, to: 6 * HOUR })
    // Of the last stretch an hour is left, then less: none that the forecast knows.
    expect(nextSpray(hours, 'open', 5 * HOUR)).toEqual({ from: 5 * HOUR, to: 6 * HOUR })
    expect(nextSpray(hours, 'open', 5.1 * HOUR)).toBeNull()
    // What is over is no time to spray, however fit it was.
    expect(nextSpray([hour(0, true), hour(1, true), hour(2, false)], 'open', 2 * HOUR)).toBeNull()
    expect(nextSpray(hours.slice(0, 2), 'open', 0)).toBeNull()
    expect(nextSpray([], 'open', 0)).toBeNull()
  })
  it('and the schedule are said as findings: late, likely late, without hours, without a dry hour', () => {
    const facts = (more: Partial<ScheduleFacts>): ScheduleFacts => ({
      pieces: [{ id: 'a', name: 'Pilot', due: 10 * 24 * HOUR, finish: 8 * 24 * HOUR }],
      risks: { a: { half: 8 * 24 * HOUR, most: 9 * 24 * HOUR, late: 0.05 } },
      impossible: [],
      broken: [],
      now: 0,
      day: (ms) => `day ${Math.round(ms / 24 / HOUR)}`,
      spray: { from: 0, to: HOUR },
      logged: 3,
      ...more,
    })
    const said = (more: Partial<ScheduleFacts>): string[] =>
      scheduleFindings(facts(more)).map((f) => `${f.id} ${f.level} ${f.value} ${f.unit}`)
    expect(said({})).toEqual([])
    const risk = (late: number) => ({ a: { half: 1, most: 1, late } })
    expect(said({ risks: risk(0.3) })).toEqual(['late:a warning 30 % likely late'])
    expect(said({ risks: risk(0.7) })).toEqual(['late:a problem 70 % likely late'])
    const over = [{ id: 'a', name: 'Pilot', due: 6 * 24 * HOUR, finish: 8 * 24 * HOUR }]
    expect(said({ pieces: over, risks: risk(1) })).toEqual(['late:a problem 2.0 days late'])
    expect(said({ impossible: ['Wash'], spray: null })).toEqual([
      'impossible problem 1 step without hours',
      'spray problem none suitable for spraying',
    ])
    expect(said({ spray: { from: 24 * HOUR, to: 30 * HOUR } })).toEqual(['spray warning day 1 next time to spray'])
  })
})
