import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, sphereBody } from '../testBodies'
import { closest, closestPoint } from './closest'
import { health, healthAtScale } from './health'
import { concatenate, keepFaces, reversed, type Mesh } from './mesh'
import { measure } from './measure'
import { rayAll, rayFirst } from './ray'
import { refine } from './refine'
import { repair } from './repair'
import { selfIntersections } from './selfIntersect'
import { buildTree, treeOf } from './tree'
import { weldExact, weldTolerance } from './weld'
import { topology } from './topology'
import { fromQuaternion, multiplyQuaternions, quaternionBetween, apply3 } from '../math/vectors'
import { transformed } from './transform'
import { buildWinding, windingNumber } from './winding'

const coordinate = fc.double({ min: -50, max: 50, noNaN: true })
const point = fc.tuple(coordinate, coordinate, coordinate)
const unit = fc
  .tuple(fc.double({ min: 0, max: 6.28, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }))
  .map(([a, z]) => {
    const r = Math.sqrt(1 - z * z)
    return [r * Math.cos(a), r * Math.sin(a), z] as const
  })

describe('measures', () => {
  it('knows a box far from the origin exactly', () => {
    const m = measure(boxBody(3, 4, 5, 1000, -2000, 500))
    expect(m.volume).toBeCloseTo(60, 6)
    expect(m.area).toBeCloseTo(94, 6)
    expect(m.centre).toEqual([1001.5, -1998, 502.5])
  })
  it('approaches the sphere with the square of the edge', () => {
    const error = [3, 4, 5].map((n) => 1 - measure(sphereBody(10, n)).volume / ((4 / 3) * Math.PI * 1000))
    expect(error[0]! / error[1]!).toBeCloseTo(4, 0)
    expect(error[1]! / error[2]!).toBeCloseTo(4, 0)
  })
  it('keeps volume under any rotation and negates it when turned inside out', () => {
    fc.assert(
      fc.property(unit, unit, (a, b) => {
        const turned = transformed(boxBody(3, 4, 5), fromQuaternion(quaternionBetween(a, b)), [7, 8, 9])
        expect(measure(turned).volume).toBeCloseTo(60, 3)
        expect(measure(reversed(turned)).volume).toBeCloseTo(-60, 3)
      }),
    )
  })
})

describe('rotations', () => {
  it('takes one direction to the other, opposite ones too', () => {
    fc.assert(
      fc.property(unit, unit, (a, b) => {
        apply3(fromQuaternion(quaternionBetween(a, b)), a).forEach((v, k) => expect(v).toBeCloseTo(b[k]!, 5))
      }),
    )
    apply3(fromQuaternion(quaternionBetween([0, 0, 1], [0, 0, -1])), [0, 0, 1]).forEach((v, k) =>
      expect(v).toBeCloseTo([0, 0, -1][k]!, 6),
    )
  })
  it('multiplies as it turns one after the other', () => {
    fc.assert(
      fc.property(unit, unit, unit, (a, b, c) => {
        const p = quaternionBetween(a, b),
          q = quaternionBetween(b, c)
        apply3(fromQuaternion(multiplyQuaternions(q, p)), a).forEach((v, k) => expect(v).toBeCloseTo(c[k]!, 5))
      }),
    )
  })
})

