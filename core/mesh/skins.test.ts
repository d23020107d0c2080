import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, chainBody, cylinderBody, sheetBody, sphereBody } from '../testBodies'
import { clipAt } from './clip'
import { closest, closestPoint } from './closest'
import { contourLength, contours } from './contours'
import { loopsOf } from './loops'
import { measure, meanEdge, vertexNormals } from './measure'
import { bounds, concatenate, faceCount, keepFaces, splitFaces, type Mesh } from './mesh'
import { planeHull } from './planeHull'
import { Sections, sectionArea, sectionPerimeter } from './sections'
import { simplify } from './simplify'
import { smoothed, vertexNeighbours } from './smooth'
import { isClosed } from './topology'
import { transferColours } from './transferColours'
import { treeOf } from './tree'
import { weldExact, weldTolerance } from './weld'

/** Greatest distance of a corner of one from the skin of another, mm. */
function farthest(from: Mesh, to: Mesh): number {
  const tree = treeOf(to),
    hit = closest(),
    p = from.positions
  let most = 0
  for (let v = 0; v < p.length; v += 3) most = Math.max(most, closestPoint(tree, p[v]!, p[v + 1]!, p[v + 2]!, hit))
  return most
}
const heights = (mesh: Mesh): Float64Array =>
  Float64Array.from({ length: mesh.positions.length / 3 }, (_, v) => mesh.positions[3 * v + 2]!)

describe('horizontal sections', () => {
  it('of a ball have the area and the way round that Pythagoras gives, and close', () => {
    const cut = new Sections(sphereBody(10, 5))
    for (const z of [-9, -4.2, 0, 3, 8.5]) {
      const r2 = 100 - z * z
      const n = cut.at(z)
      expect(sectionArea(cut.segments, n) / (Math.PI * r2)).toBeCloseTo(1, 2)
      expect(sectionPerimeter(cut.segments, n) / (2 * Math.PI * Math.sqrt(r2))).toBeCloseTo(1, 2)
      const { loops, open } = loopsOf(cut.segments, n)
      expect([loops.length, open]).toEqual([1, 0])
    }
    expect(cut.at(10.5)).toBe(0)
    // A lower plane begins again.
    expect(cut.at(0)).toBeGreaterThan(0)
  })
  it('add up to the volume, whatever the body', () => {
    for (const seed of [1, 2, 3]) {
      const body = chainBody(seed),
        { min, max } = bounds(body),
        cut = new Sections(body)
      const layers = 400,
        h = (max[2] - min[2]) / layers
      let volume = 0
      for (let i = 0; i < layers; i++) volume += h * sectionArea(cut.segments, cut.at(min[2] + (i + 0.5) * h))
      expect(volume / measure(body).volume).toBeCloseTo(1, 3)
    }
  })
  it('go round the solid to the left: outlines one way, holes the other', () => {
    const hole = boxBody(4, 4, 12, 3, 3, -1)
    for (let f = 0; f < hole.triangles.length; f += 3) {
      const [a, b] = [hole.triangles[f]!, hole.triangles[f + 1]!]
      hole.triangles[f] = b
      hole.triangles[f + 1] = a
    }
    const cut = new Sections(concatenate([boxBody(10, 10, 10), hole]))
    const n = cut.at(5)
    expect(sectionArea(cut.segments, n)).toBeCloseTo(100 - 16, 9)
    const turns = loopsOf(cut.segments, n).loops.map((loop) => {
      let twice = 0
      for (let i = 0; i < loop.length; i += 2) {
        const j = (i + 2) % loop.length
        twice += loop[i]! * loop[j + 1]! - loop[j]! * loop[i + 1]!
      }
      return twice / 2
    })
    expect(turns.sort((a, b) => a - b)).toEqual([-16, 100])
  })
  it('of a torn body are counted as open and give no outline that is not there', () => {
    const box = boxBody(10, 10, 10)
    const keep = new Uint8Array(faceCount(box)).fill(1)
    // The front is missing.
    keep[4] = keep[5] = 0
    const cut = new Sections(keepFaces(box, keep))
    const { loops, open } = loopsOf(cut.segments, cut.at(5))
    expect(loops).toHaveLength(0)
    expect(open).toBeGreaterThan(0)
  })
})

