import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenNumbers } from '../math/random'
import { unit } from '../math/vectors'
import { nearestInside } from './nearestInside'
import { Parabolas } from './parabolas'
import {
  below,
  box,
  carve,
  intersect,
  limb,
  mirrored,
  noise,
  smoothMin,
  sphere,
  spun,
  turned,
  within,
} from './primitives'

describe('the distance transform by parabolas', () => {
  it('is the distance to the nearest empty cell, as trying every cell finds', () => {
    const cells = fc.array(fc.boolean(), { minLength: 6 * 5 * 4, maxLength: 6 * 5 * 4 })
    fc.assert(
      fc.property(cells, (solid) => {
        fc.pre(solid.includes(false))
        const [nx, ny, nz] = [6, 5, 4]
        const field = Float64Array.from(solid, (s) => (s ? 1e9 : 0))
        const lines = new Parabolas(6)
        for (let z = 0; z < nz; z++) for (let y = 0; y < ny; y++) lines.pass(field, nx, (z * ny + y) * nx, 1)
        for (let z = 0; z < nz; z++) for (let x = 0; x < nx; x++) lines.pass(field, ny, z * ny * nx + x, nx)
        for (let y = 0; y < ny; y++) for (let x = 0; x < nx; x++) lines.pass(field, nz, y * nx + x, nx * ny)
        const place = (i: number): number[] => [i % nx, Math.floor(i / nx) % ny, Math.floor(i / nx / ny)]
        const empty = solid.flatMap((s, i) => (s ? [] : [place(i)]))
        solid.forEach((_, i) => {
          const [x, y, z] = place(i) as [number, number, number]
          const nearest = Math.min(...empty.map((e) => (e[0]! - x) ** 2 + (e[1]! - y) ** 2 + (e[2]! - z) ** 2))
          expect(field[i]).toBe(nearest)
        })
      }),
      { numRuns: 60 },
    )
  })
})

describe('the nearest point inside several half-spaces', () => {
  const plane = fc.record({
    n: fc
      .tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }))
      .filter((v) => Math.hypot(...v) > 0)
      .map((v) => unit(v)),
    b: fc.integer({ min: -4, max: 4 }),
  })
  const ask = (planes: { n: readonly number[]; b: number }[]): { found: boolean; out: Float64Array } => {
    const out = new Float64Array(3)
    const found = nearestInside(
      new Float64Array(planes.flatMap((p) => [...p.n])),
      new Float64Array(planes.map((p) => p.b)),
      planes.length,
      out,
    )
    return { found, out }
  }
  it('is in all of them, and no point of a fine search that does is nearer', () => {
    const even = evenNumbers(11)
    fc.assert(
      fc.property(fc.array(plane, { minLength: 1, maxLength: 6 }), (planes) => {
        const { found, out } = ask(planes)
        const inside = (p: ArrayLike<number>, slack: number): boolean =>
          planes.every(({ n, b }) => n[0]! * p[0]! + n[1]! * p[1]! + n[2]! * p[2]! >= b - slack)
        const radius = found ? Math.hypot(out[0]!, out[1]!, out[2]!) : 12
        if (found) expect(inside(out, 1e-6)).toBe(true)
        for (let i = 0; i < 2000; i++) {
          const p = [0, 1, 2].map(() => (2 * even() - 1) * radius)
          if (Math.hypot(...p) < radius - 1e-6) expect(inside(p, -1e-6)).toBe(false)
        }
      }),
      { numRuns: 80 },
    )
  })
  it('is the origin where that is inside, and none where two of them face away from each other', () => {
    expect(ask([{ n: [1, 0, 0], b: -1 }]).out).toEqual(new Float64Array(3))
    expect(
      ask([
        { n: [1, 0, 0], b: 1 },
        { n: [-1, 0, 0], b: 1 },
      ]).found,
    ).toBe(false)
  })
})