describe('refine', () => {
  it('leaves no edge longer than asked, changes nothing else, and keeps the body closed', () => {
    const b = boxBody(30, 20, 10),
      r = refine(b, 2.5, 1e6)
    expect(topology(r)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 })
    expect(measure(r).volume).toBeCloseTo(6000, 2)
    expect(measure(r).area).toBeCloseTo(2200, 2)
    for (let h = 0; h < r.triangles.length; h++) {
      const a = r.triangles[h]! * 3,
        c = r.triangles[h % 3 === 2 ? h - 2 : h + 1]! * 3
      expect(
        Math.hypot(
          r.positions[a]! - r.positions[c]!,
          r.positions[a + 1]! - r.positions[c + 1]!,
          r.positions[a + 2]! - r.positions[c + 2]!,
        ),
      ).toBeLessThanOrEqual(2.5)
    }
    expect(refine(b, 100, 1e6)).toBe(b)
  })
  it('splits an edge into as few as it takes, alike on both sides, whatever its length', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 8, noNaN: true }),
        fc.double({ min: 4, max: 30, noNaN: true }),
        (l, side) => {
          const r = refine(boxBody(side, side, side), l, 1e6)
          // Vertices along one edge of the box: a vertex more than there are pieces.
          let along = 0
          for (let v = 0; v < r.positions.length; v += 3)
            if (r.positions[v + 1] === 0 && r.positions[v + 2] === 0) along++
          expect(along - 1).toBe(Math.ceil(Math.fround(side) / l - 1e-9))
          expect(topology(r)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 })
        },
      ),
      { numRuns: 25 },
    )
  })
})

describe('tree', () => {
  const sphere = sphereBody(20, 4),
    tree = buildTree(sphere)
  it('holds every face inside the box of its leaf', () => {
    const seen = new Uint8Array(sphere.triangles.length / 3)
    for (let n = 0; n < tree.nodes; n++)
      for (let i = tree.first[n]!; i < tree.first[n]! + tree.count[n]!; i++) {
        seen[tree.order[i]!] = 1
        for (let k = 0; k < 9; k++) {
          expect(tree.corners[i * 9 + k]!).toBeGreaterThanOrEqual(tree.boxes[n * 6 + (k % 3)]!)
          expect(tree.corners[i * 9 + k]!).toBeLessThanOrEqual(tree.boxes[n * 6 + 3 + (k % 3)]!)
        }
      }
    expect(seen.every(Boolean)).toBe(true)
  })
  it('finds the closest point that brute force finds', () => {
    const small = sphereBody(20, 2),
      t = buildTree(small),
      hit = closest()
    fc.assert(
      fc.property(point, ([x, y, z]) => {
        const d = closestPoint(t, x, y, z, hit)
        let best = Infinity
        for (let f = 0; f < small.triangles.length / 3; f++) {
          const one = buildTree(
            keepFaces(
              small,
              Uint8Array.from({ length: small.triangles.length / 3 }, (_, i) => (i === f ? 1 : 0)),
            ),
          )
          best = Math.min(best, closestPoint(one, x, y, z, closest()))
        }
        expect(d).toBeCloseTo(best, 6)
        expect(Math.hypot(hit.x - x, hit.y - y, hit.z - z)).toBeCloseTo(d, 5)
      }),
      { numRuns: 25 },
    )
  })
  it('respects the search limit', () => {
    const hit = closest()
    expect(closestPoint(tree, 30, 0, 0, hit, 5)).toBe(Infinity)
    expect(closestPoint(tree, 30, 0, 0, hit, 11)).toBeCloseTo(10, 1)
  })
  it('sends rays through a sphere in and out again, by Pythagoras', () => {
    fc.assert(
      fc.property(unit, fc.double({ min: -15, max: 15, noNaN: true }), (d, off) => {
        const side = Math.abs(d[2]) < 0.9 ? [-d[1], d[0], 0] : [0, -d[2], d[1]]
        const l = Math.hypot(...side),
          o = side.map((s, k) => (s / l) * off - d[k]! * 60)
        const hits = rayAll(tree, o[0]!, o[1]!, o[2]!, d[0], d[1], d[2])
        expect(hits.map((h) => h.leaving)).toEqual([false, true])
        expect(hits[1]!.t - hits[0]!.t).toBeCloseTo(2 * Math.sqrt(400 - off * off), 0)
        expect(rayFirst(tree, o[0]!, o[1]!, o[2]!, d[0], d[1], d[2])!.t).toBe(hits[0]!.t)
      }),
    )
  })
})

