import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sphereBody } from '../../testBodies'
import { grown, mirrored, split } from './regionTools'
import { regionAreas } from './regions'

const R = 20
const ball = sphereBody(R, 5)
const n = ball.positions.length / 3
const labelled = (of: (x: number, y: number, z: number) => number): Uint8Array =>
  Uint8Array.from({ length: n }, (_, v) =>
    of(ball.positions[3 * v]!, ball.positions[3 * v + 1]!, ball.positions[3 * v + 2]!),
  )
const cap = (height: number): Uint8Array => labelled((_x, _y, z) => (z > height ? 1 : 0))

describe('region tools', () => {
  it('grows a cap along the skin by what was asked, and shrinks it back to nearly where it was', () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 12, noNaN: true }), (by) => {
        const before = cap(R * Math.cos(0.6))
        const after = grown(ball, before, 1, by)
        // The area of a cap of half angle a is 2πR²(1 − cos a).
        const truth = 2 * Math.PI * R * R * (1 - Math.cos(0.6 + by / R))
        expect(Math.abs(regionAreas(ball, after)[1]! / truth - 1)).toBeLessThan(0.12)
        const back = regionAreas(ball, grown(ball, after, 1, -by))[1]!
        expect(Math.abs(back / regionAreas(ball, before)[1]! - 1)).toBeLessThan(0.3)
        for (let v = 0; v < n; v++) if (before[v] === 1) expect(after[v]).toBe(1)
      }),
      { numRuns: 12 },
    )
    expect(grown(ball, cap(10), 1, 0)).toEqual(cap(10))
    // A region of no faces neither grows nor takes anything.
    expect(grown(ball, cap(10), 7, 5)).toEqual(cap(10))
  })
  it('gives what a shrinking region leaves to whom it bordered on', () => {
    const three = labelled((x, _y, z) => (z > 8 ? 1 : x > 0 ? 2 : 3))
    const after = grown(ball, three, 1, -4)
    for (let v = 0; v < n; v++)
      if (three[v] === 1 && after[v] !== 1 && Math.abs(ball.positions[3 * v]!) > 6)
        expect(after[v]).toBe(ball.positions[3 * v]! > 0 ? 2 : 3)
  })
  it('splits by a plane, and mirrors across one', () => {
    const { labels, changed } = split(ball, cap(0), 1, { point: [0, 0, 10], normal: [0, 0, 1] }, 5)
    expect(changed).toBeGreaterThan(0)
    expect(Math.abs(regionAreas(ball, labels)[5]! / (2 * Math.PI * R * 10) - 1)).toBeLessThan(0.05)
    const side = labelled((x, y) => (x > 12 && y > -4 ? 2 : 0))
    const both = mirrored(ball, side, 2, { point: [0, 0, 0], normal: [1, 0, 0] })
    expect(both.lost).toBe(0)
    expect(Math.abs(both.changed / side.filter((l) => l === 2).length - 1)).toBeLessThan(0.05)
    for (let v = 0; v < n; v++) if (side[v] === 2) expect(both.labels[v]).toBe(2)
    // Nothing is opposite of a plane that cuts the ball at its rim: it is told, and nothing changes.
    const rim = mirrored(ball, side, 2, { point: [11, 0, 0], normal: [1, 0, 0] })
    expect(rim.lost).toBeGreaterThan(0)
  })
})