describe('signed distances of simple bodies', () => {
  const at = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -12, max: 12, noNaN: true })))
  /** Outside, the distance to the nearest of many places on the skin is at least the exact one, and hardly more. */
  function againstSkin(
    body: (x: number, y: number, z: number) => number,
    skin: readonly number[][],
    spacing: number,
  ): void {
    fc.assert(
      fc.property(at, ([x, y, z]) => {
        const d = body(x!, y!, z!)
        const nearest = Math.min(...skin.map((p) => Math.hypot(p[0]! - x!, p[1]! - y!, p[2]! - z!)))
        expect(Math.abs(d)).toBeLessThanOrEqual(nearest + 1e-9)
        expect(nearest).toBeLessThanOrEqual(Math.hypot(Math.abs(d), spacing) + spacing)
      }),
      { numRuns: 60 },
    )
  }
  const grid = (n: number): number[] => Array.from({ length: n + 1 }, (_, i) => i / n)
  it('is exact for a box', () => {
    const half = [3, 2, 4]
    const skin: number[][] = []
    for (let axis = 0; axis < 3; axis++)
      for (const side of [-1, 1])
        for (const u of grid(24))
          for (const v of grid(24)) {
            const p = [0, 0, 0]
            p[axis] = side * half[axis]!
            p[(axis + 1) % 3] = (2 * u - 1) * half[(axis + 1) % 3]!
            p[(axis + 2) % 3] = (2 * v - 1) * half[(axis + 2) % 3]!
            skin.push(p)
          }
    againstSkin(box([0, 0, 0], [3, 2, 4]), skin, 0.25)
  })
  it('is exact for what is turned on a lathe, its axis being no skin', () => {
    const outline = [
      [0, 0],
      [5, 0],
      [2, 3],
      [4, 6],
      [0, 6],
    ] as const
    const skin: number[][] = []
    for (let i = 0; i < 4; i++)
      for (const t of grid(30))
        for (const a of grid(90)) {
          const r = outline[i]![0] + t * (outline[i + 1]![0] - outline[i]![0]),
            z = outline[i]![1] + t * (outline[i + 1]![1] - outline[i]![1])
          skin.push([r * Math.cos(2 * Math.PI * a), r * Math.sin(2 * Math.PI * a), z])
        }
    const body = turned(outline)
    againstSkin(body, skin, 0.25)
    expect(body(0, 0, 3)).toBeLessThan(0)
    expect(body(3.5, 0, 3)).toBeGreaterThan(0)
  })
  it('is the ball’s at either end of a limb, and the same seen from a turned or mirrored side', () => {
    const arm = limb([0, 0, 0], [0, 0, 8], 2)
    fc.assert(
      fc.property(at, fc.integer({ min: 0, max: 360 }), ([x, y, z], angle) => {
        const [px, py, pz] = [x!, y!, z!]
        const straight = Math.hypot(px, py, pz - Math.max(0, Math.min(8, pz))) - 2
        expect(arm(px, py, pz)).toBeCloseTo(straight, 9)
        expect(spun(arm, angle)(px, py, pz)).toBeCloseTo(straight, 9)
        expect(mirrored(sphere([3, 0, 0], 1))(-px, py, pz)).toBeCloseTo(Math.hypot(Math.abs(px) - 3, py, pz) - 1, 9)
        // Far out only the ball around it is looked at: never more than the true distance.
        expect(within([0, 0, 4], 6, arm)(px, py, pz)).toBeLessThanOrEqual(straight + 1e-9)
      }),
    )
  })
})

describe('blends', () => {
  const value = fc.double({ min: -5, max: 5, noNaN: true }),
    width = fc.double({ min: 0, max: 4, noNaN: true })
  it('take no more off the lesser than a quarter of the width, nothing where they are farther apart than that', () => {
    fc.assert(
      fc.property(value, value, width, (a, b, k) => {
        const d = smoothMin(a, b, k),
          least = Math.min(a, b)
        expect(d).toBeLessThanOrEqual(least)
        expect(d).toBeGreaterThanOrEqual(least - k / 4 - 1e-12)
        expect(smoothMin(b, a, k)).toBe(d)
        if (Math.abs(a - b) >= k) expect(d).toBe(least)
      }),
    )
  })
  it('without a width are what the words say: carved out, and common to both', () => {
    const a = sphere([0, 0, 0], 3),
      b = sphere([2, 0, 0], 3)
    fc.assert(
      fc.property(value, value, value, (x, y, z) => {
        const inA = a(x, y, z) < 0,
          inB = b(x, y, z) < 0
        expect(carve(0, a, b)(x, y, z) < 0).toBe(inA && !inB && b(x, y, z) !== 0)
        expect(intersect(0, a, b)(x, y, z) < 0).toBe(inA && inB)
        expect(below([0, 0, 1], [0, 0, 1])(x, y, z)).toBeCloseTo(z - 1, 12)
      }),
    )
  })
})

describe('the noise of the demo sculpts', () => {
  it('stays between −1 and 1, changes smoothly, also across the cells of its lattice, and is not flat', () => {
    const place = fc.double({ min: -20, max: 20, noNaN: true })
    fc.assert(
      fc.property(place, place, place, (x, y, z) => {
        const v = noise(x, y, z)
        expect(Math.abs(v)).toBeLessThanOrEqual(1)
        // The steepest rise of the fade is 15/8, of two units of height.
        expect(Math.abs(noise(x + 1e-4, y, z) - v)).toBeLessThan(1e-4 * 3.76)
        const edge = Math.round(x)
        expect(noise(edge - 1e-9, y, z)).toBeCloseTo(noise(edge + 1e-9, y, z), 6)
      }),
    )
    const values = Array.from({ length: 500 }, (_, i) => noise(i * 0.37, i * 0.11, 2.5))
    expect(Math.max(...values) - Math.min(...values)).toBeGreaterThan(0.8)
  })
})