describe('lines of one value on the skin', () => {
  const tube = cylinderBody(5, 20)
  it('go round a cylinder at one height, closed, as long as its edge', () => {
    const lines = contours(tube, heights(tube), 7.3)
    expect(lines.map((l) => l.closed)).toEqual([true])
    expect(contourLength(lines[0]!)).toBeCloseTo(2 * Math.PI * 5, 1)
    for (let i = 2; i < lines[0]!.points.length; i += 3) expect(lines[0]!.points[i]).toBeCloseTo(7.3, 4)
  })
  it('end where the faces that are looked at end', () => {
    const sheet = sheetBody(10, 10, (u, v) => [10 * u, 10 * v, v])
    const lines = contours(sheet, heights(sheet), 0.55)
    expect(lines.map((l) => l.closed)).toEqual([false])
    expect(contourLength(lines[0]!)).toBeCloseTo(10, 5)
    const half = new Uint8Array(faceCount(sheet)).map((_, f) => (Math.floor(f / 2) % 10 < 5 ? 1 : 0))
    expect(contourLength(contours(sheet, heights(sheet), 0.55, half)[0]!)).toBeCloseTo(5, 5)
  })
  it('cut the skin into what is above and what is below, with nothing lost and nothing twice', () => {
    const body = sphereBody(8, 4)
    const area = measure(body).area,
      z = heights(body)
    fc.assert(
      fc.property(fc.double({ min: -7.5, max: 7.5, noNaN: true }), (level) => {
        const above = clipAt(body, z, level),
          below = clipAt(body, z.map((v) => -v) as Float64Array, -level)
        // A crossing keeps a fiftieth of its edge off either corner.
        expect((measure(above).area + measure(below).area) / area).toBeCloseTo(1, 2)
        expect(bounds(above).min[2]).toBeGreaterThan(level - 0.05)
        // Archimedes: the skin of a ball's cap goes with its height.
        expect(measure(above).area / (2 * Math.PI * 8 * (8 - level))).toBeCloseTo(1, 1)
      }),
      { numRuns: 30 },
    )
  })
})

describe('smoothing', () => {
  it('keeps volume where plain averaging would lose it, joins as they were, and moves nothing past its limit', () => {
    const body = sphereBody(10, 4)
    const rough = { ...body, positions: body.positions.map((c, i) => c * (1 + 0.02 * Math.sin(37 * i))) }
    const out = smoothed(rough, 10, 0.3)
    expect(out.triangles).toBe(rough.triangles)
    expect(measure(out).volume / measure(rough).volume).toBeCloseTo(1, 1)
    // Less skin for the same volume: the ripples are gone.
    expect(measure(out).area).toBeLessThan(measure(rough).area * 0.99)
    for (let i = 0; i < out.positions.length; i += 3) {
      const d = Math.hypot(...[0, 1, 2].map((k) => out.positions[i + k]! - rough.positions[i + k]!))
      expect(d).toBeLessThanOrEqual(0.3 + 1e-5)
    }
  })
  it('knows of every vertex those that an edge leads to, each once', () => {
    const { triangles, positions } = boxBody(1, 2, 3)
    const n = positions.length / 3
    const { starts, near } = vertexNeighbours(triangles, n)
    for (let v = 0; v < n; v++) {
      const others = new Set<number>()
      for (let f = 0; f < triangles.length; f += 3) {
        const face = [...triangles.slice(f, f + 3)]
        if (face.includes(v)) face.filter((w) => w !== v).forEach((w) => others.add(w))
      }
      expect([...near.slice(starts[v], starts[v + 1])]).toEqual([...others].sort((a, b) => a - b))
    }
  })
})

