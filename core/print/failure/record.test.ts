import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fitMotion, successRates, wilson, type TimedPrint } from './record'

describe('what prints teach', () => {
  it('bounds a share by the published interval, and never beyond nothing and all', () => {
    // Wilson 95 % for 8 of 10, as tabulated: 0.490 to 0.943.
    const [low, high] = wilson(8, 10, 1.96)
    expect(low).toBeCloseTo(0.49, 3)
    expect(high).toBeCloseTo(0.943, 3)
    fc.assert(
      fc.property(fc.nat(300), fc.nat(300), (good, bad) => {
        const [l, h] = wilson(good, good + bad)
        const p = good + bad === 0 ? 0.5 : good / (good + bad)
        expect(l).toBeGreaterThanOrEqual(0)
        expect(h).toBeLessThanOrEqual(1)
        expect(l).toBeLessThanOrEqual(p + 1e-9)
        expect(h).toBeGreaterThanOrEqual(p - 1e-9)
      }),
    )
  })
  it('counts parts by printer, resin, tilt and tip, each once', () => {
    const part = { printer: 'P', resin: 'R', tilt: 20, finest: 'whisker' }
    const rates = successRates([
      { ...part, good: true },
      { ...part, good: false, tilt: 80 },
      { ...part, good: true, finest: null, tilt: null },
    ])
    const of = (by: string, what: string) => rates.find((r) => r.by === by && r.what === what)
    expect(of('printer', 'P')).toMatchObject({ parts: 3, good: 2 })
    expect(of('tips', 'whisker')).toMatchObject({ parts: 2, good: 1 })
    expect(of('tilt', 'tilted 10 to 30°')).toMatchObject({ parts: 1, good: 1 })
    expect(rates.filter((r) => r.by === 'tilt')).toHaveLength(2)
  })
  it('finds the motion that printers really have, short prints and long', () => {
    const motion = 7.4
    const print = (layers: number, exposure: number, off: number): TimedPrint => {
      const lit = 5 * 26 + (layers - 5) * exposure
      return {
        layers,
        bottomLayers: 5,
        exposure,
        bottomExposure: 26,
        estimate: lit + layers * 7,
        took: lit + layers * (motion + off),
      }
    }
    const exact = fitMotion([print(400, 2.4, 0), print(3200, 3, 0)])!
    expect(exact.motion).toBeCloseTo(motion, 9)
    expect(exact.after).toBeLessThan(1e-9)
    expect(exact.before).toBeGreaterThan(0.03)
    const noisy = fitMotion([print(400, 2.4, 0.2), print(3200, 3, -0.1), print(1500, 2, -0.1)])!
    expect(Math.abs(noisy.motion - motion)).toBeLessThan(0.1)
    expect(noisy.after).toBeLessThan(noisy.before)
    expect(fitMotion([])).toBeNull()
  })
})
