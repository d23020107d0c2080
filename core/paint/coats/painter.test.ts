import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BANDS, deltaE00, toXyz, weightsOf, xyzToLab, type Triple } from '../optics/colour'
import { filmOver, mix, opticsOf, thinned, type Optics } from '../optics/film'
import { FEW, fewWeights } from '../optics/fewBands'
import { evenFilm, filmTable, laidOn } from '../optics/filmTable'
import { ADAPTED, blackBody, lampWeights } from '../optics/lamp'
import type { Coating, Ground, Painted, Stack } from './coating'
import { HAND, type Hand } from '../../defaults/paint'
import { levelsOf, type Skin } from './levels'
import { paintSkin } from './painter'
import { DENSEST, speckleAt } from './speckle'
import { sprayLight } from '../surface/sprayLight'
import { MAP, MAPS } from '../surface/surfaceMaps'
import { readOf, shareAt, type Laying } from './technique'
import { TECHNIQUES } from '../../defaults/paint'
import { undercoated, unprimed } from './undercoat'

const daylight = lampWeights(null)
const laying: Laying = { technique: 'base', tool: 'brush', grain: 1.5, coverage: 0.4, seed: 3, hand: HAND }
const coat = (o: Optics | null, more: Partial<Coating>): Coating => ({
  technique: 'base',
  optics: o,
  film: 30,
  sheen: 'matt',
  levels: null,
  ...more,
})
/** Painted, with each coat laid as its technique lays it. */
function painted(
  skin: Skin,
  regions: Uint8Array,
  stacks: ReadonlyMap<number, Stack>,
  bare: Ground,
  lamp: number | null = null,
): Painted {
  const laid = new Map(
    [...stacks].map(([r, s]): [number, Stack] => [
      r,
      {
        ...s,
        coats: s.coats.map((c) => ({ ...c, levels: levelsOf({ ...laying, technique: c.technique }, skin, null) })),
      },
    ]),
  )
  return paintSkin(skin.maps, regions, laid, bare, lampWeights(lamp))
}
/** One place under one stack. */
const one = (
  coats: Coating[],
  ground: Ground,
  maps: Parameters<typeof place>[0] = {},
  lamp: number | null = null,
): Painted => painted(place(maps), new Uint8Array(1), new Map([[0, { ground, coats }]]), ground, lamp)
const XYZ = [
  [0.4124564, 0.3575761, 0.1804375],
  [0.2126729, 0.7151522, 0.072175],
  [0.0193339, 0.119192, 0.9503041],
]
const labOf = (c: ArrayLike<number>, v = 0): Triple =>
  xyzToLab(XYZ.map((r) => r[0]! * c[3 * v]! + r[1]! * c[3 * v + 1]! + r[2]! * c[3 * v + 2]!) as unknown as Triple)
/** One place of skin with the maps given. */
const place = (maps: Partial<Record<keyof typeof MAP, number>> = {}): Skin => {
  const m = new Float32Array(MAPS)
  m[MAP.exposure] = 1
  for (const [k, v] of Object.entries(maps)) m[MAP[k as keyof typeof MAP]] = v
  return { maps: m, positions: new Float32Array(3), spacing: 0.2 }
}
const share = fc.float({ min: 0, max: 1, noNaN: true })
const channel = fc.integer({ min: 40, max: 235 })
const paint = fc
  .tuple(channel, channel, channel, fc.float({ min: Math.fround(0.05), max: Math.fround(0.97), noNaN: true }))
  .map(([r, g, b, o]) => opticsOf(`#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`, o))
const where = fc.record({ spray: share, recess: share, ridge: share })

