import fc from 'fast-check'
import { expect, it } from 'vitest'
import { arithmetic } from './arithmetic'

it('works out typed sums as one would on paper', () => {
  expect(arithmetic('180/6')).toBe(30)
  expect(arithmetic('2*(3+1,5) - -1')).toBe(10)
  expect(arithmetic('10-3-2')).toBe(5)
  for (const bad of ['', '12 mm', '2*', '(1', '1/0', 'abc', '1..2']) expect(arithmetic(bad)).toBeNull()
  fc.assert(
    fc.property(fc.integer(), fc.integer(), fc.integer({ min: 1, max: 999 }), (a, b, c) => {
      expect(arithmetic(`${a}+${b}*2/${c}`)).toBeCloseTo(a + (b * 2) / c, 6)
    }),
  )
})
