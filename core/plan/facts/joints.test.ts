import { describe, expect, it } from 'vitest'
import { checkOf, type Check, type CheckReport } from '../../checks/registry'
import type { CheckDefinition, CheckHost } from '../../checks/check'
import { concatenate, type Mesh } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { operation, type OperationInput, type OperationReport } from '../../operations/registry'
import { boxBody } from '../../testBodies'
import { asSold } from './asSold'
import { jointsOf, type Ask, type JointSources } from './joints'
import { madePart, partFacts, printedHeight, printedUp, type MadePart, type MadeStep } from './madeParts'
import { say } from '../../words/say'

/** A column of 10 × 10 × 30 mm stands 0.1 mm over the middle of a plinth of 20 × 20 × 10 mm; a tool is far away. */
const meshes: Record<string, Mesh> = {
  plinth: boxBody(20, 20, 10, -10, -10, 0),
  column: boxBody(10, 10, 30, -5, -5, 10.1),
  tool: boxBody(5, 5, 5, 200, 0, 0),
  nothing: concatenate([]),
}
/** Meshes go by their hashes: here by their names, made as long. */
const hashOf = (name: string): string => Buffer.from(name).toString('hex').padEnd(64, '0')
const byHash = new Map(Object.entries(meshes).map(([name, mesh]) => [hashOf(name), mesh]))
const part = (id: string, steps: MadeStep[] = []): MadePart => ({
  ...madePart(id, id, hashOf(id), steps),
  measures: measure(meshes[id]!),
})
const step = (op: OperationInput, report: object | null = null, mesh: string | null = null): MadeStep => ({
  op: operation.parse(op),
  done: report && { mesh, report: { kind: op.kind, ...report } as unknown as OperationReport },
})
const host = { progress: () => undefined } as unknown as CheckHost
/** The real checks, run here. */
const ask: Ask = async <K extends Check['kind']>(asked: { mesh: string; check: Extract<Check, { kind: K }> }[]) => {
  const out: (CheckReport<K> | null)[] = []
  for (const { mesh, check } of asked) {
    const found = checkOf(check.kind) as unknown as CheckDefinition
    const params = found.schema.parse(check)
    const r = await found.run({
      meshes: [byHash.get(mesh)!, ...found.inputs(params).map((h) => byHash.get(h)!)],
      params,
      host,
    })
    if (!r.ok) throw new Error(say(r.problem.message))
    out.push(r.value.report as CheckReport<K>)
  }
  return out
}
const sources = (more: Partial<JointSources> = {}): JointSources => ({
  ask,
  skinRound: () => Promise.resolve(null),
  materialOf: () => ({ name: 'resin', density: 1.1, infill: 1 }),
  tried: {},
  ...more,
})

describe('the joints of a piece', () => {
  it('are where parts meet, with what hangs on each, and none where they lie apart', async () => {
    const joints = await jointsOf(
      [part('plinth'), part('column'), part('tool')],
      sources({ tried: { 'plinth+column': { tight: 0.1 } } }),
    )
    expect(joints).toHaveLength(1)
    const [j] = joints
    expect(j!.key).toBe('plinth+column')
    expect(j!.tried).toEqual({ tight: 0.1 })
    // 10 × 10 mm lie over each other, in the middle, 0.1 mm apart; some beside them counts as near.
    expect(j!.fit.area).toBeGreaterThan(80)
    expect(j!.fit.area).toBeLessThan(200)
    expect(j!.fit.p50).toBeCloseTo(0.1, 2)
    for (const [k, v] of [0, 0, 10].entries()) expect(Math.abs(j!.middle!.point[k]! - v)).toBeLessThan(2)
    expect(j!.middle!.outward[2]).toBeCloseTo(1, 2)
    expect(j!.middle!.radius).toBeCloseTo(Math.sqrt(j!.fit.area / Math.PI), 9)
    // The column hangs on it: 3 ml of 1.1 g.
    expect(j!.load!.mass).toBeCloseTo(3.3, 3)
    expect(j!.load!.pin.wire).toBeGreaterThan(0)
    expect(j!.access).toHaveLength(2)
    expect([j!.fixed, j!.mixed, j!.surface]).toEqual([false, false, null])
  })
  it('carry a hollow part by its shell, and know pins, other materials and what is painted beside them', async () => {
    const hollow = step(
      { kind: 'hollow', wall: 2 },
      { measures: { ...measure(meshes.column!), volume: 1000 }, hollow: { cavityVolume: 2000 } },
    )
    const pin = (shape: 'pin' | 'key', x: number): MadeStep =>
      step({
        kind: 'fix',
        fixings: [{ shape, role: 'plug', point: [x, 0, 10], direction: [0, 0, 1], width: 2, length: 5 }],
      })
    const seen: [string, number, number][] = []
    const [j] = await jointsOf(
      [part('plinth', [pin('pin', 0)]), part('column', [hollow])],
      sources({
        materialOf: (id) =>
          id === 'column'
            ? { name: 'metal', density: 9, infill: 0.5 }
            : { name: 'filament', density: 1.2, infill: 0.15 },
        skinRound: (id, _at, from, to) => {
          seen.push([id, from, to])
          return Promise.resolve(id === 'column' ? 'skin' : null)
        },
      }),
    )
    expect(j!.load!.mass).toBeCloseTo(4.5, 6)
    expect([j!.fixed, j!.mixed, j!.surface]).toEqual([true, true, 'skin'])
    // First the one, then the other; round the joint's edge and not over it.
    expect(seen.map(([id]) => id)).toEqual(['plinth', 'column'])
    for (const [, from, to] of seen) {
      expect(from).toBeLessThan(j!.middle!.radius)
      expect(to).toBeGreaterThan(j!.middle!.radius + 4)
    }
    // A key only keeps them from turning, and a pin elsewhere holds something else.
    for (const other of [pin('key', 0), pin('pin', 9)]) {
      const [loose] = await jointsOf([part('plinth', [other]), part('column')], sources())
      expect(loose!.fixed).toBe(false)
    }
  })
})

