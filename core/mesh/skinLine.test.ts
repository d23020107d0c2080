import { describe, expect, it } from 'vitest'
import { concatenate } from './mesh'
import { identity3, type Vector3 } from '../math/vectors'
import { transformed } from './transform'
import { sphereBody } from '../testBodies'
import { skinLine } from './skinLine'

const long = (line: readonly Vector3[], closed: boolean): number =>
  line.reduce((s, p, i) => {
    const q = line[i + 1] ?? (closed ? line[0]! : p)
    return s + Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])
  }, 0)

describe('a line on the skin', () => {
  const ball = sphereBody(20, 5)
  it('is the great circle between two places of a ball', () => {
    const line = skinLine(
      ball,
      [
        [20, 0, 0],
        [0, 12, 16],
      ],
      false,
    )
    expect(long(line, false)).toBeCloseTo(20 * (Math.PI / 2), 1)
    for (const p of line) {
      expect(Math.hypot(...p)).toBeCloseTo(20, 1)
      // In the plane of the two and the middle: normal to (0, −16, 12).
      expect(Math.abs(-16 * p[1] + 12 * p[2]) / 20).toBeLessThan(0.35)
    }
  })
  it('closes round, through the places that were pressed', () => {
    const places = [0, 1, 2, 3].map((i): Vector3 => [
      20 * Math.cos((i * Math.PI) / 2),
      20 * Math.sin((i * Math.PI) / 2),
      0,
    ])
    const line = skinLine(ball, places, true)
    expect(long(line, true)).toBeCloseTo(2 * Math.PI * 20, 0)
    for (const q of places)
      expect(Math.min(...line.map((p) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])))).toBeLessThan(0.2)
  })
  it('goes straight over where no skin joins two places', () => {
    const two = concatenate([ball, transformed(ball, identity3, [100, 0, 0])])
    const line = skinLine(
      two,
      [
        [0, 0, 20],
        [100, 0, 20],
      ],
      false,
    )
    expect(line.length).toBeLessThan(4)
  })
})
