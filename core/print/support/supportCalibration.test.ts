import { expect, it } from 'vitest'
import { calibrateSupports, type PrintOutcome } from './supportCalibration'

const now = { peelPressure: 12_000, greenStrength: 4.5e6 }
const print = (utilisation: number, held: boolean, more: Partial<PrintOutcome> = {}): PrintOutcome => ({
  utilisation,
  held,
  ...now,
  ...more,
})

it('knows nothing before the first print, and little after one', () => {
  const none = calibrateSupports([], now)
  expect(none.factor).toBeCloseTo(1, 6)
  expect(none.high / none.low).toBeGreaterThan(3)
  const one = calibrateSupports([print(0.6, false)], now)
  expect(one.factor).toBeGreaterThan(1.3)
  expect(one.high / one.low).toBeGreaterThan(1.7)
})

it('finds the workshop’s own film from thirty prints of which some let go', () => {
  // A film that pulls 1.6 times as hard: tips let go where the calculating said 62 %. The blur is a fixed sequence.
  const truth = 1.6
  const prints = Array.from({ length: 30 }, (_, i) => {
    const u = 0.3 + (0.8 * ((i * 7) % 30)) / 29
    const blur = 0.2 * Math.sin(12.9898 * i)
    return print(u, truth * u * Math.exp(blur) <= 1)
  })
  const c = calibrateSupports(prints, now)
  expect(c.failures).toBeGreaterThan(5)
  expect(c.factor).toBeGreaterThan(truth / 1.15)
  expect(c.factor).toBeLessThan(truth * 1.15)
  expect(c.high / c.low).toBeLessThan(1.4)
})

it('reads old prints by the figures of their own time, and calls safe what always held', () => {
  // The same prints, calculated with half the pressure then: their utilisations were half.
  const then = [0.2, 0.25, 0.35, 0.4].map((u, i) => print(u, i < 2, { peelPressure: 6_000 }))
  const same = [0.4, 0.5, 0.7, 0.8].map((u, i) => print(u, i < 2))
  expect(calibrateSupports(then, now).factor).toBeCloseTo(calibrateSupports(same, now).factor, 6)
  expect(
    calibrateSupports(
      Array.from({ length: 12 }, () => print(1.1, true)),
      now,
    ).factor,
  ).toBeLessThan(0.85)
})
