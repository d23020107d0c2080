import { expect, it } from 'vitest'
import { clock, duration } from './duration'

it('says durations as one would, and runs a clock that never jumps in width', () => {
  expect([0, 90, 3540, 3600, 12_000, 86_400, 129_600].map(duration)).toEqual([
    '0 min',
    '2 min',
    '59 min',
    '1 h',
    '3 h 20',
    '1 d',
    '1.5 d',
  ])
  expect([0, 9, 65, 3599, 3600, 36_061].map(clock)).toEqual(['0:00', '0:09', '1:05', '59:59', '1:00:00', '10:01:01'])
})
