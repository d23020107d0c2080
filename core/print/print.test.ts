import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, cylinderBody, sphereBody } from '../testBodies'
import { overFaces } from '../testSamples'
import { concatenate, keepFaces, reversed } from '../mesh/mesh'
import { closest, closestPoint } from '../mesh/closest'
import { treeOf } from '../mesh/tree'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { sectionAreaOfSolid, subtract } from '../shape/solid'
import { scoreOrientations } from './orient/orientation'
import { printSeconds, resinUse, type Printer, type Resin } from './slice/printer'
import { Rasteriser } from '../raster/raster'
import { sectionArea, Sections } from '../mesh/sections'
import { inspectLayers, slice } from './slice/slice'
import { support } from './support/support'
import { tipCapacity, tipLoads } from './support/supportLoad'
import { gradeDefaults } from './support/supportRoute'
import { say } from '../words/say'

const printer: Printer = {
  name: 'Test',
  pixelsX: 1200,
  pixelsY: 800,
  pitchX: 0.05,
  pitchY: 0.06,
  height: 60,
  layerHeight: 0.1,
  liftTime: 3,
  retractTime: 2,
  restTime: 1,
  bottomLayers: 4,
}
const resin: Resin = {
  name: 'Test',
  density: 1.1,
  pricePerLitre: 40,
  exposure: 2,
  bottomExposure: 20,
  peelPressure: 12_000,
  greenStrength: 4.5e6,
  clear: false,
}
const up = (z: number): readonly [number, number, number] => [0, 0, z]
const options = {
  limit: 40,
  spacing: 3,
  clearance: 0.5,
  lift: 5,
  peelPressure: 12_000,
  greenStrength: 4.5e6,
  automatic: true,
  edits: [],
}

describe('sections and raster', () => {
  it('cuts a sphere into the circles that the boolean library cuts, vertices on the plane included', async () => {
    const s = sphereBody(10, 4),
      sections = new Sections(s)
    for (const z of [-9.5, -5, 0, 3.3, 10 * Math.SQRT1_2]) {
      const area = sectionArea(sections.segments, sections.at(z))
      expect(area).toBeCloseTo(await sectionAreaOfSolid(s, z), 1)
      expect(area / (Math.PI * (100 - z * z))).toBeGreaterThan(0.96)
    }
  })
  it('covers exactly the area of any convex outline inside the picture', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.4, max: 14, noNaN: true }),
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.integer({ min: 3, max: 40 }),
        (r, cx, cy, n) => {
          const at = (i: number): [number, number] => [
            cx + r * Math.cos((2 * Math.PI * i) / n),
            cy + r * Math.sin((2 * Math.PI * i) / n),
          ]
          const segments = Float64Array.from({ length: n }, (_, i) => i).reduce<number[]>(
            (s, i) => [...s, ...at(i), ...at(i + 1)],
            [],
          )
          const runs = new Rasteriser(600, 400, 0.08, 0.11, -24, -22).draw(Float64Array.from(segments), n)
          const exact = (n / 2) * r * r * Math.sin((2 * Math.PI) / n)
          // Each pixel on the outline is rounded to 8 bits.
          expect(Math.abs(runs.covered * 0.08 * 0.11 - exact)).toBeLessThan(
            (0.004 * 0.0088 * 2 * Math.PI * r) / 0.08 + 0.002,
          )
          expect(runs.brokenRows).toBe(0)
        },
      ),
      { numRuns: 80 },
    )
  })
  it('unites overlapping shells and keeps cavities open, by the nonzero rule', () => {
    const area = (m: Parameters<typeof concatenate>[0]): number => {
      const sections = new Sections(concatenate(m))
      return new Rasteriser(500, 500, 0.1, 0.1, -25, -25).draw(sections.segments, sections.at(5.05)).covered * 0.01
    }
    expect(area([boxBody(10, 10, 10), boxBody(10, 10, 10, 5, 0, 0)])).toBeCloseTo(150, 2)
    expect(area([boxBody(10, 10, 10), reversed(boxBody(6, 6, 6, 2, 2, 2))])).toBeCloseTo(64, 2)
  })
  it('never streaks: rows of an open outline are left blank and counted', () => {
    const open = new Float64Array([0, 0, 10, 0, 10, 0, 10, 10, 10, 10, 0, 10])
    const runs = new Rasteriser(200, 200, 0.1, 0.1, -5, -5).draw(open, 3)
    expect(runs.brokenRows).toBeGreaterThan(0)
    for (let i = 0; i < runs.x.length; i++) expect(runs.x[i]! + runs.length[i]!).toBeLessThanOrEqual(151)
  })
})

