import { describe, expect, it } from 'vitest'
import { bounds, concatenate, faceCount, reversed } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { isClosed } from '../../mesh/topology'
import { orient, orientedDabs } from '../../shape/orient'
import { boxBody, supportWish } from '../../testBodies'
import { rafts } from './raft'
import { support, type SupportOptions, type SupportReport } from './support'
import { say } from '../../words/say'

const options = supportWish
const made = (mesh: Parameters<typeof support>[0], more: Partial<SupportOptions> = {}): SupportReport => {
  const r = support(mesh, { ...options, ...more })
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value.report
}
const apart = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((v, k) => v - b[k]!))

describe('rafts', () => {
  it('carry every foot, one for feet that stand together, and never overlap', () => {
    const grid = (x: number, y: number): Vector3[] =>
      Array.from({ length: 9 }, (_, k) => [x + 5 * (k % 3), y + 5 * Math.floor(k / 3), 0.5])
    const feet = [...grid(0, 0), ...grid(60, 10), [-40, 0, 0.5] as Vector3]
    const plates = rafts(feet, 0.8)
    expect(plates).toHaveLength(3)
    for (const p of plates) expect(isClosed(p)).toBe(true)
    const boxes = plates.map(bounds)
    for (const f of feet)
      expect(boxes.filter((b) => [0, 1].every((k) => f[k]! > b.min[k]! + 1 && f[k]! < b.max[k]! - 1))).toHaveLength(1)
    // A ring of feet round a far one: their hull covers it, so there is one plate, not one inside another.
    const ring = Array.from({ length: 36 }, (_, k): Vector3 => [
      40 * Math.cos(k * 0.1745),
      40 * Math.sin(k * 0.1745),
      0.5,
    ])
    expect(rafts([...ring, [0, 0, 0.5]], 0.8)).toHaveLength(1)
    expect(rafts([[0, 0, 0.5]], 0.8)).toHaveLength(1)
  })
})

describe('where supports stand', () => {
  /** A canopy on a post over a floor that is wider than it: nothing reaches the plate. */
  const shelter = concatenate([
    boxBody(50, 50, 4, -25, -25, 0),
    boxBody(5, 5, 16.5, -2.5, -2.5, 3.8),
    boxBody(24, 24, 3, -12, -12, 20),
  ])
  it('on the floor below, but where a foot must not scar', () => {
    const plain = made(shelter, { lift: 0 })
    expect(plain.tips.length).toBeGreaterThan(20)
    expect(plain.tips.every((t) => t.landsOn === 'body')).toBe(true)
    // A strip of the floor must stay clean: 6 mm wide, under the canopy's right half.
    const strip = Array.from({ length: 24 }, (_, k) => ({ point: [7, -24 + 2 * k, 4] as const, radius: 4 }))
    const kept = made(shelter, { lift: 0, focal: strip })
    expect(kept.tips.length).toBeGreaterThan(0.9 * plain.tips.length)
    expect(kept.focalScar).toBe(0)
  })
  it('keeps generated tips off those set by hand, and the edits made on them afterwards find theirs', () => {
    const table = concatenate([boxBody(40, 40, 3, -20, -20, 20), boxBody(6, 6, 20.5, -3, -3, 0)])
    const plain = made(table)
    // In the middle between two generated tips, where both are too near.
    const [a] = plain.tips.filter((t) => !t.island && Math.abs(t.point[0]) > 8)
    const b = plain.tips
      .filter((t) => t !== a && !t.island)
      .reduce((m, t) => (apart(t.point, a!.point) < apart(m.point, a!.point) ? t : m))
    const back = (p: readonly number[]): Vector3 => [0, 1, 2].map((k) => p[k]! - plain.shift[k]!) as never
    const middle = back([0, 1, 2].map((k) => (a!.point[k]! + b.point[k]!) / 2))
    const far = plain.tips.reduce((m, t) => (apart(t.point, a!.point) > apart(m.point, a!.point) ? t : m))
    const edited = made(table, {
      edits: [
        { kind: 'regrade', point: back(far.point), grade: 'post' },
        { kind: 'add', point: middle, grade: 'strut' },
      ],
    })
    expect(edited.lostEdits).toBe(0)
    const hand = edited.tips.find((t) => t.byHand && t.grade === 'strut')!
    const others = edited.tips.filter((t) => t !== hand && !t.island)
    expect(Math.min(...others.map((t) => apart(t.point, hand.point)))).toBeGreaterThanOrEqual(0.8 * options.spacing)
    expect(edited.tips.some((t) => t.byHand && t.grade === 'post')).toBe(true)
    expect(Math.max(...edited.tips.map((t) => t.utilisation))).toBeLessThanOrEqual(1)
  })
  it('leaves out a loose piece with its own cavity where that is wanted, and never the body itself', () => {
    const body = boxBody(20, 20, 10, -10, -10, 0)
    const loose = concatenate([boxBody(4, 4, 4, 14, -2, 12), reversed(boxBody(2, 2, 2, 15, -1, 13))])
    const both = concatenate([body, loose])
    const islands = (edits: SupportOptions['edits']): SupportReport => made(both, { edits })
    expect(islands([]).tips.some((t) => t.island && t.point[2] > 15)).toBe(true)
    const without = islands([{ kind: 'drop', point: [18, 0, 14] }])
    expect(without.lostEdits).toBe(0)
    expect(without.bodyFaces).toBe(faceCount(body))
    expect(without.tips).toHaveLength(made(body).tips.length)
    // On the body, and where nothing is, the edit is lost, and said to be.
    expect(islands([{ kind: 'drop', point: [0, 0, 10] }])).toMatchObject({ lostEdits: 1, bodyFaces: faceCount(both) })
    expect(islands([{ kind: 'drop', point: [18, 0, 30] }]).lostEdits).toBe(1)
  })
})

it('keeps what was brushed on a body where it was, when that is stood up', () => {
  const body = boxBody(10, 20, 30, 3, 4, 5)
  const quaternion = [0.5, 0.5, -0.5, 0.5] as const
  const { mesh, offset } = orient(body, quaternion)
  const corners = Array.from({ length: body.positions.length / 3 }, (_, v) => ({
    point: [...body.positions.subarray(v * 3, v * 3 + 3)] as [number, number, number],
    radius: 2,
  }))
  orientedDabs(corners, quaternion, offset).forEach((d, v) => {
    expect(apart(d.point, [...mesh.positions.subarray(v * 3, v * 3 + 3)])).toBeLessThan(1e-4)
  })
})
