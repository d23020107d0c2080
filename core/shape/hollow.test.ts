import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import { shells } from '../mesh/topology'
import { boxBody, sphereBody } from '../testBodies'
import { hollow, type HollowOptions } from './hollow'
import { gyroidLevel } from './infill'
import { acceptedAsSolid } from './solid'
import { splitFaces } from '../mesh/mesh'
import { measureWall } from './wall'
import { say } from '../words/say'

const options: HollowOptions = { wall: 2, voxel: 0.5, opening: 1, leastPocket: 50 }
const hollowed = async (mesh: Parameters<typeof hollow>[0], more: Partial<HollowOptions> = {}) => {
  const r = await hollow(mesh, { ...options, ...more })
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}

describe('a wall of more than one thickness', () => {
  it('is thicker by what was asked where the brush was full, and as before elsewhere', async () => {
    const ball = sphereBody(18, 5)
    const { mesh, report } = await hollowed(ball, { thicker: { dabs: [{ point: [0, 0, 18], radius: 10 }], by: 3 } })
    expect(await acceptedAsSolid(mesh)).toBe(true)
    const [outer, inner] = splitFaces(mesh, ball.triangles.length / 3)
    // Up the middle the wall is 5 mm, down it 2; nowhere is it less than asked.
    const reach = (sign: 1 | -1): number => {
      let z = 0
      for (let i = 0; i < inner.positions.length; i += 3)
        if (Math.hypot(inner.positions[i]!, inner.positions[i + 1]!) < 1.5)
          z = Math.max(z, sign * inner.positions[i + 2]!)
      return z
    }
    expect(18 - reach(1)).toBeCloseTo(5, 0)
    expect(Math.abs(18 - reach(1) - 5)).toBeLessThan(0.25)
    expect(Math.abs(18 - reach(-1) - 2)).toBeLessThan(0.1)
    expect(measureWall(outer, inner).minimum).toBeGreaterThan(1.9)
    // What it costs lies between a cap of the full brush and one of all of it, 3 mm thick.
    const cap = (r: number): number => 3 * Math.PI * r * r
    expect(report.kept).toBeGreaterThan(0.7 * cap(5))
    expect(report.kept).toBeLessThan(cap(10))
  })
  it('is what it was when the brush met nothing', async () => {
    const plain = await hollowed(sphereBody(12, 4)),
      far = await hollowed(sphereBody(12, 4), { thicker: { dabs: [{ point: [90, 0, 0], radius: 5 }], by: 3 } })
    expect(far.report.cavityVolume).toBe(plain.report.cavityVolume)
  })
})

describe('what stiffens a cavity', () => {
  it('takes its share, leaves one connected room, and weighs where it is', async () => {
    const box = boxBody(34, 34, 34)
    const plain = await hollowed(box, { wall: 3 })
    for (const kind of ['bars', 'gyroid'] as const) {
      const { mesh, report } = await hollowed(box, { wall: 3, fill: { kind, spacing: 14, thickness: 3 } })
      expect(await acceptedAsSolid(mesh)).toBe(true)
      const share = report.kept / plain.report.cavityVolume
      // Three rods of ⌀3 per 14 mm cube, less what they share at their crossing: about 0.09; a gyroid's struts are longer.
      expect(share).toBeGreaterThan(0.06)
      expect(share).toBeLessThan(0.26)
      const [, inner] = splitFaces(mesh, box.triangles.length / 3)
      const { shellOf, count } = shells(inner)
      const sizes = Array.from({ length: count }, () => 0)
      for (const s of shellOf) sizes[s]!++
      // Everything that is left free hangs together; what else there is are slivers too small to count.
      expect(Math.max(...sizes) / shellOf.length).toBeGreaterThan(0.99)
      expect(report.cavities).toBe(1)
      expect(measure(mesh).volume).toBeCloseTo(report.volumeAfter, 3)
    }
  })
  it('counts a gyroid’s share: half of the cell is over its middle level', () => {
    expect(gyroidLevel(0.5)).toBeCloseTo(0, 2)
    expect(gyroidLevel(0.1)).toBeGreaterThan(1.1)
    expect(gyroidLevel(0.1)).toBeLessThan(1.3)
  })
  it('tells how thick a casting would be, and where it would weigh', async () => {
    const { report } = await hollowed(boxBody(40, 30, 24))
    expect(report.cavityRadius).toBeGreaterThan(9.5)
    expect(report.cavityRadius).toBeLessThan(10.6)
    expect(report.cavityCentre.map((v) => Math.round(v))).toEqual([20, 15, 12])
  })
})
