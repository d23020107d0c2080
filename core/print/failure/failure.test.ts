import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody } from '../../testBodies'
import { bounds } from '../../mesh/mesh'
import { identity3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { orient } from '../../shape/orient'
import { brokenPiece } from './brokenPiece'
import { probableCauses, type PrintFacts } from './cause'
import { tiltOf } from './facts'
import { marksOf } from './seen'

const plain: PrintFacts = {
  layerHeight: 0.05,
  islands: [],
  cups: [],
  peel: Array.from({ length: 1000 }, () => 4),
  bottomLayers: 5,
  exposure: 2.4,
  bottomExposure: 26,
  tips: [],
  x: 30,
  y: -12,
  angle: Math.PI / 2,
  stops: [],
  failed: 1,
  parts: 4,
}
// 10 mm to the part's own right is 10 mm back on the plate, once it is turned by a quarter.
const own = (x: number, y: number, z: number): [number, number, number] => [x, y, z]
const onPlate = (x: number, y: number): { x: number; y: number } => ({ x: 30 - y, y: -12 + x })

describe('why it failed', () => {
  it('blames the fact that is at the fault, of its kind, and gives back its place in the part’s own frame', () => {
    const facts: PrintFacts = {
      ...plain,
      islands: [
        { layer: 400, area: 3, ...onPlate(10, 5) },
        { layer: 400, area: 3, ...onPlate(-40, 5) },
      ],
      tips: [{ point: [10, 8, 20], utilisation: 0.3, grade: 'strut' }],
    }
    const [first] = probableCauses({ kind: 'missing', point: own(10, 5, 20) }, facts)
    expect(first).toMatchObject({ kind: 'island', change: { kind: 'support' } })
    const at = first!.change.kind === 'support' ? first!.change.point : []
    expect(at[0]).toBeCloseTo(10, 6)
    expect(at[1]).toBeCloseTo(5, 6)
    expect(at[2]).toBeCloseTo(20, 6)
  })
  it('tells an overworked tip, a sealed cup, a stop and a plate that lets go from each other', () => {
    const first = (kind: Parameters<typeof probableCauses>[0]['kind'], z: number, f: Partial<PrintFacts>): string =>
      probableCauses({ kind, point: own(0, 0, z) }, { ...plain, ...f })[0]!.kind
    const tips: PrintFacts['tips'] = [{ point: [3, 0, 10], utilisation: 1.3, grade: 'whisker' }]
    const cup = { worstLayer: 300, startX: 30, startY: -12, area: 400, force: 40, ...onPlate(0, 0) }
    expect(first('missing', 12, { tips })).toBe('tip')
    expect(first('torn', 15, { tips, cups: [{ firstLayer: 250, lastLayer: 400, ...cup }] })).toBe('cup')
    expect(first('line', 15, { stops: [{ layer: 302, why: 'power' }] })).toBe('stop')
    expect(first('notStuck', 0.2, { tips })).toBe('bottom')
    expect(first('ragged', 30, {})).toBe('exposure')
    const jump = plain.peel.map((v, i) => (i < 500 ? v : 5 * v))
    expect(first('loose', 25, { peel: jump })).toBe('peel')
  })
  it('weighs everything into shares that sum to one, whatever is asked', () => {
    const n = (a: number, b: number) => fc.double({ min: a, max: b, noNaN: true })
    fc.assert(
      fc.property(
        fc.constantFrom('missing', 'loose', 'torn', 'ragged', 'line', 'warped', 'notStuck' as const),
        n(-50, 50),
        n(0, 60),
        fc.array(fc.tuple(n(-50, 50), n(0, 50), n(0, 3)), { maxLength: 8 }),
        (kind, x, z, tips) => {
          const causes = probableCauses(
            { kind: kind as 'missing', point: own(x, 0, z) },
            {
              ...plain,
              tips: tips.map(([tx, tz, utilisation]) => ({
                point: own(tx, 0, tz),
                utilisation,
                grade: 'post' as const,
              })),
            },
          )
          expect(causes.length).toBeGreaterThan(0)
          expect(causes.reduce((s, c) => s + c.weight, 0)).toBeCloseTo(1, 9)
        },
      ),
    )
  })
})

describe('what is seen on a plate', () => {
  it('belongs to the part that stands there, in its own frame, and fails only what lacks more than a little', () => {
    const box = [-10, 10, -4, 4] as const
    const parts = [
      { partId: 'a', copy: 0, x: 30, y: -12, angle: Math.PI / 2, box, volume: 8000 },
      { partId: 'b', copy: 0, x: -30, y: 0, angle: 0, box, volume: 8000 },
      { partId: 'b', copy: 1, x: -30, y: 20, angle: 0, box, volume: 8000 },
    ]
    const loss = { lastLayer: 600, box: [0, 1, 0, 1] as [number, number, number, number] }
    const r = marksOf(
      {
        mishaps: [
          { kind: 'island', layer: 400, z: 20, area: 3, ...onPlate(8, 2) },
          { kind: 'island', layer: 420, z: 21, area: 3, x: -25, y: 1 },
          { kind: 'tip', layer: 300, z: 5, force: 1, capacity: 0.8, fell: false, x: -30, y: 21 },
        ],
        losses: [
          { mishap: 0, firstLayer: 400, volume: 300, ...loss },
          { mishap: 1, firstLayer: 420, volume: 6, ...loss },
        ],
      },
      parts,
      0.05,
    )
    expect(r.outcomes.map((o) => o.result)).toEqual(['failed', 'usable', 'usable'])
    expect(r.marks.map((m) => [m.partId, m.copy, m.kind])).toEqual([
      ['a', 0, 'missing'],
      ['b', 0, 'missing'],
      ['b', 1, 'loose'],
    ])
    expect(r.marks[0]!.point[0]).toBeCloseTo(8, 9)
    expect(r.marks[0]!.reach).toEqual([20, 30.05])
  })
})

describe('the piece that broke off', () => {
  const half = Math.SQRT1_2
  it('is cut on the sound side of the failure, on the body as it was before it was stood up', () => {
    // A bar of 40 mm along x, stood on end: its x is then up.
    const bar = boxBody(40, 6, 4)
    const quaternion = [0, -half, 0, half] as const
    const stood = orient(bar, quaternion)
    const shift = [1, 2, 5]
    const there = bounds(transformed(stood.mesh, identity3, [1, 2, 5]))
    expect(there.max[2] - there.min[2]).toBeCloseTo(40, 5)
    const lost = (reach: [number, number]) =>
      brokenPiece({ point: [1, 2, 20], reach }, { quaternion, offset: stood.offset, shift }, 45)
    const rest = lost([20, 45])
    expect(rest.keep).toBe('above')
    expect(Math.abs(rest.normal[0])).toBeCloseTo(1, 9)
    // 1.5 mm before 20 mm up, of which 5 are lift: 13.5 mm from the end it stood on.
    const from = rest.normal[0] > 0 ? rest.point[0] : 40 - rest.point[0]
    expect(from).toBeCloseTo(13.5, 4)
    const patch = lost([20, 30])
    expect(patch.keep).toBe('below')
    expect(patch.normal[0] > 0 ? patch.point[0] : 40 - patch.point[0]).toBeCloseTo(26.5, 4)
    // Where it grew together with what is sound, it is cut just before that.
    const kept = brokenPiece(
      { point: [1, 2, 20], reach: [20, 30] },
      { quaternion, offset: stood.offset, shift },
      45,
      -0.1,
    )
    expect(kept.normal[0] > 0 ? kept.point[0] : 40 - kept.point[0]).toBeCloseTo(24.9, 4)
  })
  it('knows how far a turn tips a body', () => {
    expect(tiltOf([0, 0, 0, 1])).toBeCloseTo(0, 9)
    expect(tiltOf([0, 0, half, half])).toBeCloseTo(0, 9)
    expect(tiltOf([half, 0, 0, half])).toBeCloseTo(90, 9)
    expect(tiltOf([1, 0, 0, 0])).toBeCloseTo(180, 9)
  })
})
