import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sphereBody } from '../testBodies'
import { concatenate, keepFaces } from '../mesh/mesh'
import { measure, vertexNormals } from '../mesh/measure'
import { transformed } from '../mesh/transform'
import { BANDS, deltaE00, hexToLab, parseHex, srgbToXyz, toHex, toLab, toXyz, WHITE, xyzToSrgb } from './optics/colour'
import { BLACK, coatsToHide, filmOver, hiding, opticsOf, PAPER, thinned } from './optics/film'
import { brushLabels, transferLabels, regionAreas } from './surface/regions'
import { reflectanceOf } from './optics/spectrum'
import { MAP, MAPS, surfaceMaps } from './surface/surfaceMaps'

const hex = fc
  .tuple(fc.nat(255), fc.nat(255), fc.nat(255))
  .map((c) => toHex(c.map((v) => v / 255) as [number, number, number]))
const muted = fc
  .tuple(...[0, 1, 2].map(() => fc.integer({ min: 35, max: 225 })))
  .map((c) => toHex(c.map((v) => v / 255) as [number, number, number]))

describe('colour', () => {
  it('has the D65 white of the 2° observer', () => {
    expect(WHITE[0]).toBeCloseTo(0.9505, 2.5)
    expect(WHITE[2]).toBeCloseTo(1.089, 2.5)
    expect(toLab(new Float64Array(BANDS).fill(0.184))[0]).toBeCloseTo(50, 0)
  })
  it('gives the CIEDE2000 differences published by Sharma, Wu and Dalal', () => {
    const pairs: [[number, number, number], [number, number, number], number][] = [
      [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
      [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
      [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
      [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
      [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
      [[50, 2.5, 0], [73, 25, -18], 27.1492],
      [[50, 2.5, 0], [61, -5, 29], 22.8977],
      [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
      [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
    ]
    for (const [a, b, d] of pairs) {
      expect(deltaE00(a, b)).toBeCloseTo(d, 4)
      expect(deltaE00(b, a)).toBeCloseTo(d, 4)
    }
  })
  it('goes to XYZ and back without losing a bit of a hex colour', () => {
    fc.assert(
      fc.property(hex, (h) => {
        expect(toHex(xyzToSrgb(srgbToXyz(parseHex(h)!)))).toBe(h)
      }),
    )
  })
  it('finds a smooth reflectance for every muted colour', () => {
    fc.assert(
      fc.property(muted, (h) => {
        const r = reflectanceOf(hexToLab(h))
        expect(deltaE00(toLab(r), hexToLab(h))).toBeLessThan(0.05)
        expect(r.every((v) => v > 0 && v < 1)).toBe(true)
      }),
      { numRuns: 60 },
    )
  })
})

describe('film', () => {
  it('shows the ground at nothing and itself at full hiding, and goes from one to the other steadily', () => {
    fc.assert(
      fc.property(muted, fc.double({ min: 0.1, max: 0.98, noNaN: true }), (h, opacity) => {
        const o = opticsOf(h, opacity)
        expect([...filmOver(o, 0, PAPER)]).toEqual([...PAPER])
        const goal = hiding(o)
        filmOver(o, 1e8, BLACK).forEach((v, i) => expect(v).toBeCloseTo(goal[i]!, 3))
        let last = toXyz(filmOver(o, 1, BLACK))[1]
        for (const x of [4, 12, 40, 120, 400]) {
          const y = toXyz(filmOver(o, x, BLACK))[1]
          if (toXyz(goal)[1] > 0.1) expect(y).toBeGreaterThanOrEqual(last - 1e-9)
          last = y
        }
      }),
      { numRuns: 40 },
    )
  })
  it('has the opacity it was given, and the colour', () => {
    fc.assert(
      fc.property(muted, fc.double({ min: 0.15, max: 0.95, noNaN: true }), (h, opacity) => {
        const o = opticsOf(h, opacity)
        expect(deltaE00(toLab(hiding(o)), hexToLab(h))).toBeLessThan(0.3)
        const contrast = toXyz(filmOver(o, 20, BLACK))[1] / toXyz(filmOver(o, 20, PAPER))[1]
        // Dark paints cannot contrast less than their own depth allows.
        if (contrast > 0.1) expect(contrast).toBeCloseTo(opacity, 2)
      }),
      { numRuns: 40 },
    )
  })
  it('solves the law: two half films over each other are one whole', () => {
    const o = opticsOf('#9a3324', 0.6)
    const once = filmOver(o, 30, PAPER),
      twice = filmOver(o, 15, filmOver(o, 15, PAPER))
    once.forEach((v, i) => expect(twice[i]!).toBeCloseTo(v, 9))
    filmOver(thinned(o, 0.5), 60, PAPER).forEach((v, i) => expect(v).toBeCloseTo(once[i]!, 9))
  })
  it('needs more coats the less a paint hides, and fewer over a ground like itself', () => {
    expect(coatsToHide(opticsOf('#e7b416', 0.9), BLACK)!).toBeLessThan(coatsToHide(opticsOf('#e7b416', 0.5), BLACK)!)
    expect(coatsToHide(opticsOf('#f3f1ea', 0.6), PAPER)!).toBeLessThan(coatsToHide(opticsOf('#f3f1ea', 0.6), BLACK)!)
    expect(coatsToHide(opticsOf('#9c1f2b', 0.05), BLACK)).toBeNull()
  })
})

describe('maps and labels', () => {
  it('finds the crease between two balls, no recess on one, and light on top only', () => {
    const pair = concatenate([sphereBody(10, 5), sphereBody(10, 5, [16, 0, 0])])
    const { data } = surfaceMaps(pair, { brush: 2, direction: [0, 0, 1] })
    let crease = 0,
      free = 0,
      top = 1,
      under = 0
    for (let v = 0; v < pair.positions.length / 3; v++) {
      const [x, y, z] = [pair.positions[v * 3]!, pair.positions[v * 3 + 1]!, pair.positions[v * 3 + 2]!]
      if (Math.abs(x - 8) < 0.35 && Math.hypot(y, z) > 5.9) crease = Math.max(crease, data[v * MAPS + MAP.recess]!)
      if (x < -4) free = Math.max(free, data[v * MAPS + MAP.recess]!)
      if (z > 9.9) top = Math.min(top, data[v * MAPS + MAP.spray]!)
      if (z < -5) under = Math.max(under, data[v * MAPS + MAP.spray]!)
    }
    expect(crease).toBeGreaterThan(0.5)
    expect(free).toBeLessThan(0.1)
    expect(top).toBeGreaterThan(0.9)
    expect(under).toBe(0)
  })
  it('brushes only the near side, and carries labels to a copy of another size', () => {
    const s = sphereBody(10, 4),
      labels = new Uint8Array(s.positions.length / 3)
    brushLabels(s, vertexNormals(s), labels, [0, 0, 10], [0, 0, 1], 30, 2)
    for (let v = 0; v < labels.length; v++) if (s.positions[v * 3 + 2]! < -2.5) expect(labels[v]).toBe(0)
    const areas = regionAreas(s, labels)
    expect(areas[0]! + areas[2]!).toBeCloseTo(measure(s).area, 1)
    expect(areas[2]!).toBeGreaterThan(areas[0]!)
    const big = transformed(sphereBody(10, 5), [3, 0, 0, 0, 3, 0, 0, 0, 3], [9, 9, 9])
    const { labels: carried, by, fresh } = transferLabels(s, labels, big)
    expect([by, fresh]).toEqual(['box', 0])
    for (let v = 0; v < carried.length; v++) {
      const z = (big.positions[v * 3 + 2]! - 9) / 3
      if (z > 0) expect(carried[v]).toBe(2)
      if (z < -4) expect(carried[v]).toBe(0)
    }
  })
  it('carries labels to a half that was cut off where it stands, and tells how much of its skin is new', () => {
    const ball = sphereBody(10, 5)
    const p = ball.positions
    const labels = Uint8Array.from({ length: p.length / 3 }, (_, v) => (p[3 * v]! > 0 ? 4 : 1))
    const upper = keepFaces(
      ball,
      Uint8Array.from({ length: ball.triangles.length / 3 }, (_, f) =>
        [0, 1, 2].every((k) => p[3 * ball.triangles[3 * f + k]! + 2]! > 3) ? 1 : 0,
      ),
    )
    // The face of the cut: a flat grid inside the ball.
    const grid: number[] = []
    for (let x = -6; x <= 6; x++) for (let y = -6; y <= 6; y++) grid.push(x, y, 3)
    const faces = Array.from({ length: 12 * 12 }, (_, i) => {
      const o = Math.floor(i / 12) * 13 + (i % 12)
      return [o, o + 13, o + 1, o + 1, o + 13, o + 14]
    }).flat()
    const half = concatenate([upper, { positions: Float32Array.from(grid), triangles: Uint32Array.from(faces) }])
    const { labels: carried, by, fresh } = transferLabels(ball, labels, half)
    expect(by).toBe('place')
    expect(fresh).toBeCloseTo(169 / carried.length, 2)
    for (let v = 0; v < upper.positions.length / 3; v++) {
      const x = half.positions[3 * v]!
      if (Math.abs(x) > 0.5) expect(carried[v]).toBe(x > 0 ? 4 : 1)
    }
  })
})
