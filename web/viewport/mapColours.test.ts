import { describe, expect, it } from 'vitest'
import { mapColours, scaleColour, scaleGradient, type Scale } from './mapColours'

const KINDS = ['amount', 'sides', 'lack'] as const
const at = (kind: Scale['kind'], t: number): [number, number, number] => {
  const out = new Float32Array(3)
  scaleColour(kind, t, out, 0)
  return [...out] as [number, number, number]
}
/** OKLab of a linear colour (Ottosson 2020), the other way round than the scale is made. */
function oklab([r, g, b]: readonly [number, number, number]): [number, number, number] {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b),
    m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b),
    s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ]
}
const steps = Array.from({ length: 101 }, (_, i) => i / 100)

describe('a scale of colours', () => {
  it('falls evenly in lightness where it stands for an amount, so that it reads in grey', () => {
    const l = steps.map((t) => oklab(at('amount', t))[0])
    for (let i = 1; i < l.length; i++) expect(l[i]!).toBeLessThan(l[i - 1]! + 1e-6)
    // Between two anchors the steps are alike.
    for (const from of [0, 0.25, 0.5, 0.75]) {
      const quarter = [0.05, 0.1, 0.15, 0.2].map((d) => oklab(at('amount', from + d))[0])
      for (let i = 2; i < 4; i++)
        expect(quarter[i]! - quarter[i - 1]!).toBeCloseTo(quarter[i - 1]! - quarter[i - 2]!, 2)
    }
  })
  it('is palest in the middle where both sides are wrong, rust on the one and blue on the other', () => {
    const [deep, right, wide] = [0, 0.5, 1].map((t) => oklab(at('sides', t)))
    expect(right![0]).toBeGreaterThan(deep![0] + 0.4)
    expect(right![0]).toBeGreaterThan(wide![0] + 0.4)
    expect(Math.hypot(right![1], right![2])).toBeLessThan(0.05)
    expect(deep![1]).toBeGreaterThan(0.05)
    expect(wide![2]).toBeLessThan(-0.05)
  })
  it('is pale from where there is enough, and never out of what a screen shows', () => {
    expect(oklab(at('lack', 1))[0]).toBeGreaterThan(0.9)
    for (const kind of KINDS)
      for (const t of steps)
        for (const v of at(kind, t)) {
          expect(v).toBeGreaterThanOrEqual(0)
          expect(v).toBeLessThanOrEqual(1.001)
        }
  })
  it('stays at its ends beyond them', () => {
    for (const kind of KINDS) {
      expect(at(kind, -3)).toEqual(at(kind, 0))
      expect(at(kind, 9)).toEqual(at(kind, 1))
    }
  })
})

describe('a map on the sculpt', () => {
  it('has each value’s colour by its place between the ends, and bare clay where it says nothing', () => {
    const scale: Scale = { kind: 'amount', from: 2, to: 6 }
    const got = mapColours(Float32Array.from([2, 4, 6, NaN]), scale)
    for (const [v, t] of [0, 0.5, 1].entries()) expect([...got.subarray(3 * v, 3 * v + 3)]).toEqual(at('amount', t))
    const clay = [...got.subarray(9)]
    expect(clay.every((c) => c > 0.3 && c < 0.5)).toBe(true)
    // A scale that runs the other way.
    const back = mapColours(Float32Array.from([2, 6]), { ...scale, from: 6, to: 2 })
    expect([...back.subarray(0, 3)]).toEqual(at('amount', 1))
  })
  it('has a legend from the same colours, from end to end', () => {
    const stops = [...scaleGradient('sides').matchAll(/rgb\((\d+) (\d+) (\d+)\) ([\d.]+)%/g)]
    expect(stops.map((s) => Number(s[4]))).toEqual([0, 12.5, 25, 37.5, 50, 62.5, 75, 87.5, 100])
    const linear = (byte: string): number => {
      const v = Number(byte) / 255
      return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
    }
    for (const [i, s] of stops.entries())
      for (const k of [0, 1, 2]) expect(Math.abs(linear(s[k + 1]!) - at('sides', i / 8)[k]!)).toBeLessThan(0.01)
  })
})
