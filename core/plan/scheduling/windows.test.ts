import { describe, expect, it } from 'vitest'
import { windowsOf } from './windows'

/** Monday 23 November 2026, in a zone without clock changes. */
const MONDAY = Date.UTC(2026, 10, 23)
const H = 3_600_000,
  DAY = 24 * H
const spans = (
  hours: { weekday: number; from: number; to: number }[],
  start = MONDAY,
  days = 7,
  off: string[] = [],
): [number, number][] => {
  const { from, to } = windowsOf({ name: '', hours, off }, start, 'UTC', days)
  return [...from].map((f, i) => [(f - MONDAY) / H, (to[i]! - MONDAY) / H])
}
const on = (weekday: number, from: number, to: number) => ({ weekday, from: 60 * from, to: 60 * to })

describe('when somebody works', () => {
  it('is on the days of the week that are named, and on no others', () => {
    expect(spans([on(1, 9, 12), on(3, 18, 20)])).toEqual([
      [9, 12],
      [48 + 18, 48 + 20],
    ])
    expect(spans([on(1, 9, 12)], MONDAY, 15)).toEqual([0, 7, 14].map((d) => [24 * d + 9, 24 * d + 12]))
    expect(spans([on(2, 9, 12)], MONDAY, 1)).toEqual([])
  })
  it('begins now where the hours have begun, and is over where they are', () => {
    expect(spans([on(1, 9, 12)], MONDAY + 10.5 * H, 1)).toEqual([[10.5, 12]])
    expect(spans([on(1, 9, 12)], MONDAY + 12 * H, 1)).toEqual([])
    expect(spans([on(1, 9, 12)], MONDAY + 13 * H, 1)).toEqual([])
  })
  it('is one window where hours overlap or meet, in whatever order they are written', () => {
    expect(spans([on(1, 14, 16), on(1, 9, 12), on(1, 11, 13)], MONDAY, 1)).toEqual([
      [9, 13],
      [14, 16],
    ])
    expect(spans([on(1, 12, 14), on(1, 9, 12)], MONDAY, 1)).toEqual([[9, 14]])
    // What is within longer hours ends nothing sooner.
    expect(spans([on(1, 9, 17), on(1, 10, 11)], MONDAY, 1)).toEqual([[9, 17]])
    // To midnight and on from there.
    expect(spans([on(1, 20, 24), on(2, 0, 2)], MONDAY, 2)).toEqual([[20, 26]])
  })
  it('has none of hours that end before they begin, or are none', () => {
    expect(spans([on(1, 12, 9), on(1, 10, 10)], MONDAY, 7)).toEqual([])
  })
  it('is not on days off', () => {
    expect(spans([on(1, 9, 12), on(2, 9, 12)], MONDAY, 2, ['2026-11-23'])).toEqual([[33, 36]])
  })
  it('reads the clock on the wall: a missing hour makes a window shorter and moves nothing else', () => {
    // In Berlin two o'clock of 29 March 2026 is three.
    const night = Date.UTC(2026, 2, 28, 23)
    const sunday = { weekday: 0, from: 60, to: 240 }
    const { from, to } = windowsOf({ name: '', hours: [sunday], off: [] }, night, 'Europe/Berlin', 8)
    expect((to[0]! - from[0]!) / H).toBe(2)
    expect((to[1]! - from[1]!) / H).toBe(3)
    expect(from[1]! - from[0]!).toBe(7 * DAY - H)
  })
})
