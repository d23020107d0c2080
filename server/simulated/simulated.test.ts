import { describe, expect, it } from 'vitest'
import { worldDefaults } from '../../core/print/hanging/hanging'
import { natureOf } from './print'

describe('what a simulated device is, and its luck', () => {
  it('follow from its seed and the count of its prints alone', () => {
    expect(natureOf(7, 3, 2.4, 1000)).toEqual(natureOf(7, 3, 2.4, 1000))
    const [a, b] = [natureOf(7, 3, 2.4, 1000), natureOf(7, 4, 2.4, 1000)]
    // The machine is the same from print to print; another machine is another.
    expect([a.world, a.slow]).toEqual([b.world, b.slow])
    expect(natureOf(8, 3, 2.4, 1000).world).not.toEqual(a.world)
  })
  it('lie about the figures that one calculates with, and fail by chance about as often as they say', () => {
    const natures = Array.from({ length: 4000 }, (_, i) => natureOf(i, 1, 2.4, 500))
    const share = (of: (n: (typeof natures)[number]) => boolean): number => natures.filter(of).length / natures.length
    expect(share((n) => n.power !== null)).toBeGreaterThan(0.02)
    expect(share((n) => n.power !== null)).toBeLessThan(0.04)
    expect(share((n) => n.lamp !== null)).toBeLessThan(0.03)
    for (const n of natures) {
      if (n.power !== null) expect(n.power > 0 && n.power < 500).toBe(true)
      expect(n.slow).toBeGreaterThanOrEqual(1)
    }
    const logs = natures.map((n) => Math.log(n.world.peelPressure / worldDefaults.peelPressure))
    const mean = logs.reduce((s, v) => s + v, 0) / logs.length
    const deviation = Math.sqrt(logs.reduce((s, v) => s + (v - mean) ** 2, 0) / logs.length)
    expect(Math.abs(mean)).toBeLessThan(0.01)
    expect(deviation).toBeCloseTo(0.08, 2)
  })
})
