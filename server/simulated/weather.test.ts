import { describe, expect, it } from 'vitest'
import { COAST, Weather } from './weather'

const DAY = 86_400_000,
  HOUR = 3_600_000
const mean = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0) / v.length

describe('weather that is not there', () => {
  it('is the same whenever it is asked, another by another seed, and never beyond what air can hold', () => {
    const now = Date.UTC(2026, 10, 26)
    const [a, again, b] = [new Weather(4), new Weather(4), new Weather(5)]
    const over = (w: Weather): { temperature: number; humidity: number }[] =>
      Array.from({ length: 300 }, (_, k) => w.at(now + k * 7 * HOUR))
    expect(over(a)).toEqual(over(again))
    expect(over(a)).not.toEqual(over(b))
    for (const { humidity } of [...over(a), ...over(b)]) {
      expect(humidity).toBeGreaterThan(5)
      expect(humidity).toBeLessThanOrEqual(100)
    }
  })
  it('has the climate it was given: its mean over years, warm in July, and cold before dawn', () => {
    const w = new Weather(8)
    const at = (year: number, month: number, hour: number): number[] =>
      Array.from({ length: 28 }, (_, d) => w.at(Date.UTC(year, month, 1 + d, hour)).temperature)
    const years = [2024, 2025, 2026, 2027, 2028, 2029]
    const all = years.flatMap((y) => Array.from({ length: 12 }, (_, m) => [...at(y, m, 4), ...at(y, m, 16)]).flat())
    expect(Math.abs(mean(all) - COAST.mean)).toBeLessThan(0.6)
    const month = (m: number, hour: number): number => mean(years.flatMap((y) => at(y, m, hour)))
    expect(month(6, 12) - month(0, 12)).toBeGreaterThan(1.5 * COAST.year)
    expect(month(6, 16) - month(6, 4)).toBeCloseTo(2 * COAST.day, 0)
  })
  it('is foretold well for tomorrow, and worse for later', () => {
    const w = new Weather(8)
    const off = (ahead: number): number =>
      mean(
        Array.from({ length: 60 }, (_, d) => {
          const hour = w.forecast(Date.UTC(2026, 0, 1) + d * DAY)[ahead]!
          return Math.abs(hour.open.temperature - w.at(hour.at).temperature)
        }),
      )
    expect(off(0)).toBe(0)
    expect(off(6)).toBeLessThan(0.3)
    expect(off(110)).toBeGreaterThan(2 * off(24))
  })
})
