import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import { fromQuaternion, type Matrix3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { boxBody, chainBody, cylinderBody } from '../testBodies'
import { applyOperation } from './apply'
import { movedAlong, type BodyMove } from './moved'
import type { Operation } from './registry'

const body = chainBody(7, 4)
const middle = measure(body).centre
const other = boxBody(6, 6, 40, middle[0] - 3, middle[1] - 3, middle[2] - 20)
const rod = cylinderBody(6, 40, 48)

const CASES: { of: typeof body; op: Operation; others?: (typeof body)[] }[] = [
  { of: body, op: { kind: 'cut', point: middle, normal: [0, 0.6, 0.8], keep: 'above', line: [] } },
  {
    of: body,
    op: {
      kind: 'join',
      mode: 'subtract',
      others: [{ part: 'x', mesh: '', matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1], shift: [0, 0, 0] }],
      fillet: 1,
      clearance: 0,
      voxel: 0.5,
    },
    others: [other],
  },
  {
    of: rod,
    op: {
      kind: 'fix',
      fixings: [
        {
          shape: 'pin',
          role: 'plug',
          point: [0, 0, 40],
          direction: [0, 0, 1],
          width: 3,
          length: 12,
          draft: 0,
          clearance: 0.1,
        },
      ],
    },
  },
  {
    of: rod,
    op: {
      kind: 'channel',
      path: [
        [0, 0, 0],
        [0, 1, 20],
        [0, 0, 40],
      ],
      diameter: 2.5,
    },
  },
]

describe('an operation on a body that has moved', () => {
  it('does to it what it did before: then moved is moved then', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.nat(CASES.length - 1),
        fc
          .tuple(...[0, 1, 2, 3].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
          .filter((q) => Math.hypot(...q) > 0.3),
        fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -30, max: 30, noNaN: true }))),
        fc.constantFrom(1, 1.4, 0.6),
        fc.boolean(),
        async (which, q, shift, factor, mirror) => {
          const { of, op, others = [] } = CASES[which]!
          // A hole is as wide as the drill whatever the size: only what turns may be compared there.
          const f = op.kind === 'cut' || op.kind === 'join' ? factor : 1
          const l = Math.hypot(...q)
          const r = fromQuaternion(q.map((v) => v / l) as never)
          const move: BodyMove = {
            matrix: r.map((v, i) => v * f * (mirror && i % 3 === 0 ? -1 : 1)) as unknown as Matrix3,
            shift: shift as never,
          }
          const before = await applyOperation(of, op, undefined, others)
          const after = await applyOperation(
            transformed(of, move.matrix, move.shift),
            movedAlong(op as never, move),
            undefined,
            others,
          )
          if (!before.ok || !after.ok) throw new Error('It failed.')
          const a = measure(transformed(before.value.mesh, move.matrix, move.shift)),
            b = measure(after.value.mesh)
          expect(b.volume / a.volume).toBeCloseTo(1, 3)
          b.centre.forEach((v, k) => expect(Math.abs(v - a.centre[k]!)).toBeLessThan(0.05))
        },
      ),
      { numRuns: 30 },
    )
  })
})
