import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holdsOf, keptInPlace } from './keepInPlace'
import { turnOf } from './angles'
import { slerp, strains, twistAbout, withinLimits } from './limits'
import { matchView, seenFrom } from './matchView'
import { paintOver } from './paintOver'
import { motionsOf, type Joint } from './skeleton'
import { stretchOf } from './stretch'
import { jointAt } from './volume'
import { cylinderBody } from '../testBodies'
import type { Vector3 } from '../math/vectors'

const joint = (name: string, parent: number, position: Vector3, forward = 0, round = 0): Joint => ({
  name,
  parent,
  position,
  turn: turnOf({ forward, sideways: 0, round }),
})
/** A leg, slightly bent at the knee, and what it hangs on. Front is −y. */
const leg = (pelvis = 0, knee = 0, twist = 0): Joint[] => [
  joint('pelvis', -1, [0, 0, 100], pelvis),
  joint('left hip', 0, [9, 0, 95]),
  joint('left knee', 1, [9, -3, 52], knee, twist),
  joint('left ankle', 2, [9, 0, 9]),
  joint('left toes', 3, [9, -14, 3]),
  joint('right hip', 0, [-9, 0, 95]),
]

describe('limits of joints', () => {
  it('are kept by a knee that bends back, and not by one that bends forward or too far or turns about', () => {
    expect(strains(leg())).toEqual([])
    // Hanging down, a turn forward swings a limb to the back.
    expect(strains(leg(0, 70))).toEqual([])
    expect(strains(leg(0, -50)).map((s) => [s.name, s.way])).toEqual([['left knee', 'backward']])
    const far = strains(leg(0, 155)).find((s) => s.way === 'bend')!
    expect(far.name).toBe('left knee')
    expect(far.has).toBeCloseTo(155 + 2 * ((Math.atan(3 / 43) * 180) / Math.PI), 0)
    expect(strains(leg(0, 30, 60)).some((s) => s.way === 'twist')).toBe(true)
    expect(strains(leg().map((j) => ({ ...j, name: `free ${j.name}` })))).toEqual([])
  })
  it('hold back a turn at the limit, no sooner', () => {
    const wish = leg(0, 170)
    const held = withinLimits(wish, 2, leg()[2]!.turn)
    expect(strains(held)).toEqual([])
    expect((twistAbout(held[2]!.turn, [1, 0, 0]) * 180) / Math.PI).toBeGreaterThan(138)
    const fine = leg(0, 60)
    expect(withinLimits(fine, 2, leg()[2]!.turn)).toEqual(fine)
  })
  it('goes half way between two turns by half their angle, the short way', () => {
    const a = turnOf({ forward: 10, sideways: 0, round: 0 }),
      b = turnOf({ forward: 70, sideways: 0, round: 0 }).map((v) => -v) as never
    expect((2 * Math.acos(Math.abs(slerp(a, b, 0.5)[3])) * 180) / Math.PI).toBeCloseTo(40, 6)
  })
})

describe('a foot that is held', () => {
  it('stays where it stood and as it stood, however the rest moves, as long as the leg reaches', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -25, max: 25, noNaN: true }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        (forward, round) => {
          const hold = holdsOf(leg(), [3])
          const moved = leg().map((j, i) => (i === 0 ? { ...j, turn: turnOf({ forward, sideways: 0, round }) } : j))
          const { joints, short } = keptInPlace(moved, hold)
          const motions = motionsOf(joints)
          const ankle = jointAt(joints[3]!, motions[3]!)
          const reach = Math.hypot(3, 43) * 2
          const hip = jointAt(joints[1]!, motions[1]!)
          const way = Math.hypot(...[0, 1, 2].map((k) => hold[0]!.place[k]! - hip[k]!))
          expect(short[0]).toBeCloseTo(Math.max(0, way - reach), 6)
          const off = Math.hypot(...[0, 1, 2].map((k) => ankle[k]! - hold[0]!.place[k]!))
          expect(off).toBeLessThan(short[0]! + 1e-3)
          const q = motions[3]!.turn
          expect(Math.abs(q.reduce((s, v, k) => s + v * hold[0]!.turn[k]!, 0))).toBeCloseTo(1, 6)
        },
      ),
    )
  })
  it('cannot be held with fewer than two joints above it', () => {
    expect(keptInPlace(leg(), holdsOf(leg(), [1])).short).toEqual([Infinity])
  })
})

describe('the view of a picture', () => {
  it('is found again from places that were seen from it, with its scale, roll and shift', () => {
    const points: Vector3[] = [
      [0, -20, 150],
      [30, 5, 120],
      [-28, 0, 118],
      [10, 15, 60],
      [-8, -12, 5],
      [12, -18, 90],
    ]
    fc.assert(
      fc.property(
        fc.double({ min: -2.5, max: 2.5, noNaN: true }),
        fc.double({ min: -0.6, max: 0.9, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (azimuth, elevation, roll) => {
          const middle: Vector3 = [0, 0, 80]
          const pairs = points.map((point) => {
            const [x, y] = seenFrom(point, middle, azimuth, elevation, 500)
            return {
              point,
              picture: [
                3 * (Math.cos(roll) * x - Math.sin(roll) * y) + 400,
                3 * (Math.sin(roll) * x + Math.cos(roll) * y) + 300,
              ] as const,
            }
          })
          const m = matchView(pairs, middle, 500)!
          expect(m.error).toBeLessThan(0.05)
          expect(m.azimuth).toBeCloseTo(azimuth, 2)
          expect(m.elevation).toBeCloseTo(elevation, 2)
          expect(m.roll).toBeCloseTo(roll, 2)
          expect(m.scale).toBeCloseTo(3, 1)
        },
      ),
      { numRuns: 25 },
    )
    expect(matchView([], [0, 0, 0], 500)).toBeNull()
    // From the front what is right is right and what is high is high; from above the front is low.
    expect(seenFrom([5, 0, 0], [0, 0, 0], 0, 0, 1e9)[0]).toBeCloseTo(5, 6)
    expect(seenFrom([0, 0, 5], [0, 0, 0], 0, 0, 1e9)[1]).toBeCloseTo(-5, 6)
    expect(seenFrom([0, -5, 0], [0, 0, 0], 0, 1, 1e9)[1]).toBeGreaterThan(0)
    expect(seenFrom([0, 5, 0], [0, 0, 0], Math.PI / 2, 0, 1e9)[0]).toBeCloseTo(5, 6)
  })
})

describe('weights painted over, and stretch', () => {
  it('go wholly to the joint under the brush and keep their sum', () => {
    const positions = Float32Array.from([0, 0, 0, 5, 0, 0, 30, 0, 0])
    const w = paintOver(positions, Float32Array.from([0.5, 0.5, 0.5, 0.5, 0.5, 0.5]), 2, [
      { joint: 1, point: [0, 0, 0], radius: 8 },
    ])
    expect(w[1]).toBe(1)
    expect(w[3]).toBeGreaterThan(0.5)
    expect(w[2]! + w[3]!).toBeCloseTo(1, 6)
    expect(w[5]).toBe(0.5)
  })
  it('is what a stretched rod was stretched by', () => {
    const rod = cylinderBody(2, 10, 12)
    const longer = { ...rod, positions: rod.positions.map((v) => v * 1.25) }
    for (const s of stretchOf(rod, longer)) expect(s).toBeCloseTo(1.25, 5)
  })
})
