import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, sphereBody } from '../testBodies'
import { ellipse, loft } from '../shape/loft'
import { axisAt } from './roundness'
import { fromQuaternion } from '../math/vectors'
import { transformed } from './transform'
import { say } from '../words/say'

/** A vase: no part of it a cylinder or a cone. */
const vase = loft(
  Array.from({ length: 40 }, (_, i) => ({
    outline: ellipse(9 + 3 * Math.sin(i / 6), 9 + 3 * Math.sin(i / 6), 64),
    height: i,
  })),
)

describe('the axis of round skin', () => {
  // A face of a coarse side lies a little beside its normal's true place: that much the axis may be off.
  it('is that of a vase, a cone and a cylinder, wherever they stand and lean', () => {
    const bodies = [
      vase,
      ...[5, 9].map((top) =>
        loft(
          [0, 10, 20, 30].map((h) => ({
            outline: ellipse(9 + ((top - 9) * h) / 30, 9 + ((top - 9) * h) / 30, 64),
            height: h,
          })),
        ),
      ),
    ]
    fc.assert(
      fc.property(
        fc.nat(bodies.length - 1),
        fc
          .tuple(...[0, 1, 2, 3].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
          .filter((q) => Math.hypot(...q) > 0.3),
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -80, max: 80, noNaN: true }))),
        (which, q, shift) => {
          const body = bodies[which]!
          const l = Math.hypot(...q)
          const r = fromQuaternion(q.map((v) => v / l) as never)
          const moved = transformed(body, r, shift as never)
          // A corner half way up the side.
          const v = Math.floor(moved.positions.length / 6) * 3
          const got = axisAt(moved, [moved.positions[v]!, moved.positions[v + 1]!, moved.positions[v + 2]!])
          if (!got.ok) throw new Error(say(got.problem.message))
          const along = [r[2], r[5], r[8]]
          const cosine = along.reduce((s, c, k) => s + c * got.value.direction[k]!, 0)
          expect(Math.abs(cosine)).toBeGreaterThan(Math.cos((2.5 * Math.PI) / 180))
          const off = got.value.point.map((c, k) => c - shift[k]!)
          const beside = off.map((c, k) => c - along[k]! * off.reduce((s, x, i) => s + x * along[i]!, 0))
          expect(Math.hypot(...beside)).toBeLessThan(0.3)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('is none on a flat, nor on a ball', () => {
    for (const [mesh, place] of [
      [boxBody(10, 10, 10), [5, 0, 5]],
      [sphereBody(10, 4), [0, 0, 10]],
    ] as const) {
      const r = axisAt(mesh, place)
      expect(!r.ok && r.problem.code).toBe('no-axis')
    }
  })
})
