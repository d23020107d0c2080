import fc from 'fast-check'
import { expect, it } from 'vitest'
import { placedBody } from './plateBody'
import { partAt } from './partAt'

it('finds the part under a place wherever it was put, and the place on the part itself', () => {
  const square: [number, number][] = [
    [-5, -3],
    [5, -3],
    [5, 3],
    [-5, 3],
  ]
  const number = fc.double({ min: -80, max: 80, noNaN: true })
  fc.assert(
    fc.property(number, number, fc.double({ min: -7, max: 7, noNaN: true }), (x, y, angle) => {
      const part = { id: 'a', copy: 0, x, y, angle },
        away = { id: 'b', copy: 0, x: x + 30, y, angle: 0 }
      const shapes = ['a', 'b'].map((id) => ({ id, loops: [square] }))
      // A corner pulled in a little, and one pushed out, as the plate's body has them.
      const body = placedBody(
        { positions: Float32Array.of(4.9, -2.9, 7, 5.1, 3, 7, 0, 0, 0), triangles: Uint32Array.of(0, 1, 2) },
        part,
      )
      const at = (i: number): [number, number, number] => [...body.positions.slice(3 * i, 3 * i + 3)] as never
      const found = partAt([away, part], shapes, at(0))!
      expect(found.id).toBe('a')
      expect(found.place[0]).toBeCloseTo(4.9, 3)
      expect(found.place[1]).toBeCloseTo(-2.9, 3)
      expect(found.place[2]).toBe(7)
      expect(partAt([part], shapes, at(1))).toBeNull()
    }),
  )
})