describe('painting a skin', () => {
  it('is one film over another by the hyperbolic solution, at any place, for any stack', () => {
    const kinds = fc.constantFrom(
      'base' as const,
      'wash' as const,
      'dry brush' as const,
      'airbrush' as const,
      'layer' as const,
    )
    fc.assert(
      fc.property(
        fc.array(fc.record({ o: paint, technique: kinds, film: fc.integer({ min: 1, max: 60 }) }), { maxLength: 5 }),
        where,
        fc.constantFrom('grey' as const, 'zenithal' as const),
        (list, maps, undercoat) => {
          const coats = list.map(({ o, ...more }) => coat(o, more))
          const ground = undercoated(undercoat)
          const { colours } = one(coats, ground, maps)
          let exact = ground.reflectance
          if (ground.sprayed) exact = filmOver(ground.sprayed.optics, ground.sprayed.film * maps.spray, exact)
          for (const c of coats) {
            const s = shareAt({ ...laying, technique: c.technique }, { ...maps, exposure: 1, x: 0, y: 0, z: 0 }, 0.2)
            exact = filmOver(c.optics!, c.film * s, exact)
          }
          // What lies outside the screen's gamut is held at its edge there, so the comparison is of what lies inside.
          const truth = xyzToLab(toXyz(exact))
          if (colours.every((v) => v > 0)) expect(deltaE00(labOf(colours), truth)).toBeLessThan(1)
        },
      ),
      { numRuns: 150 },
    )
  })
  it('shows spots too small to be told apart as the mean of what they cover and what they leave', () => {
    fc.assert(
      fc.property(paint, paint, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (below, dots, coverage) => {
        const skin = { ...place(), spacing: 5 }
        const levels = levelsOf(
          { technique: 'stipple', tool: 'brush', grain: 1, coverage, seed: 1, hand: HAND },
          skin,
          null,
        )!
        const ground = undercoated('grey')
        const coats = [coat(below, { film: 40 }), coat(dots, { technique: 'stipple', film: 60, levels })]
        const { colours } = paintSkin(skin.maps, new Uint8Array(1), new Map([[0, { ground, coats }]]), ground, daylight)
        const bare = filmOver(below, 40, ground.reflectance),
          covered = filmOver(dots, 60, bare)
        const share = levels[0]! / 255
        const truth = xyzToLab(toXyz(bare.map((r, b) => share * covered[b]! + (1 - share) * r)))
        // Light that goes to and fro below the surface is shared between the two: within what side by side is just seen.
        if (colours.every((v) => v > 0)) expect(deltaE00(labOf(colours), truth)).toBeLessThan(6)
      }),
    )
  })
  it('changes nothing by a film of none, and everything by one that hides', () => {
    const t = filmTable(opticsOf('#b05030', 0.6), 50)
    for (let b = 0; b < FEW.length; b++)
      expect([...t.slice(b * 768, b * 768 + 3)].map((v) => Math.abs(v))).toEqual([1, 0, 0])
    const clear = filmTable({ K: new Float64Array(BANDS).fill(0.02), S: new Float64Array(BANDS) }, 50)
    // Without scatter a film absorbs there and back: Bouguer and Lambert.
    expect(clear[255 * 3]).toBeCloseTo(Math.exp(-2 * 0.02 * 50), 6)
    const o = opticsOf('#b05030', 0.6)
    const on = (u: 'white' | 'black'): Triple => labOf(one([coat(o, { film: 4000 })], undercoated(u)).colours)
    expect(deltaE00(on('white'), on('black'))).toBeLessThan(0.05)
  })
  it('paints each region with its own stack, whatever the order of its vertices', () => {
    const n = 3000
    const skin: Skin = { maps: new Float32Array(n * MAPS), positions: new Float32Array(n * 3), spacing: 1 }
    const regions = Uint8Array.from({ length: n }, (_, i) => (i * 7919) % 3)
    const grey = undercoated('grey')
    const stacks = new Map(
      ['#a03020', '#20a040'].map((hex, i) => [i, { ground: grey, coats: [coat(opticsOf(hex, 0.9), { film: 90 })] }]),
    )
    const { colours } = painted(skin, regions, stacks, grey)
    const seen = [0, 1, 2].map(
      (r) => new Set([...regions.keys()].filter((v) => regions[v] === r).map((v) => colours[3 * v]!.toFixed(5))),
    )
    expect(seen.map((s) => s.size)).toEqual([1, 1, 1])
    expect(new Set(seen.map((s) => [...s][0])).size).toBe(3)
  })
  it('shines as its last coat does: metal under matt varnish is dull, ink on clear resin stays clear', () => {
    const grey = undercoated('grey'),
      steel = opticsOf('#9a9da0', 0.82)
    const sheen = (coats: Coating[]): number[] => [...one(coats, grey).sheen]
    const bright = sheen([coat(steel, { technique: 'metallic', sheen: 'metal', film: 40 })])
    expect(bright[1]).toBeGreaterThan(0.95)
    expect(bright[0]).toBeLessThan(0.45)
    const dulled = sheen([
      coat(steel, { technique: 'metallic', sheen: 'metal', film: 40 }),
      coat(null, { technique: 'varnish', sheen: 'matt' }),
    ])
    expect(dulled[0]).toBeGreaterThan(0.8)
    const ink = thinned(opticsOf('#3060c0', 0.05), 0.5)
    const lit = (ground: Ground): number =>
      labOf(one([coat(ink, { technique: 'clear ink', film: 16 })], ground).colours)[0]
    expect(lit(unprimed)).toBeGreaterThan(lit(grey) + 10)
  })
  it('guesses from few bands what all of them sum to, exactly where the spectrum is level', () => {
    for (const w of daylight)
      expect(fewWeights(w).reduce((a, b) => a + b)).toBeCloseTo(
        w.reduce((a, b) => a + b),
        2,
      )
  })
  it('puts films on films as one map', () => {
    fc.assert(
      fc.property(paint, paint, share, (one, two, r) => {
        const below = evenFilm(one, 12),
          over = evenFilm(two, 30),
          both = laidOn(over, below)
        for (let b = 0; b < 3; b++) {
          const on = (m: Float32Array, x: number): number => (m[3 * b]! * x + m[3 * b + 1]!) / (m[3 * b + 2]! * x + 1)
          expect(on(both, r)).toBeCloseTo(on(over, on(below, r)), 5)
        }
      }),
    )
  })
})

