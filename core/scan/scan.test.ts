import { describe, expect, it } from 'vitest'
import { closest, closestPoint } from '../mesh/closest'
import { measure } from '../mesh/measure'
import { bounds, concatenate, reversed, type Mesh } from '../mesh/mesh'
import { smoothed } from '../mesh/smooth'
import { isClosed, topology } from '../mesh/topology'
import { treeOf } from '../mesh/tree'
import { evenNumbers, normalNumbers } from '../math/random'
import { acceptedAsSolid } from '../shape/solid'
import { boxBody, chainBody, sphereBody } from '../testBodies'
import { rebuild } from '../volume/rebuild'
import { above, findFloor } from './floor'
import { nearestNeighbours } from './neighbours'
import { cloudNormals } from './normals'
import { reconstruct } from './reconstruct'
import { scan } from './scanner'
import { say } from '../words/say'

const cloudOf = (mesh: Mesh, noise: number, seed = 1): Mesh => {
  const normal = normalNumbers(evenNumbers(seed))
  return { positions: mesh.positions.map((v) => v + noise * normal()), triangles: new Uint32Array(0) }
}
const kept = (cloud: Mesh, keep: Uint8Array): Mesh => ({
  positions: cloud.positions.filter((_, i) => keep[(i / 3) | 0] === 1),
  triangles: cloud.triangles,
})

describe('neighbours and normals of a cloud', () => {
  it('are the nearest ones by trying all, a lone point included', () => {
    const even = evenNumbers(3)
    const p = Float32Array.from({ length: 900 }, () => even() * 10)
    p.set([500, -300, 20], 0)
    const k = 5,
      near = nearestNeighbours(p, k)
    const apart = (i: number, j: number): number =>
      Math.hypot(p[i * 3]! - p[j * 3]!, p[i * 3 + 1]! - p[j * 3 + 1]!, p[i * 3 + 2]! - p[j * 3 + 2]!)
    for (let i = 0; i < 300; i += 7) {
      const all = [...Array(300).keys()]
        .filter((j) => j !== i)
        .map((j) => apart(i, j))
        .sort((a, b) => a - b)
      for (let q = 0; q < k; q++) expect(apart(i, near[i * k + q]!)).toBe(all[q])
    }
  })
  it('point outward all round, also where the body is waisted', () => {
    const body = chainBody(11)
    const near = nearestNeighbours(body.positions, 12)
    const normals = cloudNormals(body.positions, near, 12)
    const tree = treeOf(body),
      hit = closest()
    let agree = 0
    const e = 0.05
    for (let v = 0; v < normals.length; v += 3) {
      const [x, y, z] = [0, 1, 2].map((a) => body.positions[v + a]! + e * normals[v + a]!) as [number, number, number]
      closestPoint(tree, x, y, z, hit)
      const { positions: p, triangles: t } = body
      const [a, b, c] = [0, 1, 2].map((k) => t[hit.face * 3 + k]! * 3) as [number, number, number]
      const u = [0, 1, 2].map((k) => p[b + k]! - p[a + k]!),
        w = [0, 1, 2].map((k) => p[c + k]! - p[a + k]!)
      const n = [u[1]! * w[2]! - u[2]! * w[1]!, u[2]! * w[0]! - u[0]! * w[2]!, u[0]! * w[1]! - u[1]! * w[0]!]
      if (n[0]! * normals[v]! + n[1]! * normals[v + 1]! + n[2]! * normals[v + 2]! > 0) agree++
    }
    expect(agree / (normals.length / 3)).toBeGreaterThan(0.99)
  })
})

describe('a surface from points', () => {
  it('is the sphere they were taken from, within their noise', async () => {
    const noise = 0.15
    const r = reconstruct(cloudOf(sphereBody(20, 6), noise), { voxel: 0.8, softness: 1.5 })
    if (!r.ok) throw new Error(say(r.problem.message))
    const { mesh, report } = r.value
    expect(await acceptedAsSolid(mesh)).toBe(true)
    expect(Math.cbrt((3 * measure(mesh).volume) / (4 * Math.PI))).toBeCloseTo(20, 1)
    let worst = 0
    for (let i = 0; i < mesh.positions.length; i += 3)
      worst = Math.max(worst, Math.abs(Math.hypot(...mesh.positions.subarray(i, i + 3)) - 20))
    expect(worst).toBeLessThan(2 * noise)
    expect(report.residual).toBeGreaterThan(noise * 0.7)
    expect(report.residual).toBeLessThan(noise * 1.5)
    expect(report.invented).toEqual([])
  })
  it('spans what was not seen, and says where and how much', () => {
    const cloud = cloudOf(sphereBody(20, 6), 0.02)
    const cap = kept(cloud, above(cloud.positions, [0, 0, -14], [0, 0, 1], 0))
    const r = reconstruct(cap, { voxel: 0.8, softness: 1.5 })
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(isClosed(r.value.mesh)).toBe(true)
    expect(r.value.report.invented).toHaveLength(1)
    const [hole] = r.value.report.invented
    expect(hole!.point[2]).toBeLessThan(-12)
    // The missing cap's rim is a circle of radius √(20² − 14²); what spans it is at least about that flat.
    expect(hole!.area).toBeGreaterThan(0.4 * Math.PI * (20 ** 2 - 14 ** 2))
    expect(hole!.area).toBeLessThan(2 * Math.PI * 20 * 6 * 1.2)
  })
  it('answers for ten points, and for a million at one place', () => {
    const ten = cloudOf(sphereBody(20, 0), 0)
    const million: Mesh = { positions: new Float32Array(3e6).fill(7), triangles: new Uint32Array(0) }
    for (const cloud of [ten, million]) {
      const r = reconstruct(cloud, { voxel: 0.5, softness: 1.5 })
      expect(!r.ok && r.problem.code).toBe('too-few-points')
    }
    const sheet = cloudOf(
      {
        positions: Float32Array.from({ length: 3 * 900 }, (_, i) =>
          i % 3 === 2 ? 0 : i % 3 ? ((i / 3) | 0) % 30 : (i / 90) | 0,
        ),
        triangles: new Uint32Array(0),
      },
      0,
    )
    expect(reconstruct(sheet, { voxel: 0.001, softness: 1 }).ok).toBe(false)
  })
})

