import { describe, expect, it } from 'vitest'
import { concatenate, type Mesh } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { tube } from '../shape/cylinder'
import { subtract } from '../shape/solid'
import { boxBody } from '../testBodies'
import { balance } from './balance'
import { fitOf } from './gap'
import { pinFor } from './pin'
import { restOn } from './rest'
import { say } from '../words/say'

const shifted = (m: Mesh, x: number, y: number, z: number): Mesh => transformed(m, identity3, [x, y, z])
const report = async (a: Mesh, b: Mesh): Promise<Extract<Awaited<ReturnType<typeof fitOf>>, { ok: true }>['value']> => {
  const r = await fitOf(a, b)
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}

describe('the fit of two parts', () => {
  it('measures the clearance of a peg in its hole to a hundredth of a millimetre', async () => {
    for (const clearance of [0.05, 0.1, 0.25]) {
      const sides = 96
      const peg = tube(
        [
          [0, 0, 2],
          [0, 0, 12],
        ],
        [4, 4],
        sides,
      )
      const drill = tube(
        [
          [0, 0, 2 - clearance],
          [0, 0, 20],
        ],
        [4 + clearance, 4 + clearance],
        sides,
      )
      const block = await subtract(boxBody(20, 20, 12, -10, -10, 0), [drill])
      if (!block.ok) throw new Error(say(block.problem.message))
      const r = await report(peg, block.value)
      // Between prisms of 96 sides the gap is that of their flats: cos(π/96) of the radii's difference.
      for (const p of [r.p5, r.p50, r.p95]) expect(Math.abs(p - clearance)).toBeLessThan(0.01)
      expect(r.overlap).toBe(0)
      expect(r.area).toBeGreaterThan(0.95 * (2 * Math.PI * 4 * 10 + Math.PI * 16))
      // The joint's edge shows at the top of the hole, all round; the peg ends level with the block.
      expect(r.seam).toBeGreaterThan(0.9 * 2 * Math.PI * 4)
      expect(r.seam).toBeLessThan(1.2 * 2 * Math.PI * 4)
    }
  })
  it('finds an overlap, how deep and how much', async () => {
    const r = await report(boxBody(10, 10, 10), shifted(boxBody(10, 10, 10), 0, 0, 9.7))
    expect(r.overlap).toBeCloseTo(30, 3)
    expect(r.p50).toBeCloseTo(-0.3, 2)
    expect(r.deepest!.gap).toBeCloseTo(-0.3, 2)
  })
  it('says that parts out of reach do not touch, and of a slanted gap how it opens', async () => {
    expect((await report(boxBody(5, 5, 5), shifted(boxBody(5, 5, 5), 20, 0, 0))).touching).toBe(false)
    const wedge = transformed(boxBody(10, 10, 4), [1, 0, 0, 0, 1, 0, 0.1, 0, 1], [0, 0, 10])
    const r = await report(boxBody(10, 10, 10), wedge)
    // Under a skin that rises by one in ten the shortest way is 1/√1.01 of the height.
    expect(r.p50).toBeCloseTo(0.5 / Math.sqrt(1.01), 1)
    expect(r.p95 - r.p5).toBeCloseTo(0.9 / Math.sqrt(1.01), 1)
    expect(r.filler).toBeGreaterThan(0)
    expect(r.filler).toBeLessThan(50)
    // Along two sides it opens evenly from 0 to 1 mm, so each class has its share of them; the closed and the open side besides.
    const along = (upTo: number | null): number => r.seamGaps.find((c) => c.upTo === upTo)?.length ?? 0
    expect(r.seamGaps.reduce((sum, c) => sum + c.length, 0)).toBeCloseTo(r.seam, 6)
    expect(Math.abs(along(0.1) + along(0.3) - (10 + 2 * 3))).toBeLessThan(1.5)
    expect(Math.abs(along(0.5) - 2 * 2)).toBeLessThan(1.5)
    expect(Math.abs(along(1) - (10 + 2 * 5))).toBeLessThan(1.5)
    expect(along(2) + along(null)).toBe(0)
    // A band of 2 mm inside the rim: the whole square less its middle, half a millimetre wide in the mean.
    expect(r.seamGaps.reduce((sum, c) => sum + c.volume, 0)).toBeCloseTo(r.filler, 6)
    expect(r.filler / (0.5 * (100 - 36))).toBeCloseTo(1, 0.7)
  })
  it('knows a part inside another, and one put onto its own copy, for overlaps', async () => {
    const box = boxBody(10, 10, 10)
    expect((await report(box, boxBody(2, 2, 2, 4, 4, 4))).overlap).toBeCloseTo(8, 3)
    expect((await report(box, box)).overlap).toBeCloseTo(1000, 2)
    expect((await report(box, shifted(box, 10, 0, 0))).overlap).toBe(0)
  })
  it('answers for an open mesh', async () => {
    const box = boxBody(5, 5, 5)
    const r = await fitOf({ ...box, triangles: box.triangles.slice(3) }, shifted(box, 0, 0, 5))
    expect(!r.ok && r.problem.code).toBe('not-solid')
  })
})

