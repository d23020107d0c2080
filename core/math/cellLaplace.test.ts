import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CellLaplace, held, WALL } from './cellLaplace'
import { solved } from './solve'

/** Cells of a box of bits, side to side; what is left of it is held at 1 (number 0), right of it at 0 (number 1). */
function cells([sx, sy, sz]: readonly [number, number, number], solid: (c: number) => boolean): Int32Array {
  const number = new Int32Array(sx * sy * sz).fill(WALL)
  let n = 0
  for (let c = 0; c < number.length; c++) if (!solid(c)) number[c] = n++
  const near = new Int32Array(n * 6).fill(WALL)
  for (let z = 0, c = 0; z < sz; z++)
    for (let y = 0; y < sy; y++)
      for (let x = 0; x < sx; x++, c++) {
        if (number[c] === WALL) continue
        const at = number[c]! * 6
        near[at] = x > 0 ? number[c - 1]! : held(0)
        near[at + 1] = x + 1 < sx ? number[c + 1]! : held(1)
        if (y > 0) near[at + 2] = number[c - sx]!
        if (y + 1 < sy) near[at + 3] = number[c + sx]!
        if (z > 0) near[at + 4] = number[c - sx * sy]!
        if (z + 1 < sz) near[at + 5] = number[c + sx * sy]!
      }
  return near
}
/** The same by elimination of the whole matrix; null where it is singular. */
function dense(near: Int32Array, source: number): Float64Array | null {
  const n = near.length / 6
  const a = Array.from({ length: n }, () => new Float64Array(n + 1))
  for (let i = 0; i < n; i++)
    for (let k = 0; k < 6; k++) {
      const m = near[i * 6 + k]!
      if (m === WALL) continue
      a[i]![i]!++
      if (m >= 0) a[i]![m]!--
      else if (m === held(source)) a[i]![n]!++
    }
  const { x, rank } = solved(a, 1e-9)
  return rank === n ? x : null
}

describe('a potential over cells', () => {
  it('falls evenly along a straight pipe', () => {
    const p = new CellLaplace(
      cells([20, 3, 2], () => false),
      6,
    ).potential(0)
    p.forEach((v, i) => expect(v).toBeCloseTo(1 - ((i % 20) + 1) / 21, 6))
  })
  it('is what elimination of the whole matrix gives, through any maze that is open somewhere', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 60, maxLength: 60 }), fc.constantFrom(0, 1), (solid, source) => {
        const near = cells([5, 4, 3], (c) => solid[c]!)
        const truth = dense(near, source)
        if (!truth) return
        new CellLaplace(near, 6).potential(source).forEach((v, i) => expect(v).toBeCloseTo(truth[i]!, 6))
      }),
    )
  })
  it('sums to 1 over all that is held, so that the last follows from the others', () => {
    const near = cells([12, 9, 7], (c) => c % 5 === 3)
    const laplace = new CellLaplace(near, 6)
    const [a, b] = [laplace.potential(0), laplace.potential(1)]
    a.forEach((v, i) => expect(v + b[i]!).toBeCloseTo(1, 6))
  })
  it('leaves a room that nothing leads to as even as it was', () => {
    // A cell walled in on all sides, and one beside what is held.
    const near = new Int32Array(12).fill(WALL)
    near[6] = held(0)
    expect([...new CellLaplace(near, 6).potential(0)]).toEqual([0.5, 1])
  })
})