describe('the simulated scanner, end to end', () => {
  const object = chainBody(5)
  const { cloud, unitsPerMm } = scan(object, {
    stations: [0, 60, 120, 180, 240, 300].flatMap((azimuth) => [
      { azimuth, elevation: 20 },
      { azimuth: azimuth + 30, elevation: 60 },
    ]),
    across: 150,
    noise: 0.0015,
    dropouts: 0.1,
    floor: true,
    seed: 42,
  })
  it('delivers a floor that is found and cut away, and the object in unknown units', () => {
    const floor = findFloor(cloud.positions)!
    expect(floor.share).toBeGreaterThan(0.1)
    const keep = above(cloud.positions, floor.point, floor.normal, floor.scatter * 4)
    const bare = kept(cloud, keep)
    const voxel = unitsPerMm * 0.7
    const r = reconstruct(bare, { voxel, softness: 1.5 })
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(isClosed(r.value.mesh)).toBe(true)
    // Calibrated by the object's own volume as a single known number: within the noise and what was hidden.
    const scale = Math.cbrt(measure(r.value.mesh).volume / measure(object).volume)
    expect(Math.abs(scale / unitsPerMm - 1)).toBeLessThan(0.03)
    expect(findFloor(bare.positions)?.share ?? 0).toBeLessThan(floor.share)
  })
  it('is the same for the same seed, and has no floor where none was asked for', () => {
    const one = { stations: [{ azimuth: 0, elevation: 10 }], across: 20, noise: 0, dropouts: 0, floor: false, seed: 7 }
    expect(scan(object, one)).toEqual(scan(object, one))
    expect(findFloor(cloudOf(sphereBody(10, 4), 0).positions)).toBe(null)
  })
})

describe('rebuilding by winding number', () => {
  it('makes one closed solid of overlapping, torn and flipped shells, of the right volume', async () => {
    const a = boxBody(20, 20, 20),
      b = boxBody(20, 20, 20, 10, 10, 10)
    const torn: Mesh = { positions: a.positions, triangles: a.triangles.subarray(0, a.triangles.length - 3) }
    const soup = concatenate([torn, reversed(b), boxBody(4, 4, 4, 3, 3, 3)])
    expect(isClosed(soup)).toBe(false)
    const made = rebuild(concatenate([a, b]), 0.5)
    expect(topology(made)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 })
    expect(await acceptedAsSolid(made)).toBe(true)
    // Corners are rounded by less than a voxel; the common cube counts once.
    expect(measure(made).volume / (2 * 8000 - 1000)).toBeCloseTo(1, 2)
    const mended = rebuild(soup, 0.5)
    expect(isClosed(mended)).toBe(true)
  })
  it('is on the faces to a tenth of a voxel, and spans a hole with a smooth skin', () => {
    const ball = sphereBody(15, 6)
    const keep = [] as number[]
    for (let f = 0; f < ball.triangles.length; f += 3)
      if (ball.positions[ball.triangles[f]! * 3 + 2]! < 12) keep.push(...ball.triangles.subarray(f, f + 3))
    const open: Mesh = { positions: ball.positions, triangles: Uint32Array.from(keep) }
    const voxel = 0.6
    const made = rebuild(open, voxel)
    expect(isClosed(made)).toBe(true)
    expect(bounds(made).max[2]).toBeGreaterThan(11.5)
    expect(bounds(made).max[2]).toBeLessThan(15.1)
    let near = 0
    for (let i = 0; i < made.positions.length; i += 3) {
      const [x, y, z] = made.positions.subarray(i, i + 3) as unknown as [number, number, number]
      if (z > 11) continue
      near++
      expect(Math.abs(Math.hypot(x, y, z) - 15)).toBeLessThan(voxel / 10)
    }
    expect(near).toBeGreaterThan(1000)
  })
})

describe('smoothing', () => {
  it('takes noise off a sphere without shrinking it', () => {
    const ball = sphereBody(20, 5)
    const normal = normalNumbers(evenNumbers(9))
    const rough: Mesh = { ...ball, positions: ball.positions.map((v) => v + 0.1 * normal()) }
    const spread = (m: Mesh): number => {
      let s = 0
      for (let i = 0; i < m.positions.length; i += 3) s += (Math.hypot(...m.positions.subarray(i, i + 3)) - 20) ** 2
      return Math.sqrt((s * 3) / m.positions.length)
    }
    const fine = smoothed(rough, 10, 1)
    expect(spread(fine)).toBeLessThan(0.5 * spread(rough))
    expect(measure(fine).volume / measure(ball).volume).toBeCloseTo(1, 2)
    const held = smoothed(rough, 10, 0.05)
    let farthest = 0
    held.positions.forEach((v, i) => (farthest = Math.max(farthest, Math.abs(v - rough.positions[i]!))))
    expect(farthest).toBeLessThan(0.0501)
  })
})