describe('balance', () => {
  it('is that of a cylinder: atan of its radius over half its height, whichever way', () => {
    const r = balance(
      [
        {
          mesh: tube(
            [
              [3, 4, 0],
              [3, 4, 60],
            ],
            [10, 10],
            180,
          ),
          density: 1.1,
          infill: 1,
        },
      ],
      15,
    )
    if (!r.ok) throw new Error(say(r.problem.message))
    for (const t of r.value.tips) expect(t.angle).toBeCloseTo((Math.atan(10 / 30) * 180) / Math.PI, 1)
    expect(r.value.mass).toBeCloseTo((Math.PI * 100 * 60 * 1.1) / 1000, 0)
    expect(r.value.remedy).toBe(null)
    expect(r.value.energy).toBeCloseTo((r.value.mass / 1000) * 9.81 * ((Math.hypot(30, 10) - 30) / 1000), 4)
  })
  it('sees a heavy mass out to one side, says which way it falls, and what helps', () => {
    const plate = boxBody(40, 40, 2, -20, -20, 0),
      mast = boxBody(4, 4, 50, -2, -2, 2),
      head = boxBody(10, 10, 10, 8, -5, 52)
    const weights = [
      { mesh: plate, density: 1, infill: 1 },
      { mesh: mast, density: 1, infill: 1 },
      { mesh: head, density: 8, infill: 1 },
    ]
    const r = balance(weights, 25)
    if (!r.ok) throw new Error(say(r.problem.message))
    const [m1, m2, m3] = [3.2, 0.8, 8]
    const total = m1 + m2 + m3
    const x = (m3 * 13) / total,
      z = (m1 * 1 + m2 * 27 + m3 * 57) / total
    expect(r.value.centre[0]).toBeCloseTo(x, 4)
    // Right of the viewer is +x: 90° from the front.
    expect(r.value.weakest.direction).toBe(90)
    expect(r.value.weakest.angle).toBeCloseTo((Math.atan((20 - x) / z) * 180) / Math.PI, 4)
    const { ballast, widen } = r.value.remedy!
    expect(widen).toBeGreaterThan(1)
    // With the ballast in, low in the middle, the wish is just met.
    const weight = boxBody(1, 1, 1, -0.5, -0.5, 0.1 * z - 0.5)
    const mended = balance([...weights, { mesh: weight, density: ballast! * 1000, infill: 1 }], 25)
    expect(mended.ok && mended.value.weakest.angle).toBeCloseTo(25, 1)
  })
  it('has already fallen when its middle is outside its foot, and needs a foot at all', () => {
    const leaning = concatenate([boxBody(4, 4, 2), boxBody(2, 2, 30, 20, 1, 0.5)])
    const r = balance([{ mesh: leaning, density: 1, infill: 1 }], 15)
    expect(r.ok && r.value.weakest.angle).toBeLessThan(0)
    const onEdge = transformed(boxBody(4, 4, 4), [0.6, 0, -0.8, 0, 1, 0, 0.8, 0, 0.6], [0, 0, 0])
    const edge = balance([{ mesh: onEdge, density: 1, infill: 1 }], 15)
    expect(!edge.ok && edge.problem.code).toBe('no-foot')
  })
})

describe('pins', () => {
  it('are as thick as the bending asks', () => {
    const p = pinFor([0, 0, 100], 120, [60, 0, 100], 'brass')
    expect(p.moment).toBeCloseTo(0.12 * 9.81 * 60 * 5, 6)
    expect((32 * p.moment) / (Math.PI * p.wire ** 3)).toBeLessThan(200)
    expect(p).toMatchObject({ wire: 3, depth: 12, wall: 3, enough: true })
    expect(pinFor([0, 0, 0], 20_000, [300, 0, 0], 'steel').enough).toBe(false)
  })
})

describe('resting on what is below', () => {
  it('ends where the two touch, from above and from inside, and nowhere when nothing is below', () => {
    const table = boxBody(20, 20, 5),
      ball = shifted(boxBody(4, 4, 4), 8, 8, 30)
    expect(restOn(ball, [table])).toBeCloseTo(-25, 4)
    expect(restOn(shifted(boxBody(4, 4, 4), 8, 8, 2), [table])).toBeCloseTo(3, 4)
    expect(restOn(shifted(ball, 50, 0, 0), [table])).toBe(null)
    // A wide body over a narrow one is caught by the narrow one's corners.
    expect(restOn(shifted(boxBody(40, 40, 2), -10, -10, 9), [table, boxBody(2, 2, 7, 9, 9, 0)])).toBeCloseTo(-2, 4)
  })
})
