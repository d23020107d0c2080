import { describe, expect, it } from 'vitest'
import { boxBody, cylinderBody, sphereBody } from '../testBodies'
import { measure } from '../mesh/measure'
import { concatenate, keepFaces, reversed } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { treeOf } from '../mesh/tree'
import { thinness } from '../fit/thinness'
import { drainSites } from './drainSites'
import { drill, probe } from './drill'
import { hollow } from './hollow'
import { applyOperation } from '../operations/apply'
import { acceptedAsSolid, subtract, unite } from './solid'
import { say } from '../words/say'

const options = { wall: 2, voxel: 0.5, opening: 1, leastPocket: 50 }
const hollowed = async (mesh: Parameters<typeof hollow>[0]) => {
  const r = await hollow(mesh, options)
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}

describe('hollowing', () => {
  it('leaves the shell that a sphere and a box must have, and a valid solid', async () => {
    const s = await hollowed(sphereBody(15, 5))
    expect(s.report.cavityVolume / ((4 / 3) * Math.PI * 13 ** 3)).toBeCloseTo(1, 1.7)
    expect(s.report.wall.minimum).toBeGreaterThan(1.9)
    expect(s.report.wall.mean).toBeCloseTo(2, 1)
    expect(await acceptedAsSolid(s.mesh)).toBe(true)
    const b = await hollowed(boxBody(30, 25, 20))
    // Opening by a ball of 1 mm rounds the cavity's edges and corners (Steiner's formula for the rounded box).
    const [x, y, z] = [24, 19, 14]
    expect(
      b.report.cavityVolume / (x * y * z + 2 * (x * y + y * z + z * x) + Math.PI * (x + y + z) + (4 / 3) * Math.PI),
    ).toBeCloseTo(1, 1.7)
    expect(b.report.wall.minimum).toBeGreaterThan(1.9)
    expect(b.report.volumeBefore - b.report.volumeAfter).toBeCloseTo(b.report.cavityVolume, 0)
  })
  it('gives one cavity for each thick part and closes the slit between them', async () => {
    const neck = transformed(cylinderBody(2.6, 30), [0, 0, 1, 0, 1, 0, -1, 0, 0], [-15, 0, 0])
    const bone = await unite([sphereBody(9, 4, [-15, 0, 0]), sphereBody(9, 4, [15, 0, 0]), neck])
    if (!bone.ok) throw new Error(say(bone.problem.message))
    expect((await hollowed(bone.value)).report.cavities).toBe(2)
  })
  it('answers that a thin body has no inside, and which wall was asked', async () => {
    const r = await hollow(boxBody(40, 40, 4), options)
    expect(r.ok || r.problem.code).toBe('no-inside')
    expect(r.ok || say(r.problem.message)).toContain('print it solid')
    // A wall of more than half a ball: the one that would do is named, and does.
    const thick = await hollow(sphereBody(8, 4), { ...options, wall: 7.5 })
    const said = Number(/A wall of ([\d.]+) mm would leave one/.exec(thick.ok ? '' : say(thick.problem.message))?.[1])
    expect(said).toBeGreaterThan(5)
    expect((await hollow(sphereBody(8, 4), { ...options, wall: said, leastPocket: 1 })).ok).toBe(true)
    expect((await hollow(sphereBody(400, 2), { ...options, voxel: 0.05 })).ok).toBe(false)
  })
})

