import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fitOf } from '../fit/gap'
import { measure } from '../mesh/measure'
import { bounds, concatenate, type Mesh } from '../mesh/mesh'
import { identity3, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { boxBody, chainBody, sphereBody } from '../testBodies'
import type { Answer } from '../answer'
import { base, type BaseOptions } from './base'
import { cut, type CutOptions } from './cut'
import { tube } from './cylinder'
import { fix, keySites, type Fixing } from './fixing'
import { blendWidth, join, type JoinOptions } from './join'
import { place } from './place'
import { sectionOutline } from './section'
import { acceptedAsSolid } from './solid'
import { trim } from './trim'
import { say } from '../words/say'

const value = <T>(a: Answer<T>): T => {
  if (!a.ok) throw new Error(say(a.problem.message))
  return a.value
}
const code = (a: Answer<unknown>): string => (a.ok ? 'good' : a.problem.code)
const volume = (m: Mesh): number => measure(m).volume
const plane = (point: Vector3, normal: Vector3): Omit<CutOptions, 'keep'> => ({ point, normal, line: [] })
const shifted = (m: Mesh, x: number, y: number, z: number): Mesh => transformed(m, identity3, [x, y, z])

describe('cutting', () => {
  it('gives two solids that together are the body, at any plane through it', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 1e6 }),
        fc
          .tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
          .filter((v) => Math.hypot(...v) > 0.2),
        async (seed, direction) => {
          const body = chainBody(seed, 4)
          const l = Math.hypot(...direction)
          const normal = direction.map((c) => c / l) as never
          const o = plane(measure(body).centre, normal)
          const above = await cut(body, { ...o, keep: 'above' }),
            below = await cut(body, { ...o, keep: 'below' })
          if (!above.ok || !below.ok) {
            // The middle of a bent chain may lie beside it.
            expect([code(above), code(below)]).toContain('cut-misses')
            return
          }
          expect((volume(above.value.mesh) + volume(below.value.mesh)) / volume(body)).toBeCloseTo(1, 5)
          for (const half of [above, below]) expect(await acceptedAsSolid(half.value.mesh)).toBe(true)
          expect(above.value.report).toEqual(below.value.report)
        },
      ),
      { numRuns: 15 },
    )
  })
  it('follows a line drawn round the body, the halves fitting without gap', async () => {
    const column = tube(
      [
        [0, 0, 0],
        [0, 0, 60],
      ],
      [10, 10],
      64,
    )
    const line = Array.from({ length: 12 }, (_, i): Vector3 => {
      const a = (2 * Math.PI * i) / 12
      return [10 * Math.cos(a), 10 * Math.sin(a), 30 + 4 * Math.cos(2 * a)]
    })
    const o = { point: [0, 0, 30] as Vector3, normal: [0, 0, 1] as Vector3, line }
    const upper = value(await cut(column, { ...o, keep: 'above' })).mesh,
      lower = value(await cut(column, { ...o, keep: 'below' })).mesh
    expect((volume(upper) + volume(lower)) / volume(column)).toBeCloseTo(1, 4)
    // The line itself lies on the cut: the lower half reaches up to it at the sides, no farther in front.
    const reach = (m: Mesh, x: number, y: number): number => {
      let top = -Infinity
      for (let i = 0; i < m.positions.length; i += 3)
        if (Math.hypot(m.positions[i]! - x, m.positions[i + 1]! - y) < 1.2) top = Math.max(top, m.positions[i + 2]!)
      return top
    }
    expect(reach(lower, 10, 0)).toBeCloseTo(34, 0)
    expect(reach(lower, 0, 10)).toBeCloseTo(26, 0)
    const fit = value(await fitOf(lower, upper))
    expect(Math.abs(fit.p5) + Math.abs(fit.p95)).toBeLessThan(0.02)
  })
  it('keeps the head and the eye in it, and leaves out what floats beside it', async () => {
    const head = concatenate([
      boxBody(20, 20, 40),
      boxBody(4, 4, 4, 8, 8, 32),
      boxBody(3, 3, 3, 20.1, 8, 30),
      boxBody(2, 2, 2, 40, 0, 30),
      boxBody(4, 1, 1, 40, 9, 30),
    ])
    const r = value(await cut(head, { ...plane([0, 0, 20], [0, 0, 1]), keep: 'above', piece: [10, 10, 45] as Vector3 }))
    expect(r.report.left).toEqual({ count: 2, volume: 12, at: [41, 1, 31] })
    expect(bounds(r.mesh).max[0]).toBeCloseTo(23.1, 4)
  })
  it('answers when it misses', async () => {
    expect(code(await cut(boxBody(5, 5, 5), { ...plane([0, 0, 20], [0, 0, 1]), keep: 'above' }))).toBe('cut-misses')
    expect(code(await cut(boxBody(5, 5, 5), { ...plane([0, 0, 20], [0, 0, 1]), keep: 'below' }))).toBe('cut-misses')
  })
  it('finds the widest circle in each region of a section', () => {
    const two = concatenate([
      boxBody(20, 10, 10),
      tube(
        [
          [40, 0, 0],
          [40, 0, 10],
        ],
        [8, 8],
        90,
      ),
    ])
    const s = sectionOutline(two, [0, 0, 5], [0, 0, 1])
    expect(s.pieces).toBe(2)
    expect(s.area).toBeCloseTo(200 + (90 / 2) * 64 * Math.sin((2 * Math.PI) / 90), 3)
    expect(s.circles[0]!.radius).toBeCloseTo(8, 0)
    expect(s.circles[1]!.radius).toBeCloseTo(5, 0)
    expect(s.circles[1]!.centre[1]).toBeCloseTo(5, 0)
  })
})

