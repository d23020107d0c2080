import { describe, expect, it } from 'vitest'
import { closest, closestPoint } from '../../mesh/closest'
import { bounds, concatenate, splitFaces } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { identity3, type Vector3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { treeOf } from '../../mesh/tree'
import { boxBody, chainBody, sphereBody, supportWish } from '../../testBodies'
import { orient } from '../../shape/orient'
import { presupported } from './presupported'
import { inspectLayers } from '../slice/slice'
import { support, type SupportOptions, type SupportReport } from './support'
import { tipCapacity, tipLoads } from './supportLoad'
import { gradeDefaults, obstacle } from './supportRoute'
import { joinTrunks } from './trunk'
import { say } from '../../words/say'

const options = supportWish
const made = (mesh: Parameters<typeof support>[0], more: Partial<SupportOptions> = {}) => {
  const r = support(mesh, { ...options, ...more })
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}
const worst = (r: SupportReport): number => Math.max(0, ...r.tips.map((t) => t.utilisation))
/** A tip as it lies on the body before lifting, where edits and paint are kept. */
const before = (r: SupportReport, p: Vector3): Vector3 => [0, 1, 2].map((k) => p[k]! - r.shift[k]!) as never
const plainTable = (): ReturnType<typeof made> => (tableMade ??= made(table))
let tableMade: ReturnType<typeof made> | undefined
const table = concatenate([boxBody(40, 40, 3, -20, -20, 20), boxBody(6, 6, 20.5, -3, -3, 0)])

it('works a single tip under a disc as hard as the formula says', () => {
  // A plate of 20 × 20 mm on one tip of 0.5 mm: 12 kPa · 400 mm² = 4.8 N; the tip holds 4.5 MPa · π·0.25².
  const [load] = tipLoads(boxBody(20, 20, 4, -10, -10, 10), [{ point: [0, 0, 10], diameter: 0.5 }], 12_000, 4.5e6)
  expect(load!.force).toBeCloseTo(4.8, 1)
  expect(tipCapacity(0.5, 4.5e6)).toBeCloseTo(4.5 * Math.PI * 0.0625, 6)
  expect(load!.utilisation / (4.8 / (4.5 * Math.PI * 0.0625))).toBeCloseTo(1, 1)
})

describe('schools of supporting', () => {
  it('broad: generated closer and thinned out to fewer, every island still held and no tip overloaded', () => {
    const body = orient(chainBody(77, 7), [0, 0, 0, 1]).mesh
    for (const [mesh, some] of [
      [table, 20],
      [body, 0],
    ] as const) {
      const plain = made(mesh, { spacing: 3 * 0.8 }),
        broad = made(mesh, { school: 'broad' })
      expect(broad.report.thinned).toBeGreaterThanOrEqual(some)
      expect(plain.report.tips.length - broad.report.tips.length).toBe(broad.report.thinned)
      expect(worst(broad.report)).toBeLessThanOrEqual(Math.max(1, worst(plain.report)))
      const confessed = broad.report.unreached.filter((u) => u.island).length
      expect(inspectLayers(broad.mesh, 0.1).islands.filter((i) => i.area > 0.25).length).toBeLessThanOrEqual(confessed)
    }
  })
  it('heavy: fewer and thicker', () => {
    const plain = plainTable(),
      heavy = made(table, { school: 'heavy' })
    expect(heavy.report.tips.length).toBeLessThan(0.6 * plain.report.tips.length)
    expect(heavy.report.tips.every((t) => t.grade === 'post')).toBe(true)
  })
  it('on joint faces only: stands there alone, and says which islands that leaves in the air', () => {
    // The joint is one quarter of the table's underside.
    const only = [{ point: [12, 12, 20] as const, radius: 14 }]
    const { report } = made(table, { school: 'joints', only })
    expect(report.tips.length).toBeGreaterThan(3)
    for (const t of report.tips) {
      const [x, y] = before(report, t.point)
      expect(Math.hypot(x - 12, y - 12)).toBeLessThan(14)
    }
    expect(worst(report)).toBeGreaterThan(worst(plainTable().report))
    const ball = transformed(sphereBody(8, 4), identity3, [0, 0, 8])
    const none = made(ball, { school: 'joints', only: [{ point: [0, 0, 16], radius: 3 }] }).report
    expect(none.tips).toEqual([])
    expect(none.barred.length).toBeGreaterThan(0)
  })
})

describe('paint and the hand', () => {
  it('lets nothing stand where none is painted, twice as much where more is, and keeps focal areas to whiskers', () => {
    const plain = plainTable().report
    const here = { point: [12, 12, 20] as const, radius: 16 }
    const inside = (r: SupportReport): SupportReport['tips'] =>
      r.tips.filter((t) => {
        const [x, y] = before(r, t.point)
        return Math.hypot(x - 12, y - 12) < 7
      })
    expect(inside(plain).length).toBeGreaterThan(4)
    expect(inside(made(table, { none: [here] }).report)).toEqual([])
    expect(inside(made(table, { more: [here] }).report).length).toBeGreaterThan(1.7 * inside(plain).length)
    const focal = made(table, { focal: [here], greenStrength: 4.5e7 }).report
    expect(focal.focalScar).toBeGreaterThan(0)
    expect(inside(focal).every((t) => t.focal && t.grade === 'whisker')).toBe(true)
  })
  it('moves a tip, clears a place, regrades, and does so again when all is grown again', () => {
    const first = plainTable().report
    const tip = first.tips.find((t) => !t.island && t.point[0] > 5 && t.point[1] > 5)!
    const at = before(first, tip.point)
    const to: Vector3 = [at[0] + 1.2, at[1], at[2]]
    const clearAt: Vector3 = [-12, -12, 20]
    const edits: SupportOptions['edits'] = [
      { kind: 'move', point: at, to },
      { kind: 'remove', point: clearAt, radius: 6 },
    ]
    for (const spacing of [3, 2.6]) {
      const r = made(table, { edits, spacing }).report
      expect(r.lostEdits).toBe(0)
      const near = (p: Vector3, reach: number): number =>
        r.tips.filter((t) => {
          const q = before(r, t.point)
          return Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]) < reach
        }).length
      expect(near(to, 0.05)).toBe(1)
      expect(near(at, 0.5)).toBe(0)
      expect(near(clearAt, 4)).toBe(0)
    }
    expect(made(table, { edits: [{ kind: 'move', point: [90, 0, 0], to }] }).report.lostEdits).toBe(1)
  })
})

