import { describe, expect, it } from 'vitest'
import { bounds } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { acceptedAsSolid } from '../../shape/solid'
import { boxBody } from '../../testBodies'
import { corrections, GAUGE, gauge, gaugeNominal, type Measured } from './calibrationPrint'
import { Drawn, inset, noCompensation, stepped } from './compensation'
import { Rasteriser, type Runs } from '../../raster/raster'
import { slice } from './slice'
import { say } from '../../words/say'

const PITCH = 0.05
const disc = (r: number, x = 0): Float64Array =>
  Float64Array.from(
    Array.from({ length: 720 }, (_, k) => {
      const at = (i: number): [number, number] => [
        x + r * Math.cos((i * Math.PI) / 360),
        r * Math.sin((i * Math.PI) / 360),
      ]
      return [...at(k), ...at(k + 1)]
    }).flat(),
  )
const draw = (segments: Float64Array): Runs =>
  new Rasteriser(800, 600, PITCH, PITCH, -20, -15).draw(segments, segments.length / 4)
const area = (r: Runs): number => r.covered * PITCH * PITCH
const consistent = (r: Runs): void => {
  let sum = 0
  for (let y = 0; y < r.height; y++) {
    let end = 0
    for (let i = r.rowStart[y]!; i < r.rowStart[y + 1]!; i++) {
      expect(r.x[i]).toBeGreaterThanOrEqual(end)
      expect(r.value[i]).toBeGreaterThan(0)
      end = r.x[i]! + r.length[i]!
      sum += r.value[i]! * r.length[i]!
    }
    expect(end).toBeLessThanOrEqual(r.width)
  }
  expect(sum / 255).toBeCloseTo(r.covered, 6)
}

describe('what a printer does, taken off again', () => {
  it('insets a disc and a square by what is asked, and grows them below 0', () => {
    for (const by of [-0.2, -0.06, 0.06, 0.2, 0.5]) {
      const round = inset(draw(disc(8)), by, PITCH, PITCH)
      consistent(round)
      expect(Math.abs(area(round) / (Math.PI * (8 - by) ** 2) - 1)).toBeLessThan(0.004)
    }
    const square = draw(Float64Array.from([-5, -5, 5, -5, 5, -5, 5, 5, 5, 5, -5, 5, -5, 5, -5, -5]))
    for (const by of [0.3, 0.07, 0.012, -0.033]) {
      const other = inset(square, by, PITCH, PITCH)
      consistent(other)
      // Grown corners are round.
      const corners = by < 0 ? (4 - Math.PI) * by * by : 0
      expect(Math.abs(area(other) - ((10 - 2 * by) ** 2 - corners))).toBeLessThan(0.06)
    }
    // Two discs 0.3 apart flow together when they grow by 0.2, and what is thinner than twice the inset is gone.
    const two = draw(Float64Array.from([...disc(4, -4.15), ...disc(4, 4.15)]))
    const middle = (r: Runs): boolean => {
      const y = 300
      for (let i = r.rowStart[y]!; i < r.rowStart[y + 1]!; i++)
        if (r.x[i]! <= 400 && r.x[i]! + r.length[i]! > 400) return true
      return false
    }
    expect(middle(two)).toBe(false)
    expect(middle(inset(two, -0.2, PITCH, PITCH))).toBe(true)
    const blade = draw(Float64Array.from([-9, -0.1, 9, -0.1, 9, -0.1, 9, 0.1, 9, 0.1, -9, 0.1, -9, 0.1, -9, -0.1]))
    expect(inset(blade, 0.15, PITCH, PITCH).covered).toBe(0)
    expect(inset(square, 0, PITCH, PITCH)).toBe(square)
  })
  it('mirrors and scales about the middle without losing light, and shows only the greys there are', () => {
    const shape = disc(3, 6)
    const moved = (more: Partial<typeof noCompensation>): Runs => {
      const d = new Drawn({ ...noCompensation, ...more })
      return draw(d.of(shape, 720).slice(0, 2880))
    }
    const middleX = (r: Runs): number => {
      let s = 0
      for (let i = 0; i < r.x.length; i++) s += r.value[i]! * r.length[i]! * (r.x[i]! + r.length[i]! / 2)
      return (s / 255 / r.covered) * PITCH - 20
    }
    expect(middleX(moved({}))).toBeCloseTo(6, 3)
    expect(middleX(moved({ mirrorX: true }))).toBeCloseTo(-6, 3)
    expect(middleX(moved({ mirrorX: true, mirrorY: true }))).toBeCloseTo(-6, 3)
    expect(area(moved({ mirrorX: true })) / area(moved({}))).toBeCloseTo(1, 6)
    const shrunk = moved({ scale: [0.98, 1.01, 1] })
    expect(area(shrunk) / (area(moved({})) / (0.98 * 1.01))).toBeCloseTo(1, 4)
    expect(middleX(shrunk)).toBeCloseTo(6 / 0.98, 2)
    for (const greys of [2, 4, 16]) {
      const r = stepped(moved({}), greys)
      consistent(r)
      expect(new Set(r.value).size).toBeLessThan(greys)
      expect(area(r) / area(moved({}))).toBeCloseTo(1, 2)
    }
  })
  it('draws each layer so: bleeding ones smaller, the body taller where it shrinks', async () => {
    const layers: number[] = []
    const printer = {
      name: 'gauge',
      pixelsX: 800,
      pixelsY: 600,
      pitchX: PITCH,
      pitchY: PITCH,
      height: 60,
      layerHeight: 0.1,
      liftTime: 1,
      retractTime: 1,
      restTime: 1,
      bottomLayers: 5,
      compensation: {
        ...noCompensation,
        scale: [0.99, 0.99, 0.98] as [number, number, number],
        growth: 0.05,
        bleed: 0.15,
        bleedLayers: 6,
      },
    }
    const resin = {
      name: 'r',
      density: 1.1,
      pricePerLitre: 1,
      exposure: 2,
      bottomExposure: 20,
      peelPressure: 12_000,
      greenStrength: 4e6,
      clear: false,
    }
    const r = await slice(boxBody(10, 10, 4.9, -5, -5, 0), printer, resin, () => undefined)
    if (!r.ok) throw new Error(say(r.problem.message))
    layers.push(...r.value.areas)
    expect(r.value.layers).toBe(50)
    // 10 mm are drawn as (10 − 2·0.05) / 0.99, and in the first six layers 0.15 a side less.
    layers.forEach((a, i) => {
      const side = (10 - 2 * (0.05 + (i < 6 ? 0.15 : 0))) / 0.99
      expect(Math.abs(a / side ** 2 - 1)).toBeLessThan(0.01)
    })
  })
})