describe('keys and other fixings', () => {
  it('go in one way round with the clearance that was asked, both halves solid', async () => {
    const body = boxBody(30, 20, 40, -15, -10, 0)
    const o = plane([0, 0, 20], [0, 0, 1])
    const [site, ...more] = keySites(body, o.point, o.normal, { wall: 2, clearance: 0.1, draft: 3 })
    expect(more).toEqual([])
    expect(site!.width).toBeLessThan(2 * (10 - 2))
    expect(site!.length / site!.width).toBeGreaterThanOrEqual(0.8)
    const lower = value(
        await fix(value(await cut(body, { ...o, keep: 'below' })).mesh, [{ ...site!, role: 'plug' }]),
      ).mesh,
      upper = value(
        await fix(value(await cut(body, { ...o, keep: 'above' })).mesh, [{ ...site!, role: 'socket' }]),
      ).mesh
    for (const m of [lower, upper]) expect(await acceptedAsSolid(m)).toBe(true)
    const fit = value(await fitOf(lower, upper))
    expect(fit.overlap).toBeLessThan(1e-3)
    expect(fit.p95).toBeGreaterThan(0.08)
    expect(fit.p95).toBeLessThan(0.115)
    // Turned half round, the D no longer goes in.
    const turned = place(lower, { quaternion: [0, 0, 1, 0], shift: [0, 0, 0], mirror: false })
    expect(value(await fitOf(turned, upper)).overlap).toBeGreaterThan(1)
  })
  it('are refused where they would break out of the skin, and nothing is cut', async () => {
    const near: Fixing = {
      shape: 'magnet',
      role: 'socket',
      point: [9.5, 5, 10],
      direction: [0, 0, -1],
      width: 4,
      length: 3,
      draft: 0,
      clearance: 0.1,
    }
    const block = boxBody(12, 10, 10)
    expect(code(await fix(block, [near]))).toBe('fixing-breaks-out')
    const fine = value(await fix(block, [{ ...near, point: [6, 5, 10] }]))
    expect(volume(block) - volume(fine.mesh)).toBeCloseTo(Math.PI * 2.1 ** 2 * 3.1, 0)
    expect(fine.report.walls[0]).toBeCloseTo(2.9, 1)
    const through = await fix(block, [{ ...near, point: [6, 5, 10], length: 9.8, shape: 'pin', width: 1 }])
    expect(code(through)).toBe('fixing-breaks-out')
  })
  it('a ball joint turns in its socket without touching', async () => {
    const joint: Omit<Fixing, 'role'> = {
      shape: 'ball',
      point: [0, 0, 10],
      direction: [0, 0, 1],
      width: 8,
      length: 0,
      draft: 0,
      clearance: 0.15,
    }
    const arm = value(await fix(boxBody(6, 6, 10, -3, -3, 0), [{ ...joint, role: 'plug' }])).mesh,
      body = value(await fix(boxBody(20, 20, 20, -10, -10, 10), [{ ...joint, role: 'socket' }])).mesh
    const c = Math.cos(0.4),
      s = Math.sin(0.4)
    const spun = transformed(arm, [c, -s, 0, s, c, 0, 0, 0, 1], [0, 0, -0.001])
    expect(value(await fitOf(spun, body)).overlap).toBeLessThan(0.02)
  })
})