describe('trunks', () => {
  it('take over neighbours’ stems, save resin, keep clear of the body', () => {
    const body = transformed(chainBody(4444, 7), identity3, [0, 0, 0])
    const { mesh, report } = made(orient(body, [0, 0, 0, 1]).mesh)
    expect(report.joined).toBeGreaterThan(0)
    expect(report.tips.filter((t) => t.landsOn === 'trunk')).toHaveLength(report.joined)
    const [own, supports] = splitFaces(mesh, report.bodyFaces)
    const skin = treeOf(own),
      hit = closest()
    const low = Math.min(...report.tips.map((t) => t.point[2])) - 2 * gradeDefaults.post.neck
    const p = supports.positions
    for (let i = 0; i < p.length; i += 9)
      if (p[i + 2]! < low) expect(closestPoint(skin, p[i]!, p[i + 1]!, p[i + 2]!, hit)).toBeGreaterThan(0.9 * 0.6)
    expect(bounds(supports).min[2]).toBeGreaterThan(-1e-4)
  })
  it('are only joined where that saves, and never through the body', () => {
    const far = obstacle(treeOf(boxBody(1, 1, 1, 200, 200, 0)))
    const stem = (x: number, high: number) => ({
      path: [
        [x, 0, high + 1],
        [x, 0, high],
        [x, 0, 0],
      ] as Vector3[],
      radius: 0.6,
      tip: 0.2,
    })
    const joined = joinTrunks(far, [stem(0, 30), stem(4, 20)], 0.6)
    expect([...joined.on]).toEqual([-1, 0])
    expect(joined.paths[1]!.at(-1)).toEqual([0, 0, 20 - 1.1 * 4])
    // A stem so short that its branch would be as long stays.
    expect([...joinTrunks(far, [stem(0, 30), stem(4, 5)], 0.6).on]).toEqual([-1, -1])
    const wall = obstacle(treeOf(boxBody(1, 20, 30, 1.5, -10, 0)))
    expect([...joinTrunks(wall, [stem(0, 30), stem(4, 20)], 0.6).on]).toEqual([-1, -1])
  })
})

it('knows a file that carries supports already from a sculpt that stands on its own', () => {
  const { mesh } = made(transformed(sphereBody(12, 4), identity3, [0, 0, 12]), { spacing: 2.5 })
  const found = presupported(mesh)
  expect(found).not.toBeNull()
  expect(found!.stems).toBeGreaterThan(8)
  expect(found!.raft).toBe(true)
  for (const body of [sphereBody(12, 4), table, orient(chainBody(5, 7), [0, 0, 0, 1]).mesh])
    expect(presupported(body)).toBeNull()
  expect(measure(mesh).volume).toBeGreaterThan(0)
})
