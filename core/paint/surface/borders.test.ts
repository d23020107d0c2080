import { describe, expect, it } from 'vitest'
import { sphereBody } from '../../testBodies'
import { regionBorders } from './borders'

describe('edges that regions share', () => {
  const ball = sphereBody(20, 5)
  const labelled = (of: (x: number, y: number, z: number) => number): Uint8Array =>
    Uint8Array.from({ length: ball.positions.length / 3 }, (_, v) =>
      of(ball.positions[3 * v]!, ball.positions[3 * v + 1]!, ball.positions[3 * v + 2]!),
    )
  it('measures a tilted equator and a small circle within two hundredths', () => {
    const tilted = regionBorders(
      ball,
      labelled((x, y, z) => (z + 0.37 * x - 0.21 * y > 0 ? 3 : 7)),
    )
    expect(tilted).toHaveLength(1)
    expect(tilted[0]).toMatchObject({ a: 3, b: 7 })
    expect(Math.abs(tilted[0]!.mm / (2 * Math.PI * 20) - 1)).toBeLessThan(0.02)
    const [cap] = regionBorders(
      ball,
      labelled((_x, _y, z) => (z > 12 ? 1 : 0)),
    )
    expect(Math.abs(cap!.mm / (2 * Math.PI * 16) - 1)).toBeLessThan(0.02)
  })
  it('gives each pair once where three meet, and nothing for one region', () => {
    const three = regionBorders(
      ball,
      labelled((x, y, z) => (z > 0 ? 0 : x + 0.3 * y > 0 ? 1 : 2)),
    )
    expect(three.map((b) => [b.a, b.b])).toEqual(
      expect.arrayContaining([
        [0, 1],
        [0, 2],
        [1, 2],
      ]),
    )
    expect(three).toHaveLength(3)
    const all = three.reduce((s, b) => s + b.mm, 0)
    // The equator, and half a great circle below it.
    expect(Math.abs(all / (3 * Math.PI * 20) - 1)).toBeLessThan(0.03)
    expect(
      regionBorders(
        ball,
        labelled(() => 4),
      ),
    ).toEqual([])
  })
})
