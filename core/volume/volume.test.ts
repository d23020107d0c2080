import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, sphereBody } from '../testBodies'
import { closest, closestPoint } from '../mesh/closest'
import { bounds, concatenate, keepFaces } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { selfIntersections } from '../mesh/selfIntersect'
import { topology } from '../mesh/topology'
import { buildTree } from '../mesh/tree'
import { extractSurface, projectOnto } from './extract'
import { sampleField } from './field'
import { offsetSurface } from './offset'
import { box, carve, ellipsoid, limb, noise, smoothMin, sphere, turned, union } from './primitives'
import { FunctionDistance } from './source'

const manifold = (mesh: Parameters<typeof topology>[0]): void => {
  expect(topology(mesh)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 })
}

describe('surface extraction', () => {
  it('is a closed oriented manifold even of pure noise', () => {
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const f = new FunctionDistance(
          (x, y, z) =>
            Math.min(x, y, z) < 2 || Math.max(x, y, z) > 21
              ? 1
              : noise(x * 0.93 + (seed % 977), y * 0.91, z * 0.97) +
                0.6 * noise(x * 7.7, y * 7.1 + (seed % 31), z * 7.3),
          1000,
        )
        manifold(extractSurface(sampleField(f, { min: [0, 0, 0], max: [23, 23, 23] }, 1, 0)))
      }),
      { numRuns: 25 },
    )
  })
  it('finds a torus with its hole, to half a percent of Pappus', () => {
    const f = new FunctionDistance((x, y, z) => Math.hypot(Math.hypot(x, y) - 20, z) - 6, 1)
    const m = extractSurface(sampleField(f, { min: [-27, -27, -7], max: [27, 27, 7] }, 0.5, 0))
    projectOnto(m, f, 0, 0.5)
    manifold(m)
    const v = m.positions.length / 3,
      e = m.triangles.length / 2,
      faces = m.triangles.length / 3
    expect(v - e + faces).toBe(0)
    expect(measure(m).volume / (2 * Math.PI ** 2 * 20 * 36)).toBeCloseTo(1, 2.3)
    expect(selfIntersections(buildTree(m)).pairs).toEqual([])
  })
  it('never puts two vertices in one place, even of faces that lie right on the grid', () => {
    const b = box([8, 8, 8], [4, 4, 4])
    const m = extractSurface(sampleField(new FunctionDistance(b, 1), { min: [4, 4, 4], max: [12, 12, 12] }, 1, 0))
    projectOnto(m, new FunctionDistance(b, 1), 0, 1)
    const places = new Set(
      Array.from({ length: m.positions.length / 3 }, (_, v) => m.positions.subarray(v * 3, v * 3 + 3).join()),
    )
    expect(places.size).toBe(m.positions.length / 3)
  })
  it('says so when a source breaks its Lipschitz promise instead of leaving a hole', () => {
    const cheat = new FunctionDistance((x, y, z) => 1.6 * (Math.hypot(x - 0.3, y, z) - 20), 1)
    const run = (): void => {
      manifold(extractSurface(sampleField(cheat, { min: [-20, -20, -20], max: [20, 20, 20] }, 0.5, 0)))
    }
    expect(run).toThrow(/Lipschitz/)
  })
})

describe('offset', () => {
  it('moves a sphere by what was asked, both ways', () => {
    const s = sphereBody(20, 5)
    for (const d of [-3, 2.5]) {
      const o = offsetSurface(s, d, 0.6)
      manifold(o)
      for (let i = 0; i < o.positions.length; i += 3)
        expect(Math.abs(Math.hypot(o.positions[i]!, o.positions[i + 1]!, o.positions[i + 2]!) - 20 - d)).toBeLessThan(
          0.06,
        )
    }
  })
  it('keeps every point at the asked distance from an angular body within a voxel', () => {
    const b = boxBody(30, 20, 12),
      tree = buildTree(b),
      hit = closest()
    const o = offsetSurface(b, -2, 0.4)
    manifold(o)
    for (let i = 0; i < o.positions.length; i += 3)
      expect(
        Math.abs(closestPoint(tree, o.positions[i]!, o.positions[i + 1]!, o.positions[i + 2]!, hit) - 2),
      ).toBeLessThan(0.4)
    expect(measure(o).volume).toBeCloseTo(26 * 16 * 8, -2)
  })
  it('works on overlapping and torn input, whose solid is where the winding number says', () => {
    const s = sphereBody(20, 4)
    const torn = keepFaces(
      s,
      Uint8Array.from({ length: s.triangles.length / 3 }, (_, f) => (f % 25 === 0 ? 0 : 1)),
    )
    manifold(offsetSurface(torn, -4, 1))
    const two = offsetSurface(concatenate([sphereBody(10, 4), sphereBody(10, 4, [11, 0, 0])]), 1, 0.5)
    manifold(two)
    expect(bounds(two).max[0]).toBeCloseTo(22, 0)
  })
  it('gives nothing where nothing is that deep', () => {
    expect(offsetSurface(boxBody(20, 20, 3), -2, 0.5).triangles.length).toBe(0)
  })
})

describe('primitives', () => {
  const p = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -30, max: 30, noNaN: true }))) as fc.Arbitrary<
    [number, number, number]
  >
  const shapes = [
    sphere([1, 2, 3], 7),
    ellipsoid([0, 0, 0], [9, 6, 4]),
    limb([0, 0, 0], [10, 3, 5], 3, 5),
    box([0, 1, 0], [8, 5, 3], 1),
    turned([
      [0, 0],
      [9, 0],
      [7, 12],
      [0, 12],
    ]),
    carve(1, sphere([0, 0, 0], 12), sphere([6, 0, 0], 8)),
    union(2, sphere([0, 0, 0], 6), box([7, 0, 0], [4, 4, 4])),
  ]
  it('change no faster than the bound that the demo sculpts state', () => {
    fc.assert(
      fc.property(p, p, fc.nat(shapes.length - 1), (a, b, i) => {
        expect(Math.abs(shapes[i]!(...a) - shapes[i]!(...b))).toBeLessThanOrEqual(
          2 * Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) + 1e-6,
        )
      }),
      { numRuns: 400 },
    )
  })
  it('blend below both, by a quarter of the width where they meet, and not at all apart', () => {
    expect(smoothMin(1, 1, 2)).toBeCloseTo(0.5)
    expect(smoothMin(0, 5, 2)).toBe(0)
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true }), (a, b) => {
        expect(smoothMin(a, b, 3)).toBeLessThanOrEqual(Math.min(a, b))
      }),
    )
  })
})