describe('drilling', () => {
  const shell = concatenate([boxBody(30, 30, 30), reversed(boxBody(26, 26, 26, 2, 2, 2))])
  const at = (x: number, y: number, d = 4) => ({
    point: [x, y, 0] as const,
    direction: [0, 0, 1] as const,
    diameter: d,
  })
  it('takes out a cylinder through the wall and stays a valid solid', async () => {
    const r = await drill(shell, [at(15, 15), at(8, 20, 3)])
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(r.value.report.volumeRemoved).toBeCloseTo(2 * Math.PI * (4 + 2.25), 0)
    expect(r.value.report.holes.map((h) => h.depth)).toEqual([2.1, 2.1])
    expect(await acceptedAsSolid(r.value.mesh)).toBe(true)
  })
  it.each([
    ['over an edge', at(0.5, 15), 'hole-at-edge'],
    ['in the air', at(60, 15), 'hole-misses'],
    [
      'beside the cavity',
      { point: [1, 15, 0] as const, direction: [0, 0, 1] as const, diameter: 1 },
      'hole-misses-cavity',
    ],
    [
      'into a shallow cavity',
      { point: [15, 15, 0] as const, direction: [0, 0, 1] as const, diameter: 26.2 },
      'hole-grazes',
    ],
  ])('refuses a hole %s and cuts nothing', async (_, hole, code) => {
    const r = await drill(shell, [at(15, 15), hole])
    expect(r.ok || r.problem.code).toBe(code)
  })
  it('refuses where the far wall is nearer than the diameter', () => {
    const flat = concatenate([boxBody(40, 40, 7), reversed(boxBody(36, 36, 3, 2, 2, 2))])
    const r = probe(treeOf(flat), at(20, 20, 5))
    expect(r.ok || r.problem.code).toBe('hole-grazes')
  })
  it('proposes two hidden holes apart, the first at the bottom', () => {
    const [a, b] = drainSites(shell, { diameter: 4, down: [0, 0, -1] })
    expect(a!.point[2]).toBeCloseTo(0, 5)
    expect(a!.hidden).toBe(1)
    expect(Math.hypot(...[0, 1, 2].map((k) => a!.point[k]! - b!.point[k]!))).toBeGreaterThan(10)
  })
})

describe('booleans', () => {
  it('agree with arithmetic on boxes, and refuse an open mesh in words', async () => {
    const r = await subtract(boxBody(10, 10, 10), [boxBody(5, 20, 20, 5, -5, -5)])
    expect(r.ok && measure(r.value).volume).toBeCloseTo(500, 3)
    const open = keepFaces(
      boxBody(10, 10, 10),
      Uint8Array.from({ length: 12 }, (_, f) => (f === 3 ? 0 : 1)),
    )
    const bad = await subtract(open, [boxBody(1, 1, 1)])
    expect(bad.ok || say(bad.problem.message)).toMatch(/Repair it under Import/)
    expect(await acceptedAsSolid(open)).toBe(false)
  })
})

describe('operations', () => {
  it('scale about the foot, so that what stands goes on standing', async () => {
    const r = await applyOperation(transformed(boxBody(10, 10, 10), identity3, [5, 5, 3]), {
      kind: 'scale',
      factor: 2,
      axes: [1, 1, 1],
      about: 'foot',
    })
    expect(r.ok && r.value.report.measures.box).toEqual({ min: [0, 0, 3], max: [20, 20, 23] })
  })
  it('stand the body on the plate, centred, whatever way it is turned', async () => {
    const r = await applyOperation(boxBody(10, 20, 30, 7, 7, 7), { kind: 'orient', quaternion: [0.3, -0.2, 0.5, 0.8] })
    if (!r.ok) throw new Error(say(r.problem.message))
    const { box, volume } = r.value.report.measures
    expect(box.min[2]).toBeCloseTo(0, 4)
    expect(box.min[0] + box.max[0]).toBeCloseTo(0, 4)
    expect(volume).toBeCloseTo(6000, 1)
  })
})

describe('thickness', () => {
  it('knows a plate, a sphere and where a fin is thinner than the limit', () => {
    expect(thinness(boxBody(60, 60, 1.5), 1).thinnest).toBeCloseTo(1.5, 1)
    expect(thinness(sphereBody(10, 4), 1).thinnest).toBeGreaterThan(16)
    const fin = concatenate([boxBody(20, 20, 20), boxBody(0.4, 20, 12, 10, 0, 20.01)])
    const t = thinness(fin, 0.6)
    expect(t.thinnest).toBeCloseTo(0.4, 1)
    expect(t.thinArea / 480).toBeCloseTo(1, 0.5)
    expect(t.places[0]!.point[2]).toBeGreaterThan(20)
  })
})