describe('joining', () => {
  const o: JoinOptions = { mode: 'union', fillet: 2, clearance: 0.1, voxel: 0.25 }
  const slab = boxBody(30, 30, 5, -15, -15, 0),
    post = boxBody(8, 8, 20, -4, -4, 4)
  it('adds and subtracts exactly', async () => {
    const both = value(await join(slab, [post], o))
    expect(volume(both.mesh)).toBeCloseTo(4500 + 1280 - 64, 2)
    expect(both.report.overlap).toBeCloseTo(64, 3)
    expect(volume(value(await join(slab, [post], { ...o, mode: 'subtract' })).mesh)).toBeCloseTo(4500 - 64, 2)
  })
  it('blends with the fillet that was asked, and leaves the rest as it was', async () => {
    const r = value(await join(slab, [post], { ...o, mode: 'blend' }))
    expect(await acceptedAsSolid(r.mesh)).toBe(true)
    const plain = 4500 + 1280 - 64
    // Between perpendicular faces the quadratic blend of width k fills (k²/2 − ∫…) = k²/6·… a mm of corner; by
    // integration of (√x + √y = √k): k²/6 for each of four sides, corners a little more.
    const k = blendWidth(2)
    const added = volume(r.mesh) - plain
    expect(added).toBeGreaterThan(((4 * 8 * k * k) / 6) * 0.85)
    expect(added).toBeLessThan(((4 * 8 * k * k) / 6) * 1.5)
    let far = 0
    for (let i = 0; i < r.mesh.positions.length; i += 3)
      if (Math.abs(r.mesh.positions[i]!) > 8 && r.mesh.positions[i + 2]! > 0.01 && r.mesh.positions[i + 2]! < 4.99)
        far++
    expect(far).toBe(0)
  })
  it('relieves by growing the neighbour, so that the clearance is there', async () => {
    const ball = sphereBody(6, 5, [0, 0, 9])
    const r = value(await join(slab, [ball], { ...o, mode: 'relieve', clearance: 0.2, voxel: 0.2 }))
    const fit = value(await fitOf(ball, r.mesh))
    expect(fit.overlap).toBeLessThan(1e-6)
    expect(fit.p5).toBeGreaterThan(0.18)
    const depth = 5 - (9 - 6.2)
    expect(r.report.volumeBefore - r.report.volumeAfter).toBeCloseTo((Math.PI * depth ** 2 * (3 * 6.2 - depth)) / 3, 0)
  })
  it('answers for open meshes, swallowed parts and fillets too fine', async () => {
    const open: Mesh = { ...slab, triangles: slab.triangles.slice(3) }
    expect(code(await join(open, [post], o))).toBe('not-solid')
    expect(code(await join(slab, [], o))).toBe('no-other-part')
    for (const mode of ['union', 'blend'] as const)
      expect(code(await join(slab, [boxBody(1, 1, 1, 0, 0, 2)], { ...o, mode }))).toBe('part-swallowed')
    expect(code(await join(slab, [post], { ...o, mode: 'blend', voxel: 0.001 }))).toBe('too-fine')
    expect(code(await join(post, [boxBody(60, 60, 60, -30, -30, -30)], { ...o, mode: 'subtract' }))).toBe(
      'nothing-left',
    )
  })
})