describe('slicing', () => {
  it('makes ceil(height / layer) layers whose areas integrate to the volume, with its time and resin', async () => {
    const body = transformed(sphereBody(8, 4), identity3, up(8))
    let files = 0
    const r = await slice(body, printer, resin, () => {
      files++
    })
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(r.value.layers).toBe(160)
    expect(files).toBe(160)
    expect((r.value.areas.reduce((a, b) => a + b, 0) * 0.1) / ((4 / 3) * Math.PI * 512)).toBeCloseTo(1, 1.7)
    expect(r.value.seconds).toBe(160 * 6 + 4 * 20 + 156 * 2)
    expect(r.value.peel[80]).toBeCloseTo(12_000 * r.value.areas[80]! * 1e-6, 9)
    const slick = await slice(boxBody(4, 4, 1, -2, -2), { ...printer, filmPull: 0.6 }, resin, () => undefined)
    expect(slick.ok && slick.value.peel[5]).toBeCloseTo(0.6 * 12_000 * 16e-6, 6)
    expect(printSeconds(printer, resin, 2)).toBe(52)
    expect(resinUse(1000, 10_000)).toBeCloseTo(1 + 0.1 + 2)
  })
  it('mends a torn body before slicing, says so, and leaves no row broken', async () => {
    const s = transformed(sphereBody(8, 4), identity3, up(8))
    const torn = keepFaces(
      s,
      Uint8Array.from({ length: s.triangles.length / 3 }, (_, f) => (f % 33 === 0 ? 0 : 1)),
    )
    const r = await slice(torn, printer, resin, () => undefined)
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(r.value.mended!.holesFilled).toBeGreaterThan(20)
    expect(r.value.brokenRows).toBe(0)
    expect(r.value.areas[80]! / (Math.PI * 64)).toBeCloseTo(1, 1.5)
  })
  it.each([
    ['too wide', boxBody(80, 5, 5, -40, -2.5, 0)],
    ['too tall', boxBody(5, 5, 80)],
    ['below the plate', boxBody(5, 5, 5, 0, 0, -2)],
  ])('refuses a body that is %s, with the figure', async (_, body) => {
    const r = await slice(body, printer, resin, () => undefined)
    expect(!r.ok && /\d/.test(say(r.problem.message))).toBe(true)
  })
})

describe('islands and cups', () => {
  it('counts the teeth of a comb as islands', () => {
    const teeth = Array.from({ length: 7 }, (_, i) => boxBody(1, 3, 6, i * 2.5, 0, 4))
    const comb = concatenate([boxBody(22, 3, 2, -3, 0, 10), boxBody(1, 3, 10, -3, 0, 0), ...teeth])
    expect(inspectLayers(comb, 0.1).islands.length).toBe(7)
  })
  it('knows the force of an upturned cup, and that a vent or the right orientation removes it', async () => {
    const cup = (z0: number): ReturnType<typeof concatenate> =>
      concatenate([boxBody(24, 24, 20, -12, -12, 0), reversed(boxBody(20, 20, 16, -10, -10, z0))])
    const sealed = inspectLayers(cup(2), 0.1).cups
    expect(sealed).toHaveLength(1)
    expect(sealed[0]!.area).toBeCloseTo(400, -1)
    expect(sealed[0]!.force / 40).toBeCloseTo(1, 1)
    expect(sealed[0]!.firstLayer).toBe(20)
    // It pulls in every layer from its mouth to its floor, and in no other.
    inspectLayers(cup(2), 0.1).suction.forEach((force, i) => {
      expect(Math.abs(force - (i >= 20 && i < 180 ? 40 : 0))).toBeLessThan(1)
    })
    // Mouth toward the plate: air reaches it through what is printed first, unless it stands flat on the plate.
    const raised = concatenate([transformed(cup(0), identity3, up(5)), boxBody(3, 3, 6, -12, -12, 0)])
    expect(inspectLayers(raised, 0.1).cups).toEqual([])
    expect(inspectLayers(cup(0), 0.1).cups[0]!.firstLayer).toBe(0)
    const vented = await subtract(cup(2), [boxBody(30, 2, 2, -15, -1, 1.5)])
    expect(vented.ok && inspectLayers(vented.value, 0.1).cups).toEqual([])
  })
})

