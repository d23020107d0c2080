import { describe, expect, it } from 'vitest'
import { jointLoad as jointLoadOf } from '../findings/jointLoad'
import { facesAway as facesAwayOf } from '../findings/facesAway'
import { azimuthOf, between } from './facing'
import { outboardOf } from './load'
import { magnetFor } from './magnet'
import { inWords } from '../testSpoken'

const jointLoad = inWords(jointLoadOf)
const facesAway = inWords(facesAwayOf)

const part = (id: string, mass: number, x: number, lowest: number) =>
  ({ id, mass, centre: [x, 0, lowest + 10], lowest }) as const

describe('what hangs on a joint', () => {
  const parts = [part('base', 100, 0, 0), part('body', 50, 0, 20), part('arm', 10, 30, 60), part('lamp', 20, 60, 40)]
  const joints = [
    { a: 'base', b: 'body' },
    { a: 'body', b: 'arm' },
    { a: 'arm', b: 'lamp' },
  ]
  it('is everything beyond it, as one mass at one centre', () => {
    const [base, shoulder, hand] = outboardOf(parts, joints)
    expect(base!.mass).toBe(80)
    expect(shoulder).toMatchObject({ mass: 30, ids: ['arm', 'lamp'] })
    expect(shoulder!.centre[0]).toBeCloseTo((10 * 30 + 20 * 60) / 30, 9)
    expect(hand!.ids).toEqual(['lamp'])
  })
  it('is nothing where the parts are held elsewhere too, or stand by themselves', () => {
    const ring = outboardOf(parts, [...joints, { a: 'lamp', b: 'base' }])
    expect(ring).toEqual([null, null, null, null])
    expect(outboardOf([part('a', 1, 0, 0), part('b', 1, 9, 0)], [{ a: 'a', b: 'b' }])).toEqual([null])
  })
  it('asks for the wire that bears it: 30 g at 50 mm', () => {
    const [f] = jointLoad({
      key: 'k',
      hangs: 'arm',
      holds: 'body',
      mass: 30,
      centre: [50, 0, 0],
      joint: [0, 0, 0],
      area: 80,
    })
    // M = 0.03 · 9.81 · 50 · 5 = 73.6 N·mm; d = ∛(32 · 73.6 / (π · 200)) = 1.55 mm.
    expect(f!.value).toBe('74')
    expect(f!.fixes[0]!.label).toContain('2 mm')
    expect(
      jointLoad({ key: 'k', hangs: 'a', holds: 'b', mass: 1, centre: [5, 0, 0], joint: [0, 0, 0], area: 80 }),
    ).toEqual([])
  })
  it('asks magnets for the moment over half the joint', () => {
    // 30 N·mm over 5 mm, twice: 12 N; half of the pull is lost.
    const m = magnetFor(30, 10)
    expect(m.asked).toBeCloseTo(12, 9)
    expect(m.enough).toBe(false)
    expect(magnetFor(30, 16)).toMatchObject({ diameter: 8, enough: true })
  })
})

describe('where a face looks', () => {
  it('is measured round the upright, to the right of who looks at it', () => {
    expect(azimuthOf([0, -1, 0])).toBeCloseTo(0, 9)
    expect(azimuthOf([1, 0, 0.3])).toBeCloseTo(90, 9)
    expect(azimuthOf([0, 0, 1])).toBeNull()
    expect(between(170, -170)).toBeCloseTo(-20, 9)
  })
  it('is worth a word when it looks past the nameplate, or past the front', () => {
    expect(facesAway(5, [0, 0, 0], 0, 0)).toEqual([])
    expect(facesAway(35, [0, 0, 0], 0, 0)[0]).toMatchObject({ id: 'plate-aside', value: '35°' })
    expect(facesAway(-40, [0, 0, 0], 0, null)[0]).toMatchObject({ id: 'faces-aside', value: '40°' })
  })
})