const hands = fc.record(
  Object.fromEntries(Object.keys(HAND).map((k) => [k, fc.double({ min: 0, max: 1, noNaN: true })])),
) as fc.Arbitrary<Hand>

describe('techniques', () => {
  it('put on between nothing and all of the film, a wash where it is deep, a dry brush where it stands out', () => {
    fc.assert(
      fc.property(fc.constantFrom(...TECHNIQUES), where, share, hands, (technique, maps, exposure, hand) => {
        for (const tool of ['brush', 'airbrush'] as const) {
          const s = shareAt({ ...laying, hand, technique, tool }, { ...maps, exposure, x: 1, y: 2, z: 3 })
          expect(s).toBeGreaterThanOrEqual(0)
          expect(s).toBeLessThanOrEqual(1)
        }
      }),
    )
    const at = { spray: 0.5, recess: 0, ridge: 0, exposure: 1, x: 0, y: 0, z: 0 }
    const of = (technique: Laying['technique'], more: object): number =>
      shareAt({ ...laying, technique }, { ...at, ...more })
    expect(of('wash', { recess: 1 })).toBeGreaterThan(5 * of('wash', {}))
    expect(of('dry brush', {})).toBe(0)
    expect(of('powder', { recess: 1, exposure: 0.2 })).toBeGreaterThan(5 * of('powder', {}))
  })
  it('follow the hand: what it leaves on open skin and in hollows is what is there', () => {
    const bare = { spray: 0, recess: 0, ridge: 0, exposure: 1, x: 0, y: 0, z: 0 },
      hollow = { ...bare, recess: 1 },
      crest = { ...bare, ridge: 1 }
    fc.assert(
      fc.property(hands, (hand) => {
        const on = (technique: Laying['technique'], at: typeof bare): number =>
          shareAt({ ...laying, hand, coverage: 1, technique }, at)
        expect(on('wash', bare)).toBeCloseTo(hand.washOpen, 9)
        expect(on('wash', hollow)).toBeCloseTo(1, 9)
        expect(on('layer', bare)).toBeCloseTo(hand.layerFlat, 9)
        expect(on('layer', crest)).toBeCloseTo(1, 9)
        expect(on('layer', hollow)).toBeCloseTo(Math.max(0, hand.layerFlat - hand.layerHollow), 9)
        expect(on('dry brush', crest)).toBe(1)
        expect(on('dry brush', { ...hollow, ridge: 1 })).toBeCloseTo(1 - hand.dryBrushHollow, 9)
        expect(on('powder', bare)).toBeCloseTo(hand.powderOpen, 9)
        expect(on('powder', { ...hollow, exposure: 0 })).toBeCloseTo(
          Math.min(1, hand.powderOpen + hand.powderHollow + hand.powderSheltered),
          9,
        )
        // What is sprayed lies where the spray lands, whatever the hand.
        for (const technique of ['layer', 'glaze', 'airbrush'] as const)
          expect(shareAt({ ...laying, hand, tool: 'airbrush', technique }, { ...hollow, spray: 0.3 })).toBe(0.3)
        expect(readOf({ technique: 'layer', tool: 'airbrush' }).hand).toEqual([])
        // Chips by area: finer than the skin can show, they are told as their mean.
        const chips = (at: typeof bare): number =>
          shareAt({ ...laying, hand, coverage: 0.5, grain: 0.1, technique: 'chips' }, at, 1)
        expect(chips(bare) / chips(crest)).toBeCloseTo(hand.chipsFlat, 9)
      }),
    )
  })
  it('cover the share asked for with spots, wherever the skin is, and thin out where less is asked', () => {
    for (const coverage of [0.1, 0.35, 0.7, DENSEST]) {
      let plane = 0,
        ball = 0
      const N = 140
      for (let i = 0; i < N; i++)
        for (let j = 0; j < N; j++) {
          const s = { grain: 1.5, seed: 11 }
          plane += speckleAt(s, i * 0.37, j * 0.37, 0.2 * i * 0.37 + 5.1, coverage)
          const u = (i + 0.5) / N,
            phi = (2 * Math.PI * (j + 0.5)) / N,
            z = 2 * u - 1,
            r = Math.sqrt(1 - z * z)
          ball += speckleAt(s, 20 * r * Math.cos(phi), 20 * r * Math.sin(phi), 20 * z, coverage)
        }
      expect(Math.abs(plane / N ** 2 - coverage)).toBeLessThan(0.03)
      expect(Math.abs(ball / N ** 2 - coverage)).toBeLessThan(0.03)
    }
    // The same dots, fewer of them.
    for (let i = 0; i < 400; i++) {
      const at = [i * 0.31, i * 0.17, i * 0.05] as const
      const few = speckleAt({ grain: 2, seed: 1 }, ...at, 0.2)
      expect(few).toBeLessThanOrEqual(speckleAt({ grain: 2, seed: 1 }, ...at, 0.5))
    }
  })
  it('spray a slope by its cosine from wherever the nozzle stands, wider cones more evenly', () => {
    const roof = {
      positions: new Float32Array([-20, 0, 0, 0, 0, 20, 20, 0, 0, -20, 60, 0, 0, 60, 20, 20, 60, 0]),
      triangles: new Uint32Array([0, 4, 1, 0, 3, 4, 1, 5, 2, 1, 4, 5]),
    }
    const s = Math.SQRT1_2
    const left = new Float32Array([-s, 0, s, -s, 0, s, -s, 0, s, -s, 0, s, -s, 0, s, -s, 0, s])
    const steep = sprayLight(roof, left, [-s, 0, s], 2),
      straight = sprayLight(roof, left, [0, 0, 1], 2)
    expect(steep[0]).toBeGreaterThan(0.99)
    expect(Math.abs(straight[0]! - s)).toBeLessThan(0.01)
  })
})