describe('winding number', () => {
  it('is one inside and nothing outside, and survives a tenth of the faces missing', () => {
    const whole = sphereBody(20, 4)
    const torn = keepFaces(
      whole,
      Uint8Array.from({ length: whole.triangles.length / 3 }, (_, f) => (f % 10 === 0 ? 0 : 1)),
    )
    const w = buildWinding(buildTree(whole)),
      v = buildWinding(buildTree(torn))
    fc.assert(
      fc.property(point, ([x, y, z]) => {
        const r = Math.hypot(x, y, z)
        if (Math.abs(r - 20) < 1.5) return
        expect(windingNumber(w, x, y, z)).toBeCloseTo(r < 20 ? 1 : 0, 1)
        expect(windingNumber(v, x, y, z) > 0.5).toBe(r < 20)
      }),
    )
  })
})

describe('health and repair', () => {
  const broken = (): Mesh => {
    const s = sphereBody(20, 3)
    const holed = keepFaces(
      s,
      Uint8Array.from({ length: s.triangles.length / 3 }, (_, f) => (f < 6 || (f > 200 && f < 204) ? 0 : 1)),
    )
    const triangles = holed.triangles.slice()
    for (let f = 100; f < 120; f++) {
      const a = triangles[f * 3 + 1]!
      triangles[f * 3 + 1] = triangles[f * 3 + 2]!
      triangles[f * 3 + 2] = a
    }
    return concatenate([{ positions: holed.positions, triangles }, boxBody(0.3, 0.3, 0.3, 40, 0, 0)])
  }
  it('calls a clean body sound and returns it as the very same object', () => {
    const s = sphereBody(20, 3)
    expect(health(s)).toMatchObject({ sound: true, shells: 1, openEdges: { count: 0 }, units: 'plausible' })
    expect(repair(s).mesh).toBe(s)
  })
  it('counts holes, turned faces and crumbs, and mends them all', () => {
    const h = health(broken())
    expect(h.holes.count).toBeGreaterThanOrEqual(2)
    expect(h.disoriented.count).toBeGreaterThan(0)
    expect(h.crumbs.count).toBe(1)
    expect(h.sound).toBe(false)
    // The crumb floats 20 mm beside the ball, and does not count in its size.
    for (const s of h.size) expect(s).toBeCloseTo(40, 0)
    expect(healthAtScale(h, 0.1)).toMatchObject({ units: 'looks like inches', crumbs: { count: 1 } })
    expect(healthAtScale(h, 2.54).units).toBe('plausible')
    const r = repair(broken())
    expect(r.report).toMatchObject({ crumbs: 1, turned: 20 })
    expect(health(r.mesh)).toMatchObject({
      openEdges: { count: 0 },
      disoriented: { count: 0 },
      nonManifold: { count: 0 },
      shells: 1,
    })
    expect(measure(r.mesh).volume / measure(sphereBody(20, 3)).volume).toBeCloseTo(1, 2)
  })
  it('turns a body that is inside out, but leaves a cavity as it is', () => {
    expect(health(reversed(boxBody(9, 9, 9))).insideOut.count).toBe(1)
    expect(measure(repair(reversed(boxBody(9, 9, 9))).mesh).volume).toBeCloseTo(729, 3)
    const shell = concatenate([boxBody(20, 20, 20), reversed(boxBody(10, 10, 10, 5, 5, 5))])
    expect(health(shell).sound).toBe(true)
    expect(repair(shell).mesh).toBe(shell)
  })
  it('finds crossing faces of two boxes and none where they only touch', () => {
    expect(
      selfIntersections(treeOf(concatenate([boxBody(10, 10, 10), boxBody(10, 10, 10, 5, 5.3, 5.7)]))).pairs.length,
    ).toBeGreaterThan(0)
    expect(selfIntersections(treeOf(concatenate([boxBody(10, 10, 10), boxBody(10, 10, 10, 10, 0, 0)]))).pairs).toEqual(
      [],
    )
    expect(selfIntersections(treeOf(sphereBody(20, 4))).pairs).toEqual([])
  })
  it('never leaves more open edges than it found, whatever faces are missing', () => {
    const s = sphereBody(10, 2)
    fc.assert(
      fc.property(fc.array(fc.nat(s.triangles.length / 3 - 1), { maxLength: 60 }), (gone) => {
        const torn = keepFaces(
          s,
          Uint8Array.from({ length: s.triangles.length / 3 }, (_, f) => (gone.includes(f) ? 0 : 1)),
        )
        expect(topology(repair(torn).mesh).openEdges).toBeLessThanOrEqual(topology(torn).openEdges)
      }),
      { numRuns: 60 },
    )
  })
  it('comes to an end on a soup of 130,000 loose faces, each a shell of its own', () => {
    // More than a call takes arguments.
    const n = 130_000
    const soup = new Float32Array(n * 9)
    for (let f = 0; f < n; f++) {
      const at = [f % 60, Math.floor(f / 60) % 60, Math.floor(f / 3600)]
      for (let c = 0; c < 3; c++)
        for (let k = 0; k < 3; k++)
          soup[f * 9 + c * 3 + k] = at[k]! + (k === c ? 0.5 : 0) + (k === (f + c) % 3 ? 0.2 : 0)
    }
    const mesh = weldExact(soup)
    const h = health(mesh)
    expect(h.shells).toBe(n)
    expect(h.openEdges.count).toBe(3 * n)
    expect(h.sound).toBe(false)
    expect(repair(mesh).report.holesFilled).toBeGreaterThan(0)
  })
  it('knows a cavity by the shell around it, however many shells there are', () => {
    // Boxes in a row, every other one hollow, and one box inside out with nothing around it.
    const row = Array.from({ length: 40 }, (_, i) => boxBody(4, 4, 4, i * 6, 0, 0))
    const cavities = Array.from({ length: 20 }, (_, i) => reversed(boxBody(2, 2, 2, i * 12 + 1, 1, 1)))
    const lost = reversed(boxBody(3, 3, 3, 0, 20, 0))
    expect(health(concatenate([...row, ...cavities])).insideOut.count).toBe(0)
    const bad = health(concatenate([...row, ...cavities, lost]))
    expect(bad.insideOut.count).toBe(1)
    const mended = repair(concatenate([...row, ...cavities, lost]))
    expect(mended.report.turned).toBe(12)
    expect(measure(mended.mesh).volume).toBeCloseTo(40 * 64 - 20 * 8 + 27, 2)
  })
})

describe('welding', () => {
  it('joins exactly what is within reach of an earlier corner, wherever in space that is', () => {
    const near = fc.record({
      at: fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: -2000, max: 2000 }))),
      by: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -0.004, max: 0.004, noNaN: true }))),
    })
    fc.assert(
      fc.property(fc.array(near, { minLength: 3, maxLength: 30 }), (list) => {
        // Corners in pairs a little apart, a face for every three of them.
        const points = list.flatMap(({ at, by }) => [at, at.map((v, k) => v + by[k]!)])
        const positions = new Float32Array(points.flat())
        const n = points.length
        const mesh = {
          positions,
          triangles: Uint32Array.from({ length: Math.floor(n / 3) * 3 }, (_, i) => i),
        }
        const { merged } = weldTolerance(mesh, 0.003)
        let expected = 0
        const kept: number[] = []
        for (let v = 0; v < n; v++) {
          const d = (w: number): number =>
            Math.hypot(...[0, 1, 2].map((k) => positions[v * 3 + k]! - positions[w * 3 + k]!))
          if (kept.some((w) => d(w) ** 2 <= 0.003 ** 2)) expected++
          else kept.push(v)
        }
        expect(merged).toBe(expected)
      }),
    )
  })
})