describe('fewer faces', () => {
  it('stay within the deviation asked, closed, down to the count or until that would be too far', async () => {
    const body = chainBody(4)
    for (const error of [0.02, 0.1]) {
      const fewer = await simplify(body, 50, error)
      expect(faceCount(fewer)).toBeLessThan(faceCount(body))
      expect(isClosed(fewer)).toBe(true)
      // Quadrics estimate the deviation; measured it stays near what was asked.
      expect(farthest(body, fewer)).toBeLessThan(3 * error)
    }
    expect(await simplify(body, faceCount(body), 1)).toBe(body)
  })
})

describe('welding', () => {
  it('joins a soup of loose faces into the body that it came from', () => {
    for (const body of [boxBody(3, 4, 5), sphereBody(6, 2)]) {
      const soup = Float32Array.from(
        Array.from(body.triangles).flatMap((v) => [...body.positions.slice(3 * v, 3 * v + 3)]),
      )
      const welded = weldExact(soup)
      expect(welded.positions.length).toBe(body.positions.length)
      expect(isClosed(welded)).toBe(true)
      expect(measure(welded).volume).toBeCloseTo(measure(body).volume, 4)
    }
  })
  it('within a tolerance counts what it merged, and merges nothing that is farther apart', () => {
    const a = boxBody(1, 1, 1),
      b = boxBody(1, 1, 1, 1.005, 0, 0)
    expect(weldTolerance(concatenate([a, b]), 0.01).merged).toBe(4)
    expect(weldTolerance(concatenate([a, b]), 0.001).merged).toBe(0)
  })
})

describe('colours of an old skin', () => {
  it('come over to a new one by the nearest place, mixed as they are between corners', () => {
    const old = sheetBody(1, 1, (u, v) => [10 * u, 10 * v, 0])
    const coloured = { ...old, colours: Uint8Array.from([0, 0, 0, 200, 0, 0, 0, 100, 0, 200, 100, 0]) }
    const fresh = sheetBody(7, 5, (u, v) => [10 * u, 10 * v, 0.2])
    const { colours } = transferColours(coloured, fresh)
    for (let v = 0; v < fresh.positions.length / 3; v++) {
      expect(Math.abs(colours![3 * v]! - 20 * fresh.positions[3 * v]!)).toBeLessThanOrEqual(1)
      expect(Math.abs(colours![3 * v + 1]! - 10 * fresh.positions[3 * v + 1]!)).toBeLessThanOrEqual(1)
    }
    expect(transferColours(old, fresh)).toBe(fresh)
  })
})

describe('measures of the skin', () => {
  it('are those of the parts that it is split into', () => {
    const both = concatenate([boxBody(2, 2, 2), sphereBody(3, 2, [20, 0, 0])])
    const [first, rest] = splitFaces(both, 12)
    expect(measure(first).volume).toBeCloseTo(8, 5)
    expect(measure(first).volume + measure(rest).volume).toBeCloseTo(measure(both).volume, 3)
    expect(faceCount(first) + faceCount(rest)).toBe(faceCount(both))
    expect(meanEdge(boxBody(1, 1, 1))).toBeCloseTo((12 + 6 * Math.SQRT2) / 18, 5)
  })
  it('have normals at corners that point away from the middle of a ball', () => {
    const ball = sphereBody(5, 3),
      normals = vertexNormals(ball)
    for (let i = 0; i < normals.length; i += 3)
      for (let k = 0; k < 3; k++) expect(normals[i + k]!).toBeCloseTo(ball.positions[i + k]! / 5, 1)
  })
})

describe('the hull of places in a plane', () => {
  it('turns left at every corner and has every place inside, its corners among them', () => {
    const places = fc.array(fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 })), {
      minLength: 3,
      maxLength: 40,
    })
    fc.assert(
      fc.property(places, (list) => {
        const hull = planeHull(list)
        fc.pre(hull.length > 2)
        const side = (i: number, p: readonly [number, number]): number => {
          const a = hull[i]!,
            b = hull[(i + 1) % hull.length]!
          return (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])
        }
        hull.forEach((corner, i) => {
          expect(list).toContainEqual(corner)
          expect(side(i, hull[(i + 2) % hull.length]!)).toBeGreaterThan(0)
          for (const p of list) expect(side(i, p)).toBeGreaterThanOrEqual(0)
        })
      }),
    )
  })
})