describe('orientation', () => {
  it('stands a cylinder so that nothing hangs, and finds its widest layer', () => {
    const scores = scoreOrientations(cylinderBody(10, 30), { limit: 40, volume: [60, 60, 60] })
    const upright = scores.reduce((a, b) => (Math.abs(b.up[2]) > Math.abs(a.up[2]) ? b : a))
    expect(upright.height).toBeCloseTo(30, 0)
    expect(upright.peak / (Math.PI * 100)).toBeCloseTo(1, 1)
    expect(scores[0]!.score).toBeLessThanOrEqual(scores.at(-1)!.score)
    expect(scores.filter((s) => s.height > 40)).toEqual([])
  })
  it('counts no overhang where the body is on its raft, and all of it where it hangs', () => {
    const up = (body: Parameters<typeof scoreOrientations>[0]) =>
      scoreOrientations(body, { limit: 40, volume: [60, 60, 60] }).find((s) => s.up[2] > 1 - 1e-9)!
    expect(up(boxBody(10, 10, 30))).toMatchObject({ overhang: 0, scar: 0 })
    // A slab on a foot: what hangs is the slab without its foot.
    const mushroom = concatenate([boxBody(20, 20, 3, -10, -10, 20), boxBody(6, 6, 20, -3, -3, 0)])
    expect(up(mushroom).overhang).toBeCloseTo(20 * 20, 3)
    expect(up(transformed(mushroom, identity3, [0, 0, 40])).overhang).toBeCloseTo(20 * 20, 3)
  })
  it('puts orientations that do not fit the printer last', () => {
    const scores = scoreOrientations(boxBody(50, 10, 10), { limit: 40, volume: [30, 30, 60] })
    expect(scores[0]!.fits).toBe(true)
    expect(scores.at(-1)!.fits).toBe(false)
  })
})

describe('supports', () => {
  const table = concatenate([boxBody(30, 30, 3, -15, -15, 20), boxBody(6, 6, 20.5, -3, -3, 0)])
  it('leave no island, keep clear of the body, stand inside the plate and carry the load', () => {
    const body = transformed(sphereBody(12, 4), identity3, up(12))
    const r = support(body, options)
    if (!r.ok) throw new Error(say(r.problem.message))
    const { tips, bodyFaces, unreached } = r.value.report
    expect(tips.length).toBeGreaterThan(3)
    expect(unreached).toEqual([])
    expect(inspectLayers(r.value.mesh, 0.1).islands).toEqual([])
    expect(Math.max(...tips.map((t) => t.utilisation))).toBeLessThanOrEqual(1)
    // Below every neck the stems keep their clearance.
    const skin = treeOf(transformed(body, identity3, r.value.report.shift)),
      hit = closest()
    const lowest = Math.min(...tips.map((t) => t.point[2])) - 4.6
    let nearest = Infinity,
      looked = 0
    overFaces(
      r.value.mesh,
      0.3,
      (x, y, z) => {
        if (z > lowest && tips.some((t) => Math.hypot(x - t.point[0], y - t.point[1], z - t.point[2]) < 5.5)) return
        looked++
        nearest = Math.min(nearest, closestPoint(skin, x, y, z, hit))
      },
      bodyFaces,
    )
    expect(looked).toBeGreaterThan(1000)
    expect(nearest).toBeGreaterThan(options.clearance * 0.9)
  })
  it('holds the underside of a table at the spacing asked, around its leg', () => {
    const r = support(table, { ...options, lift: 0 })
    if (!r.ok) throw new Error(say(r.problem.message))
    const under = r.value.report.tips.filter((t) => Math.abs(t.point[2] - 20) < 0.1)
    expect(under.length).toBeGreaterThan(40)
    for (const [i, a] of under.entries())
      for (const b of under.slice(i + 1))
        expect(Math.hypot(a.point[0] - b.point[0], a.point[1] - b.point[1])).toBeGreaterThan(options.spacing * 0.55)
  })
  it('keeps hand edits through regeneration, and says which have lost their place', () => {
    const edits = [
      { kind: 'add' as const, point: [10, 10, 20] as const, grade: 'post' as const },
      { kind: 'add' as const, point: [200, 0, 0] as const, grade: 'strut' as const },
    ]
    for (const spacing of [3, 5]) {
      const r = support(table, { ...options, lift: 0, spacing, edits })
      if (!r.ok) throw new Error(say(r.problem.message))
      expect(r.value.report.tips.filter((t) => t.byHand && t.grade === 'post')).toHaveLength(1)
      expect(r.value.report.lostEdits).toBe(1)
    }
    const bare = support(table, { ...options, lift: 0, automatic: false })
    expect(bare.ok && bare.value.mesh.triangles.length).toBe(table.triangles.length)
  })
  it('loads a single tip under a disc with the whole disc', () => {
    const disc = transformed(cylinderBody(10, 4), identity3, up(10))
    const [load] = tipLoads(disc, [{ point: [0, 0, 10], diameter: gradeDefaults.post.tip }], 12_000, 4.5e6)
    expect(load!.force / (12_000 * Math.PI * 1e-4)).toBeCloseTo(1, 1)
    expect(load!.utilisation).toBeCloseTo(load!.force / tipCapacity(0.8, 4.5e6), 6)
    expect(tipCapacity(0.8, 4.5e6)).toBeCloseTo(4.5e6 * Math.PI * 0.0004 ** 2, 9)
  })
})
