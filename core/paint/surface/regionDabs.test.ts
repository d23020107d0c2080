import { expect, it } from 'vitest'
import { brushAt } from '../../shape/brushSpots'
import { sphereBody } from '../../testBodies'
import { regionDabs } from './regionDabs'

it('covers a region at full strength, keeps its dabs apart, and stays within the number allowed', () => {
  const ball = sphereBody(20, 5)
  const p = ball.positions
  // The front of a ball, labelled 3.
  const labels = Uint8Array.from({ length: p.length / 3 }, (_, v) => (p[v * 3 + 1]! < -8 ? 3 : 0))
  for (const most of [500, 30]) {
    const dabs = regionDabs(ball, labels, new Set([3]), 2, most)
    expect(dabs.length).toBeLessThanOrEqual(most)
    const spacing = dabs[0]!.radius / 2
    for (let v = 0; v < labels.length; v++)
      if (labels[v] === 3) expect(brushAt(dabs, p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)).toBe(1)
      // The brush ends a little beyond the region: the far side is left alone.
      else if (p[v * 3 + 1]! > -8 + 2 * spacing) expect(brushAt(dabs, p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)).toBe(0)
    for (const [i, a] of dabs.entries())
      for (const b of dabs.slice(i + 1))
        expect(Math.hypot(...a.point.map((c, k) => c - b.point[k]!))).toBeGreaterThanOrEqual(spacing)
  }
  expect(regionDabs(ball, labels, new Set([9]), 2)).toEqual([])
})
