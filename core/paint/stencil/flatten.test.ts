import { describe, expect, it } from 'vitest'
import { boundaryLoops, shells, topology } from '../../mesh/topology'
import { weldIdentical } from '../../mesh/weld'
import { keepFaces, type Mesh } from '../../mesh/mesh'
import { sheetBody, sphereBody } from '../../testBodies'
import { cutAlong, discCuts } from './cutOpen'
import { flatten } from './flatten'

const area3 = (m: Mesh): number => {
  let sum = 0
  const { positions: p, triangles: t } = m
  for (let f = 0; f < t.length; f += 3) {
    const [a, b, c] = [3 * t[f]!, 3 * t[f + 1]!, 3 * t[f + 2]!]
    const u = [0, 1, 2].map((k) => p[b + k]! - p[a + k]!),
      v = [0, 1, 2].map((k) => p[c + k]! - p[a + k]!)
    sum += Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2
  }
  return sum
}
const area2 = (m: Mesh, at: Float64Array): number => {
  let sum = 0
  const { triangles: t } = m
  for (let f = 0; f < t.length; f += 3) {
    const [a, b, c] = [2 * t[f]!, 2 * t[f + 1]!, 2 * t[f + 2]!]
    sum += ((at[b]! - at[a]!) * (at[c + 1]! - at[a + 1]!) - (at[c]! - at[a]!) * (at[b + 1]! - at[a + 1]!)) / 2
  }
  return sum
}
const off = (m: Float32Array): number => Math.max(...m.map((v) => Math.abs(v - 1)))

describe('flattened skin', () => {
  it('unrolls a cylinder and a cone exactly', () => {
    const cylinder = sheetBody(48, 12, (u, v) => [10 * Math.cos(4 * u), 10 * Math.sin(4 * u), 15 * v])
    const flat = flatten(cylinder)
    expect(flat.flipped).toBe(0)
    expect(Math.max(off(flat.most), off(flat.least))).toBeLessThan(3e-4)
    // Corners of a rectangle: the chords of the arc, one beside the other.
    const wide = 48 * 2 * 10 * Math.sin(4 / 48 / 2)
    const at = (v: number): [number, number] => [flat.at[2 * v]!, flat.at[2 * v + 1]!]
    const far = (a: number, b: number): number => Math.hypot(at(a)[0] - at(b)[0], at(a)[1] - at(b)[1])
    expect(far(0, 48)).toBeCloseTo(wide, 3)
    expect(far(0, 49 * 12)).toBeCloseTo(15, 3)
    expect(far(0, 49 * 13 - 1)).toBeCloseTo(Math.hypot(wide, 15), 3)
    // A cone of half angle a unrolls to a sector of angle 2π·sin a: here 300° of its round.
    const a = 0.5,
      round = (300 * Math.PI) / 180
    const cone = sheetBody(60, 10, (u, v) => {
      const l = 5 + 20 * v
      return [l * Math.sin(a) * Math.cos(round * u), l * Math.sin(a) * Math.sin(round * u), -l * Math.cos(a)]
    })
    const sector = flatten(cone)
    expect(Math.max(off(sector.most), off(sector.least))).toBeLessThan(3e-4)
    const from = (v: number, w: number): number =>
      Math.hypot(sector.at[2 * v]! - sector.at[2 * w]!, sector.at[2 * v + 1]! - sector.at[2 * w + 1]!)
    // Sides 5 mm from the tip subtend the sector's angle, less what 60 chords cut off.
    const chord = 2 * Math.asin(Math.sin(a) * Math.sin(round / 60 / 2))
    expect(from(0, 60)).toBeCloseTo(2 * 5 * Math.abs(Math.sin((60 * chord) / 2)), 2)
    expect(area2(cone, sector.at)).toBeCloseTo(area3(cone), 2)
  })
  it('keeps area and rim of a shallow cap within what its curvature takes, and says how much', () => {
    const R = 40
    const cap = sheetBody(24, 24, (u, v) => {
      const x = 24 * (u - 0.5),
        y = 24 * (v - 0.5)
      return [x, y, Math.sqrt(R * R - x * x - y * y)]
    })
    const flat = flatten(cap)
    expect(flat.flipped).toBe(0)
    expect(Math.abs(area2(cap, flat.at) / area3(cap) - 1)).toBeLessThan(0.005)
    expect(Math.max(off(flat.most), off(flat.least))).toBeGreaterThan(0.005)
    expect(Math.max(off(flat.most), off(flat.least))).toBeLessThan(0.06)
  })
  it('makes a disc of whatever is connected: a band, a band with a hole, a ball, a ring', () => {
    const band = weldIdentical(
      sheetBody(40, 10, (u, v) => {
        const a = 2 * Math.PI * (u % 1)
        return [10 * Math.cos(a), 10 * Math.sin(a), 20 * v]
      }),
    )
    const holed = keepFaces(
      band,
      Uint8Array.from({ length: band.triangles.length / 3 }, (_, f) => (f > 380 && f < 386 ? 0 : 1)),
    )
    const ring = weldIdentical(
      sheetBody(36, 18, (u, v) => {
        const [a, b] = [2 * Math.PI * (u % 1), 2 * Math.PI * (v % 1)]
        return [(10 + 3 * Math.cos(b)) * Math.cos(a), (10 + 3 * Math.cos(b)) * Math.sin(a), 3 * Math.sin(b)]
      }),
    )
    for (const body of [band, holed, sphereBody(10, 3), ring]) {
      const { mesh } = cutAlong(body, discCuts(body))
      const topo = topology(mesh)
      expect(boundaryLoops(mesh, topo.twin)).toHaveLength(1)
      expect(shells(mesh).count).toBe(1)
      // Euler: V − E + F of a disc is 1.
      const edges = (mesh.triangles.length + topo.openEdges) / 2
      expect(mesh.positions.length / 3 - edges + mesh.triangles.length / 3).toBe(1)
    }
    // A band comes out as long as it is round.
    const open = cutAlong(band, discCuts(band)).mesh
    const flat = flatten(open)
    expect(Math.max(off(flat.most), off(flat.least))).toBeLessThan(1e-3)
  })
})