describe('a part as a plan sees it', () => {
  const scaled = step({ kind: 'scale', factor: 2 }, { measures: { ...measure(meshes.column!), area: 7 } }, 'scaled')
  it('stands in the piece as the last step before hollowing that is done has left it', () => {
    const hollowed = step({ kind: 'hollow', wall: 2 }, { measures: measure(meshes.tool!) }, 'hollowed')
    expect(madePart('a', 'a', 'sculpt', [scaled, hollowed])).toMatchObject({ mesh: 'scaled', measures: { area: 7 } })
    const waiting = step({ kind: 'place' })
    expect(madePart('a', 'a', 'sculpt', [waiting, scaled]).mesh).toBe('sculpt')
    expect(madePart('a', 'a', 'sculpt', []).measures).toBeNull()
    // In the printer it may be as tall as it is wide here.
    expect(printedHeight(madePart('a', 'a', 'sculpt', [scaled, hollowed]))).toBe(5)
    expect(printedHeight(madePart('a', 'a', 'sculpt', []))).toBe(0)
  })
  it('knows which way was up when it was printed', () => {
    // Tipped by a quarter about x: what was the front, −y, looks up.
    const h = Math.SQRT1_2
    const up = printedUp([step({ kind: 'orient', quaternion: [-h, 0, 0, h] })])
    for (const [k, v] of [0, -1, 0].entries()) expect(up[k]).toBeCloseTo(v, 9)
    expect(printedUp([])).toEqual([0, 0, 1])
  })
  it('hides a hole under itself or behind a joint, and no other', async () => {
    const hole = (point: number[], direction: number[]) => ({ point, direction, diameter: 3, depth: 2 })
    const drilled = step(
      { kind: 'drill', holes: [{ point: [0, 0, 0], direction: [0, 0, 1], diameter: 3 }] },
      {
        measures: measure(meshes.plinth!),
        drill: {
          holes: [
            hole([3, 3, 0], [0, 0, 1]),
            hole([0, 0, 10], [0, 0, -1]),
            hole([9, 9, 10], [0, 0, -1]),
            hole([-10, 0, 1], [1, 0, 0]),
          ],
        },
      },
    )
    const plinth = part('plinth', [drilled])
    const joints = await jointsOf([plinth, part('column')], sources())
    expect(partFacts(plinth, joints, false).holes.map((h) => h.hidden)).toEqual([true, true, false, false])
    expect(partFacts(plinth, [], false).holes.map((h) => h.hidden)).toEqual([true, false, false, false])
  })
  it('counts scars by the tip that made them, and casting resin only where it is cast', () => {
    const supported = step(
      { kind: 'support' },
      {
        measures: measure(meshes.column!),
        support: {
          tips: [
            { grade: 'whisker', focal: false },
            { grade: 'whisker', focal: true },
            { grade: 'post', focal: false },
          ],
        },
      },
    )
    const hollow = step(
      { kind: 'hollow', wall: 2 },
      { measures: measure(meshes.column!), hollow: { cavityVolume: 2000 } },
    )
    const facts = partFacts(part('column', [hollow, supported]), [], true)
    expect(facts.cast).toBe(2)
    expect(facts.scars.map((s) => [s.count, s.focal])).toEqual([
      [2, 1],
      [1, 0],
    ])
    expect(facts.scars[1]!.tip).toBeGreaterThan(facts.scars[0]!.tip)
    expect(partFacts(part('column', [hollow]), [], false)).not.toHaveProperty('cast')
  })
})

it('a product in stock overrules a material’s usual times, as far as its label says them', () => {
  const usual = [
    { id: 'putty', working: 600, next: 3600 },
    { id: 'filler', working: 60, next: 120 },
  ] as unknown as Parameters<typeof asSold>[0]
  const sold = asSold(usual, 'filler', [
    { serves: ['adhesive:putty'], working: 1, next: 1 },
    { serves: ['filler:putty'], working: null, next: null },
    { serves: ['filler:putty', 'filler:other'], working: null, next: 90 },
  ])
  expect(sold.map((m) => [m.working, m.next])).toEqual([
    [600, 5400],
    [60, 120],
  ])
  const quick = asSold(usual, 'filler', [
    { serves: ['filler:putty'], working: 2, next: null },
    { serves: ['filler:filler'], working: 3, next: 4 },
  ])
  expect(quick.map((m) => [m.working, m.next])).toEqual([
    [120, 3600],
    [180, 240],
  ])
})
