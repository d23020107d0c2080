import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, sphereBody } from '../testBodies'
import { concatenate } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { noCompensation } from '../print/slice/compensation'
import { label, resting, SolidReader, solidOf, voidsOf, type Intervals } from './regions'
import type { Runs } from './raster'
import { slice } from '../print/slice/slice'
import { say } from '../words/say'

/** A picture of pixels that are lit or dark, as runs. */
function runsOf(rows: boolean[][]): Runs {
  const x: number[] = [],
    rowStart = [0]
  for (const row of rows) {
    row.forEach((lit, i) => lit && x.push(i))
    rowStart.push(x.length)
  }
  return {
    width: rows[0]!.length,
    height: rows.length,
    rowStart: Uint32Array.from(rowStart),
    x: Uint16Array.from(x),
    length: new Uint16Array(x.length).fill(1),
    value: new Uint8Array(x.length).fill(255),
    covered: x.length,
    brokenRows: 0,
  }
}
const lit = (s: Intervals, row: number, x: number): boolean => nameAt(s, row, x) >= 0
function nameAt(s: Intervals, row: number, x: number): number {
  for (let i = s.rowStart[row]!; i < s.rowStart[row + 1]!; i++) if (s.from[i]! <= x && x < s.to[i]!) return s.label[i]!
  return -1
}
/** Regions by walking from pixel to pixel: how many, and which pixel is in which. */
function walked(rows: boolean[][], of: boolean): { count: number; at: number[][] } {
  const at = rows.map((r) => r.map(() => -1))
  let count = 0
  rows.forEach((row, y) =>
    row.forEach((v, x) => {
      if (v !== of || at[y]![x] !== -1) return
      const open = [[y, x] as const]
      at[y]![x] = count
      for (let p = open.pop(); p; p = open.pop())
        for (const [dy, dx] of [
          [0, 1],
          [1, 0],
          [0, -1],
          [-1, 0],
        ] as const) {
          const [b, a] = [p[0] + dy, p[1] + dx]
          if (rows[b]?.[a] !== of || at[b]![a] !== -1) continue
          at[b]![a] = count
          open.push([b, a])
        }
      count++
    }),
  )
  return { count, at }
}
const picture = (height: number, width: number): fc.Arbitrary<boolean[][]> =>
  fc.array(fc.array(fc.boolean(), { minLength: width, maxLength: width }), { minLength: height, maxLength: height })

describe('regions of a layer', () => {
  it('are those that a walk from pixel to pixel finds, of solid and of void, with their area and middle', () => {
    fc.assert(
      fc.property(picture(9, 11), (rows) => {
        for (const of of [true, false]) {
          const solid = solidOf(runsOf(rows)),
            s = of ? solid : voidsOf(solid)
          const labels = label(s),
            truth = walked(rows, of)
          expect(labels.count).toBe(truth.count)
          const pixels = new Array<number>(truth.count).fill(0),
            sumX = new Array<number>(truth.count).fill(0)
          rows.forEach((row, y) =>
            row.forEach((v, x) => {
              const c = nameAt(s, y, x)
              expect(c >= 0).toBe(v === of)
              if (c < 0) return
              // Both number regions in the order in which the rows meet them.
              expect(c).toBe(truth.at[y]![x])
              pixels[c]!++
              sumX[c]! += x + 0.5
            }),
          )
          expect([...labels.pixels]).toEqual(pixels)
          labels.sumX.forEach((x, c) => expect(x).toBeCloseTo(sumX[c]!, 9))
        }
      }),
      { numRuns: 200 },
    )
  })
  it('with rows made one are lit wherever one of them is, and nowhere else, with the light of their mean', () => {
    fc.assert(
      fc.property(picture(10, 12), fc.integer({ min: 2, max: 4 }), (rows, k) => {
        const s = new SolidReader(k).of(runsOf(rows))
        expect(s.height).toBe(Math.ceil(10 / k))
        for (let row = 0; row < s.height; row++)
          for (let x = 0; x < 12; x++) expect(lit(s, row, x)).toBe(rows.slice(row * k, row * k + k).some((r) => r[x]))
        const light = s.light.reduce((a, b) => a + b, 0)
        expect(light).toBeCloseTo(rows.flat().filter(Boolean).length / k, 4)
      }),
      { numRuns: 200 },
    )
  })
  it('rest on what is below them within the slack, and on nothing farther', () => {
    fc.assert(
      fc.property(
        picture(7, 9),
        picture(7, 9),
        fc.integer({ min: 0, max: 2 }),
        fc.integer({ min: 0, max: 2 }),
        (over, under, near, rows) => {
          const a = solidOf(runsOf(over)),
            b = solidOf(runsOf(under))
          const { count } = label(a)
          const truth = new Uint8Array(count)
          over.forEach((row, y) =>
            row.forEach((v, x) => {
              if (!v) return
              for (let dy = -rows; dy <= rows; dy++)
                for (let dx = -near; dx <= near; dx++) if (under[y + dy]?.[x + dx]) truth[nameAt(a, y, x)] = 1
            }),
          )
          expect([...resting(a, b, [near, rows], count)]).toEqual([...truth])
        },
      ),
      { numRuns: 200 },
    )
  })
})

it('finds a planted island and a cup where the body has them, however the panel shows the picture', async () => {
  const planted = concatenate([
    boxBody(8, 8, 12, -4, -4),
    transformed(sphereBody(2, 3), identity3, [9, 5, 6]),
    // A chimney that is open to neither side once its top is begun.
    ...[boxBody(10, 1, 8, -20, -9), boxBody(10, 1, 8, -20, 0), boxBody(1, 10, 8, -20, -9), boxBody(1, 10, 8, -11, -9)],
    boxBody(10, 10, 1, -20, -9, 7.5),
  ])
  const resin = {
    name: 'T',
    density: 1.1,
    pricePerLitre: 40,
    exposure: 2,
    bottomExposure: 20,
    peelPressure: 12_000,
    greenStrength: 4.5e6,
    clear: false,
  }
  for (const [mirrorX, mirrorY, scale] of [
    [false, false, [1, 1, 1]],
    [true, false, [1.01, 0.99, 1]],
    [true, true, [1, 1, 1]],
  ] as const) {
    const printer = {
      name: 'T',
      pixelsX: 2000,
      pixelsY: 1000,
      pitchX: 0.03,
      pitchY: 0.025,
      height: 60,
      layerHeight: 0.1,
      liftTime: 3,
      retractTime: 2,
      restTime: 1,
      bottomLayers: 4,
      compensation: { ...noCompensation, mirrorX, mirrorY, scale: [...scale] as [number, number, number] },
    }
    const r = await slice(planted, printer, resin, () => undefined)
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(r.value.islands).toHaveLength(1)
    const [island] = r.value.islands
    // The lowest layer that cuts the ball cuts it in a disc of known area.
    expect(island!.layer).toBe(40)
    expect(island!.x).toBeCloseTo(9, 1)
    expect(island!.y).toBeCloseTo(5, 1)
    expect(r.value.cups).toHaveLength(1)
    expect(r.value.cups[0]!).toMatchObject({ firstLayer: 0 })
    expect(r.value.cups[0]!.x).toBeCloseTo(-15, 1)
    expect(r.value.cups[0]!.y).toBeCloseTo(-4, 1)
    expect(r.value.cups[0]!.area / 64).toBeCloseTo(1, 1)
  }
})
