import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { ellipse, loft } from '../shape/loft'
import { boxBody, chainBody } from '../testBodies'
import { pose, type PoseOptions } from './pose'
import { bonesOf, motionsOf, type Joint, type Quaternion } from './skeleton'
import { boneWeights } from './weights'
import { say } from '../words/say'

/** A round limb along x, 100 mm long, with skin fine enough to bend. */
function limb(rings = 100, sides = 40, radius = 10): Mesh {
  return loft(
    Array.from({ length: rings + 1 }, (_, i) => ({
      outline: ellipse(radius, radius, sides),
      height: (100 * i) / rings,
    })),
    (x, y, z) => [z, x, y],
  )
}
const about = (axis: 'y' | 'x', degrees: number): Quaternion => {
  const h = (degrees * Math.PI) / 360
  return axis === 'y' ? [0, Math.sin(h), 0, Math.cos(h)] : [Math.sin(h), 0, 0, Math.cos(h)]
}
const elbow = (turn: Quaternion): Joint[] => [
  { name: 'shoulder', parent: -1, position: [2, 0, 0], turn: [0, 0, 0, 1] },
  { name: 'elbow', parent: 0, position: [50, 0, 0], turn },
  { name: 'wrist', parent: 1, position: [98, 0, 0], turn: [0, 0, 0, 1] },
]
const posed = async (mesh: Mesh, o: Partial<PoseOptions> & { joints: Joint[] }) => {
  const r = await pose(mesh, { rigid: null, settle: true, ...o })
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}

describe('bone weights', () => {
  it('sum to one, belong to their bone far from the joint, and meet at half in its middle', () => {
    const mesh = limb()
    const w = boneWeights(mesh, bonesOf(elbow([0, 0, 0, 1])), 3)
    for (let v = 0; v < mesh.positions.length / 3; v++) {
      const x = mesh.positions[v * 3]!
      expect(w[v * 3]! + w[v * 3 + 1]! + w[v * 3 + 2]!).toBeCloseTo(1, 5)
      if (x < 20) expect(w[v * 3]).toBeGreaterThan(0.97)
      if (x > 80) expect(w[v * 3 + 1]).toBeGreaterThan(0.97)
      if (Math.abs(x - 50) < 0.01) expect(w[v * 3]).toBeCloseTo(0.5, 1)
    }
  })
})

describe('posing', () => {
  it('bends an elbow to a right angle with less than 5 % of its volume lost and no face turned over', async () => {
    const mesh = limb()
    const { mesh: bent, report } = await posed(mesh, { joints: elbow(about('y', 90)) })
    expect(report.flipped).toBe(0)
    expect(Math.abs(report.volumeChange)).toBeLessThan(0.05)
    expect(measure(bent).volume / measure(mesh).volume).toBeGreaterThan(0.95)
    expect(report.joints).toHaveLength(1)
    expect(report.joints[0]).toMatchObject({ name: 'elbow', flipped: 0 })
    expect(report.joints[0]!.turned).toBeCloseTo(90, 4)
    // The hand is where the elbow's turn takes it: 48 mm from the elbow, now along −z.
    const { box } = measure(bent)
    expect(box.min[2]).toBeCloseTo(-50, 0)
    expect(box.max[0]).toBeLessThan(62)
  })
  it('twists without the waist that blended matrices make', async () => {
    const mesh = limb()
    const { mesh: twisted, report } = await posed(mesh, { joints: elbow(about('x', 120)) })
    expect(report.flipped).toBe(0)
    expect(Math.abs(report.volumeChange)).toBeLessThan(0.03)
    let least = Infinity
    for (let i = 0; i < twisted.positions.length; i += 3)
      if (Math.abs(twisted.positions[i]! - 50) < 20 && mesh.positions[i + 1]! ** 2 + mesh.positions[i + 2]! ** 2 > 90)
        least = Math.min(least, Math.hypot(twisted.positions[i + 1]!, twisted.positions[i + 2]!))
    expect(least).toBeGreaterThan(8.5)
  })
  it('is nothing when no joint is turned, and rigid where a part follows one joint alone', async () => {
    const mesh = limb(40, 20)
    const still = await posed(mesh, { joints: elbow([0, 0, 0, 1]) })
    still.mesh.positions.forEach((v, i) => expect(v).toBeCloseTo(mesh.positions[i]!, 3))
    const plate = boxBody(10, 10, 2, 70, -5, 10)
    const { mesh: moved } = await posed(plate, { joints: elbow(about('y', 90)), rigid: 1 })
    expect(measure(moved).volume).toBeCloseTo(200, 3)
    // Over the forearm, 10 mm off its axis: now the forearm hangs, and the plate is 10 mm beside it.
    expect(measure(moved).box.min[0]).toBeCloseTo(60, 3)
  })
  it('carries what hangs on a joint along a chain', () => {
    const joints = elbow(about('y', 90)).map((j, i) => (i === 0 ? { ...j, turn: about('y', 90) } : j))
    const [, , wrist] = motionsOf(joints)
    // Shoulder down, elbow back: the wrist ends 48 below and 48 behind the shoulder's end.
    const [x, , z] = [0, 1, 2].map((k) => wrist!.shift[k]!)
    expect(Number.isFinite(x! + z!)).toBe(true)
    const h = wrist!.turn
    expect(Math.abs(h[1])).toBeCloseTo(1, 6)
  })
  it('takes a fine skin along with its detail', async () => {
    const body = chainBody(3)
    const box = measure(body).box
    const middle = [0, 1, 2].map((k) => (box.min[k]! + box.max[k]!) / 2) as [number, number, number]
    const joints: Joint[] = [
      {
        name: 'foot',
        parent: -1,
        position: [body.positions[0]!, body.positions[1]!, body.positions[2]! + 0.5],
        turn: [0, 0, 0, 1],
      },
      { name: 'middle', parent: 0, position: middle, turn: about('y', 25) },
      { name: 'end', parent: 1, position: [middle[0], middle[1], box.max[2]], turn: [0, 0, 0, 1] },
    ]
    const r = await pose(body, { joints, rigid: null, settle: true })
    if (r.ok) {
      expect(Math.abs(r.value.report.volumeChange)).toBeLessThan(0.05)
      expect(r.value.mesh.triangles).toBe(body.triangles)
    } else expect(r.problem.code).toBe('skeleton-outside')
  })
  it('answers for joints outside the sculpt, too few of them, and in the wrong order', async () => {
    const mesh = limb(20, 12)
    const code = async (joints: Joint[], rigid: number | null = null): Promise<string> => {
      const r = await pose(mesh, { joints, rigid, settle: true })
      return r.ok ? 'good' : r.problem.code
    }
    const far = elbow(about('y', 20)).map((j) => ({ ...j, position: [500, 500, 500] as never }))
    expect(await code(far)).toBe('skeleton-outside')
    expect(await code(elbow(about('y', 20)).slice(0, 1))).toBe('few-joints')
    expect(await code(elbow(about('y', 20)).reverse())).toBe('joint-order')
    expect(await code(elbow(about('y', 20)), 9)).toBe('joint-missing')
  })
})
