import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { solved } from './solve'

describe('elimination', () => {
  it('gives what the rows were made from, and counts what they leave undetermined', () => {
    const number = fc.double({ min: -5, max: 5, noNaN: true })
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 7 }), fc.array(number, { minLength: 56, maxLength: 56 }), (n, v) => {
        const x = v.slice(49, 49 + n)
        const rows = Array.from({ length: n }, (_, r) => {
          // Strong diagonal: always one answer; the pivots come in another order.
          const row = Array.from({ length: n }, (_, c) => v[7 * r + c]! + (c === n - 1 - r ? 60 : 0))
          return Float64Array.from([...row, row.reduce((s, a, c) => s + a * x[c]!, 0)])
        })
        const got = solved(rows)
        expect(got.rank).toBe(n)
        got.x.forEach((a, c) => expect(a).toBeCloseTo(x[c]!, 9))
      }),
    )
    const twice = solved([Float64Array.of(1, 2, 3), Float64Array.of(2, 4, 6)])
    expect(twice.rank).toBe(1)
    expect(twice.x[0]! + 2 * twice.x[1]!).toBeCloseTo(3, 12)
  })
})
