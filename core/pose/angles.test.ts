import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mirroredPose, otherSide } from './mirror'
import { anglesOf, turnOf } from './angles'

const degrees = (most: number): fc.Arbitrary<number> => fc.double({ min: -most, max: most, noNaN: true })

describe('angles of a joint', () => {
  it('come back from the turn they make', () => {
    fc.assert(
      fc.property(degrees(179), degrees(89), degrees(179), (forward, sideways, round) => {
        const back = anglesOf(turnOf({ forward, sideways, round }))
        expect(back.forward).toBeCloseTo(forward, 3)
        expect(back.sideways).toBeCloseTo(sideways, 3)
        expect(back.round).toBeCloseTo(round, 3)
      }),
    )
  })
  it('keep forward and change sides in a mirror, and twice is nothing', () => {
    const joint = (name: string, forward: number, sideways: number) => ({
      name,
      parent: -1,
      position: [0, 0, 0] as [number, number, number],
      turn: turnOf({ forward, sideways, round: 10 }),
    })
    const joints = [joint('left elbow', 40, 20), joint('right elbow', 5, 0), joint('neck', 3, 8)]
    const mirrored = mirroredPose(joints)
    const right = anglesOf(mirrored[1]!.turn)
    expect(right.forward).toBeCloseTo(40, 4)
    expect(right.sideways).toBeCloseTo(-20, 4)
    expect(right.round).toBeCloseTo(-10, 4)
    expect(anglesOf(mirrored[2]!.turn).sideways).toBeCloseTo(-8, 4)
    mirroredPose(mirrored).forEach((j, i) => j.turn.forEach((v, k) => expect(v).toBeCloseTo(joints[i]!.turn[k]!, 9)))
    expect(otherSide('Left shoulder')).toBe('Right shoulder')
  })
})
