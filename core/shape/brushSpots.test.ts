import { describe, expect, it } from 'vitest'
import { evenNumbers } from '../math/random'
import { BrushField, brushAt, SpacedSpots, type BrushSpot } from './brushSpots'

const to = evenNumbers(4021)
const within = (span: number): [number, number, number] => [
  span * (to() - 0.5),
  span * (to() - 0.5),
  span * (to() - 0.5),
]
const dabs = (n: number, span: number): BrushSpot[] =>
  Array.from({ length: n }, () => ({ point: within(span), radius: 0.3 + 4 * to() }))

describe('a brush', () => {
  it('is as strong by its cells as dab by dab, near, at the edge and far from all', () => {
    for (const n of [1, 7, 300]) {
      const list = dabs(n, 30)
      const field = new BrushField(list)
      let touched = 0
      for (let i = 0; i < 3000; i++) {
        const p = within(50)
        expect(field.at(...p)).toBe(brushAt(list, ...p))
        touched += field.at(...p) > 0 ? 1 : 0
      }
      // On the rim of each dab, where a cell that is one too few would show.
      for (const { point, radius } of list)
        for (const k of [0.999, 1.001]) {
          const p = [point[0] + k * radius, point[1], point[2]] as const
          expect(field.at(...p)).toBe(brushAt(list, ...p))
        }
      expect(touched).toBeGreaterThan(n > 7 ? 300 : 0)
    }
  })
  it('sets dabs so that no two are nearer than the spacing, and none of what was given is farther from one', () => {
    const spots = new SpacedSpots(1.5)
    const given = Array.from({ length: 800 }, () => within(12))
    for (const p of given) spots.add(...p)
    const apart = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((v, k) => v - b[k]!))
    spots.dabs.forEach((a, i) => {
      for (const b of spots.dabs.slice(i + 1)) expect(apart(a.point, b.point)).toBeGreaterThanOrEqual(1.5)
    })
    for (const p of given) {
      expect(Math.min(...spots.dabs.map((d) => apart(d.point, p)))).toBeLessThan(1.5)
      // Which is why a brush of twice the spacing covers them all.
      expect(brushAt(spots.dabs, ...p)).toBe(1)
    }
  })
})