describe('a lamp', () => {
  it('has the colour of a black body by Planck’s law', () => {
    // CIE 1931 chromaticities of the Planckian locus (CIE 015, illuminant A at 2856 K; 5000 and 6500 K).
    const known: [number, number, number][] = [
      [2856, 0.4476, 0.4074],
      [5000, 0.3451, 0.3516],
      [6500, 0.3135, 0.3237],
    ]
    for (const [kelvin, x, y] of known) {
      const { WX, WZ } = weightsOf(blackBody(kelvin))
      const X = WX.reduce((a, b) => a + b),
        Y = 1,
        Z = WZ.reduce((a, b) => a + b)
      expect(X / (X + Y + Z)).toBeCloseTo(x, 2)
      expect(Y / (X + Y + Z)).toBeCloseTo(y, 2)
    }
  })
  it('leaves white nearly white, warm where it is warm, and parts what matches by day', () => {
    const white = (k: number | null): number[] => lampWeights(k).map((w) => w.reduce((a, b) => a + b))
    for (const v of white(null)) expect(v).toBeCloseTo(1, 2)
    const warm = white(2700)
    expect(warm[0]).toBeGreaterThan(warm[2]!)
    // Most of the cast is taken for white.
    expect(warm[2]).toBeGreaterThan(ADAPTED * 0.85)
    // One grey of a flat spectrum, one mixed of two that are not: by day the same to the eye, by lamplight not.
    const flat = opticsOf('#808080', 0.9)
    const mixed = mix([opticsOf('#c07040', 0.9), opticsOf('#4080b0', 0.9)], [1, 1])
    const seen = (o: Optics, k: number | null): Triple => labOf(one([coat(o, { film: 900 })], unprimed, {}, k).colours)
    const shift = (o: Optics): number => deltaE00(seen(o, null), seen(o, 2700))
    expect(Math.abs(shift(flat) - shift(mixed))).toBeGreaterThan(0.5)
  })
})