describe('bases', () => {
  const o: BaseOptions = {
    outline: 'round',
    width: 60,
    depth: 40,
    height: 10,
    corner: 5,
    side: 'plain',
    steps: 3,
    profile: [],
    top: 'plain',
    relief: 0,
    seed: 1,
  }
  it('are solids of the volume their measures say', async () => {
    const oval = value(base(o))
    expect(volume(oval) / (Math.PI * 30 * 20 * 10)).toBeCloseTo(1, 1)
    const box = value(base({ ...o, outline: 'rounded' }))
    expect(volume(box) / ((60 * 40 - (4 - Math.PI) * 25) * 10)).toBeCloseTo(1, 1)
    const steps = value(base({ ...o, side: 'stepped', steps: 2, height: 8 }))
    expect(volume(steps) / (Math.PI * 30 * 20 * 4 * (1 + 0.825 ** 2))).toBeCloseTo(1, 2)
    const cone = value(
      base({
        ...o,
        side: 'turned',
        width: 40,
        profile: [
          [1, 0],
          [0.5, 1],
        ],
      }),
    )
    expect(volume(cone) / (Math.PI * 400 * 10 * (7 / 12))).toBeCloseTo(1, 2)
    for (const m of [oval, box, steps, cone]) expect(await acceptedAsSolid(m)).toBe(true)
  })
  it('with stones, planks or rock stay solid, flat below, no higher than the relief', async () => {
    for (const top of ['cobbles', 'planks', 'rock'] as const) {
      const m = value(base({ ...o, width: 40, depth: 30, top, relief: 1.5 }))
      expect(await acceptedAsSolid(m)).toBe(true)
      const { box } = measure(m)
      expect(box.min[2]).toBeCloseTo(0, 2)
      expect(box.max[2]).toBeLessThan(11.6)
      expect(box.max[2]).toBeGreaterThan(10.5)
      expect(box.max[0]).toBeLessThan(20.1)
    }
    expect(
      code(
        base({
          ...o,
          side: 'turned',
          profile: [
            [1, 0.5],
            [1, 0.2],
          ],
        }),
      ),
    ).toBe('profile-falls')
  })
})

describe('placing and trimming', () => {
  it('mirrors without turning inside out, and turns before it shifts', () => {
    const wedge = transformed(boxBody(4, 2, 1), [1, 0, 0, 0.5, 1, 0, 0, 0, 1], [0, 0, 0])
    const m = place(wedge, { quaternion: [0, 0, Math.SQRT1_2, Math.SQRT1_2], shift: [10, 0, 3], mirror: true })
    expect(volume(m)).toBeCloseTo(8, 5)
    expect(measure(m).box.min[2]).toBe(3)
    expect(measure(m).box.min[1]).toBeCloseTo(-4, 5)
  })
  it('keeps of a cloud what is inside, with its normals and colours, and says when that is nothing', () => {
    const cloud: Mesh = {
      positions: Float32Array.from([0, 0, 0, 5, 5, 5, 9, 9, 9]),
      triangles: new Uint32Array(0),
      colours: Uint8Array.from([1, 1, 1, 2, 2, 2, 3, 3, 3]),
    }
    const planes = [{ point: [0, 0, 2] as Vector3, normal: [0, 0, 1] as Vector3 }]
    const r = value(trim(cloud, { planes, box: { min: [0, 0, 0], max: [6, 6, 6] } }))
    expect([...r.mesh.positions, ...r.mesh.colours!]).toEqual([5, 5, 5, 2, 2, 2])
    expect(r.removed).toBe(2)
    expect(code(trim(cloud, { planes, box: { min: [0, 0, 0], max: [1, 1, 1] } }))).toBe('nothing-left')
    expect(value(trim(shifted(boxBody(2, 2, 2), 0, 0, 5), { planes, box: null })).removed).toBe(0)
  })
})