describe('the calibration print', () => {
  it('is one solid with the lengths that are measured', async () => {
    const body = gauge()
    expect(await acceptedAsSolid(body)).toBe(true)
    expect(bounds(body)).toEqual({ min: [-20, -15, 0], max: [20, 15, 20] })
    expect(measure(body).volume).toBeCloseTo((40 * 30 - 100) * 4 + 100 * 16, 2)
  })
  it('gives back what a machine does, however it shrinks and spreads', () => {
    const printed = ([sx, sy, sz]: readonly number[], g: number, bleed: number, caliper = 0): Measured => {
      let k = 0
      const off = (): number => caliper * (k++ % 2 === 0 ? 1 : -1)
      const slabX = GAUGE.x * sx! + 2 * g + off()
      return {
        slabX,
        slabY: GAUGE.y * sy! + 2 * g + off(),
        postX: GAUGE.post * sx! + 2 * g + off(),
        postY: GAUGE.post * sy! + 2 * g + off(),
        slotX: GAUGE.slot * sx! - 2 * g + off(),
        slotY: GAUGE.slot * sy! - 2 * g + off(),
        slabZ: GAUGE.slab * sz! - 0.08,
        height: GAUGE.height * sz! - 0.08,
        footX: slabX + 2 * bleed,
      }
    }
    for (const [scale, g, bleed] of [
      [[0.992, 0.996, 1.003], 0.06, 0.18],
      [[1.004, 1, 0.99], -0.03, 0],
    ] as const) {
      const r = corrections(printed(scale, g, bleed))
      if (!r.ok) throw new Error(say(r.problem.message))
      r.value.scale.forEach((s, i) => {
        expect(s).toBeCloseTo(scale[i]!, 9)
      })
      expect(r.value.growth).toBeCloseTo(g, 9)
      expect(r.value.bleed).toBeCloseTo(bleed, 9)
      expect(r.value.residual).toBeLessThan(1e-9)
    }
    // A caliper that is 0.02 mm off does little harm, and the residual confesses it.
    const rough = corrections(printed([0.995, 0.995, 1], 0.05, 0.1, 0.02))
    if (!rough.ok) throw new Error(say(rough.problem.message))
    expect(Math.abs(rough.value.scale[0] - 0.995)).toBeLessThan(0.002)
    expect(Math.abs(rough.value.growth - 0.05)).toBeLessThan(0.02)
    expect(rough.value.residual).toBeGreaterThan(0.003)
    expect(corrections(gaugeNominal)).toMatchObject({ ok: true, value: { growth: 0, bleed: 0 } })
    const slip = corrections({ ...gaugeNominal, slabX: 400 })
    expect(slip.ok || say(slip.problem.message)).toContain('far from the 40 mm drawn')
    expect(corrections({ ...gaugeNominal, postX: NaN }).ok).toBe(false)
  })
})
