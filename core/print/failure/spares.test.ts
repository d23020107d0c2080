import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { filamentDefaults, filamentEstimate } from '../slice/filament'
import { chanceOf, likely, sparesFor } from './spares'

describe('spares', () => {
  it('are calculated by the binomial law', () => {
    // At least 4 of 5 at 0.9: 5·0.9⁴·0.1 + 0.9⁵.
    expect(chanceOf(4, 5, 0.9)).toBeCloseTo(5 * 0.9 ** 4 * 0.1 + 0.9 ** 5, 12)
    expect(chanceOf(0, 3, 0.2)).toBeCloseTo(1, 12)
    expect(chanceOf(3, 3, 1)).toBe(1)
    expect(sparesFor(4, 0.9)).toMatchObject({ spares: 1, without: 0.9 ** 4 })
    expect(sparesFor(1, 0.95)).toBeNull()
    expect(likely({ parts: 0, good: 0 })).toBeCloseTo(0.94, 9)
    expect(likely({ parts: 600, good: 300 })).toBeCloseTo(0.504, 2)
  })
  it('reach the wish with as few as can be', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.double({ min: 0.6, max: 0.99, noNaN: true }), (need, p) => {
        const s = sparesFor(need, p)
        if (!s || s.spares === 20) return
        expect(chanceOf(need, need + s.spares, p)).toBeGreaterThanOrEqual(0.9)
        expect(chanceOf(need, need + s.spares - 1, p)).toBeLessThan(0.9)
      }),
    )
  })
})

describe('filament', () => {
  const cube = (a: number): { volume: number; area: number; height: number } => ({
    volume: a ** 3,
    area: 6 * a * a,
    height: a,
  })
  it('is a skin and its infill: near the exact shell of a cube, and all shell where a body is thin', () => {
    const { shells, line, infill } = filamentDefaults
    const t = shells * line
    const inner = (60 - 2 * t) ** 3
    const exact = 60 ** 3 - inner + infill * inner
    expect(filamentEstimate(cube(60)).plastic / exact).toBeCloseTo(1, 1)
    const plate = { volume: 100 * 100 * 1.2, area: 2 * 100 * 100, height: 1.2 }
    expect(filamentEstimate(plate, { ...filamentDefaults, infill: 1 }).plastic).toBeCloseTo(plate.volume, 6)
    expect(filamentEstimate(cube(60)).layers).toBe(300)
  })
  it('never takes more plastic than the body has volume, and more infill never less', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), fc.double({ min: 0, max: 1, noNaN: true }), (a, infill) => {
        const some = filamentEstimate(cube(a), { ...filamentDefaults, infill }),
          none = filamentEstimate(cube(a), { ...filamentDefaults, infill: 0 })
        expect(some.plastic).toBeLessThanOrEqual(a ** 3 + 1e-6)
        expect(some.plastic).toBeGreaterThanOrEqual(none.plastic)
      }),
    )
  })
})
