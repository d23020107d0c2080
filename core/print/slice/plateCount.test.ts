import { expect, it } from 'vitest'
import { plateCount } from './plateCount'

it('counts plates row by row, turns what is wide, and says what fits none', () => {
  expect(plateCount([], [100, 60])).toBe(0)
  expect(plateCount([[100, 60]], [60, 100])).toBe(1)
  expect(
    plateCount(
      Array.from({ length: 6 }, () => [33, 30] as const),
      [100, 60],
    ),
  ).toBe(1)
  expect(
    plateCount(
      Array.from({ length: 7 }, () => [33, 30] as const),
      [100, 60],
    ),
  ).toBe(2)
  expect(plateCount([[20, 90]], [100, 60])).toBe(1)
  expect(plateCount([[70, 70]], [100, 60])).toBeNull()
})
