import { describe, expect, it } from 'vitest'
import { concatenate, faceCount, type Mesh } from '../../mesh/mesh'
import { shells } from '../../mesh/topology'
import type { Vector3 } from '../../math/vectors'
import { boxBody, sphereBody } from '../../testBodies'
import { edited, keepOffHands, MEANT, withoutPieces, type SupportEdit } from './supportEdits'
import type { Skin } from './supportNeed'
import type { Planned } from './supportPlan'

const tip = (x: number, more: Partial<Planned> = {}): Planned => ({
  contact: { point: [x, 0, 10], normal: [0, 0, -1], island: false },
  grade: 'strut',
  byHand: false,
  focal: false,
  route: null,
  ...more,
})
/** A flat ceiling at 10 mm, from −50 to 50. */
const skin = {
  nearest: (x: number, y: number, z: number) => ({
    point: [Math.max(-50, Math.min(50, x)), y, 10 + 0 * z] as Vector3,
    normal: [0, 0, -1] as Vector3,
    island: true,
  }),
} as unknown as Skin
/** Edits are kept on the body before it was lifted by 4 mm. */
const up = (p: Vector3): Vector3 => [p[0], p[1], p[2] + 4]
const done = (planned: Planned[], ...edits: SupportEdit[]): number => edited(planned, edits, skin, up, [])
const at = (planned: readonly Planned[]): number[] => planned.map((t) => t.contact.point[0])

describe('what the hand does to supports', () => {
  it('adds one on the skin nearest to where it was pressed, of the grade chosen, and as no island', () => {
    const planned = [tip(0)]
    expect(done(planned, { kind: 'add', point: [7, 0, 6.5], grade: 'post' })).toBe(0)
    expect(planned[1]).toMatchObject({
      contact: { point: [7, 0, 10], island: false },
      grade: 'post',
      byHand: true,
      route: null,
    })
  })
  it('adds none where no skin is within three millimetres, and says that it found none', () => {
    const planned = [tip(0)]
    expect(done(planned, { kind: 'add', point: [54, 0, 6], grade: 'post' })).toBe(1)
    expect(planned).toHaveLength(1)
    expect(done(planned, { kind: 'add', point: [52.9, 0, 6], grade: 'post' })).toBe(0)
  })
  it('removes what stands within reach of a click, and all within a radius where one is given', () => {
    const planned = [tip(0), tip(1), tip(5), tip(9)]
    expect(done(planned, { kind: 'remove', point: [0, 0, 6] })).toBe(0)
    expect(at(planned)).toEqual([5, 9])
    expect(done(planned, { kind: 'remove', point: [5, 0, 6 + MEANT + 0.01] })).toBe(1)
    expect(done(planned, { kind: 'remove', point: [7, 0, 6], radius: 2 })).toBe(0)
    expect(planned).toEqual([])
  })
  it('gives another grade, and what was graded by hand counts as set by hand', () => {
    const planned = [tip(0), tip(8)]
    expect(done(planned, { kind: 'regrade', point: [0.5, 0, 6], grade: 'whisker' })).toBe(0)
    expect(planned[0]).toMatchObject({ grade: 'whisker', byHand: true })
    expect(planned[1]).toMatchObject({ grade: 'strut', byHand: false })
    expect(done(planned, { kind: 'regrade', point: [4, 0, 6], grade: 'whisker' })).toBe(1)
  })
  it('moves the nearest alone, which keeps its grade; where it cannot stand it stays where it was', () => {
    const planned = [tip(0, { grade: 'post' }), tip(1)]
    expect(done(planned, { kind: 'move', point: [0.2, 0, 6], to: [20, 0, 6] })).toBe(0)
    expect(planned.map((t) => [t.contact.point[0], t.grade])).toEqual([
      [1, 'strut'],
      [20, 'post'],
    ])
    expect(done(planned, { kind: 'move', point: [20, 0, 6], to: [90, 0, 6] })).toBe(1)
    expect(at(planned).sort((a, b) => a - b)).toEqual([1, 20])
  })
  it('is done in order: what was added can be removed again', () => {
    const planned: Planned[] = []
    const lost = done(
      planned,
      { kind: 'add', point: [0, 0, 6], grade: 'strut' },
      { kind: 'move', point: [0, 0, 6], to: [10, 0, 6] },
      { kind: 'remove', point: [0, 0, 6] },
      { kind: 'remove', point: [10, 0, 6] },
      { kind: 'drop', point: [0, 0, 0] },
    )
    expect(lost).toBe(1)
    expect(planned).toEqual([])
  })
})

describe('generated tips beside those set by hand', () => {
  it('give way within the spacing, but not those that hold an island', () => {
    const island = tip(2, { contact: { point: [2, 0, 10], normal: [0, 0, -1], island: true } })
    const planned = [tip(0, { byHand: true }), tip(1), island, tip(2.9), tip(3), tip(40, { byHand: true })]
    const spare = keepOffHands(planned, 3)
    expect(at(planned)).toEqual([0, 2, 3, 40])
    // They may be taken after all where the load asks for it.
    expect(spare.map((c) => c.point[0])).toEqual([1, 2.9])
  })
  it('stay where nothing was set by hand', () => {
    const planned = [tip(0), tip(0.1)]
    expect(keepOffHands(planned, 3)).toEqual([])
    expect(planned).toHaveLength(2)
  })
})

describe('loose pieces', () => {
  const turnedIn = (m: Mesh): Mesh => ({ ...m, triangles: m.triangles.slice().reverse() })
  const body = boxBody(20, 20, 20)
  const bead = concatenate([sphereBody(4, 3, [40, 0, 4]), turnedIn(sphereBody(2, 3, [40, 0, 4]))])
  it('are left out with their own cavity, and nothing of the body is', () => {
    const { mesh, lost } = withoutPieces(concatenate([body, bead]), [[36, 0, 4]])
    expect(lost).toBe(0)
    expect(faceCount(mesh)).toBe(faceCount(body))
    expect(shells(mesh).count).toBe(1)
  })
  it('are none where the body itself is pressed, or nothing', () => {
    const whole = concatenate([body, bead])
    for (const places of [
      [[10, 0, 10]],
      [[100, 100, 100]],
      [
        [10, 0, 10],
        [100, 0, 0],
      ],
    ] as Vector3[][]) {
      const r = withoutPieces(whole, places)
      expect(r.lost).toBe(places.length)
      expect(r.mesh).toBe(whole)
    }
    expect(withoutPieces(whole, [])).toEqual({ mesh: whole, lost: 0 })
  })
})
