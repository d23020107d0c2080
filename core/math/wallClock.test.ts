import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { scheduleRisk as scheduleRiskOf } from '../findings/scheduleRisk'
import { dayAt, daysBetween, dueAt } from './wallClock'
import { inWords } from '../testSpoken'

const scheduleRisk = inWords(scheduleRiskOf)

const ZONES = ['Pacific/Kiritimati', 'America/Los_Angeles', 'Europe/Berlin', 'UTC'] as const
const HOUR = 3_600_000

describe('what is due on a day', () => {
  it('is due at the end of that day by the clock of the zone, whatever the zone and the season', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ZONES), fc.integer({ min: 0, max: 20_000 }), (zone, n) => {
        const day = new Date(Date.UTC(2000, 0, 1) + n * 86_400_000).toISOString().slice(0, 10)
        expect(dayAt(zone, dueAt(day, zone))).toBe(day)
        expect(daysBetween(day, dayAt(zone, dueAt(day, zone) + 1000))).toBe(1)
      }),
    )
  })
  it('is due 24 hours earlier in one zone than in another that is a day behind', () => {
    // UTC+14 and UTC−10 in winter.
    expect(dueAt('2026-12-24', 'Pacific/Honolulu') - dueAt('2026-12-24', 'Pacific/Kiritimati')).toBe(24 * HOUR)
  })
  it('is late by the workshop’s clock and not by the reader’s', () => {
    // Half past eleven in the evening of the 24th in Los Angeles, when it is the 25th in Berlin.
    const done = Date.UTC(2026, 11, 25, 7, 30)
    const late = (zone: string): boolean => scheduleRisk([], done, '2026-12-24', zone).some((f) => f.id === 'late')
    expect(late('America/Los_Angeles')).toBe(false)
    expect(late('Europe/Berlin')).toBe(true)
    expect(scheduleRisk([], done, '2026-12-24', 'Europe/Berlin')[0]).toMatchObject({ value: '1', unit: 'day late' })
  })
})
