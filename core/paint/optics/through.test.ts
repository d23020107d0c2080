import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coatFacts, type Asked } from '../coats/coatFacts'
import type { Coating } from '../coats/coating'
import { BANDS, hexToLab } from './colour'
import { FEW } from './fewBands'
import { opticsOf, type Optics } from './film'
import { evenFilm, laidOn } from './filmTable'
import { lampWeights } from './lamp'
import { Painter, paintSkin } from '../coats/painter'
import { MAPS } from '../surface/surfaceMaps'
import { passing } from './through'
import { undercoated, unprimed } from '../coats/undercoat'

const channel = fc.integer({ min: 40, max: 235 })
const paint = fc
  .tuple(channel, channel, channel, fc.float({ min: Math.fround(0.05), max: Math.fround(0.97), noNaN: true }))
  .map(([r, g, b, o]) => opticsOf(`#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`, o))
const film = fc.integer({ min: 1, max: 80 })
const ink = (K: number): Optics => ({ K: new Float64Array(BANDS).fill(K), S: new Float64Array(BANDS) })
const coat = (optics: Optics, film: number, levels: Uint8Array | null = null): Coating => ({
  technique: 'clear ink',
  optics,
  film,
  sheen: 'gloss',
  levels,
})

describe('light let through a film', () => {
  it("is the hyperbolic solution's transmittance, and with what is sent back never more than all", () => {
    fc.assert(
      fc.property(paint, film, (o, X) => {
        const map = evenFilm(o, X),
          T = passing(map)
        FEW.forEach((band, b) => {
          const K = o.K[band]!,
            S = o.S[band]!
          const a = 1 + K / S,
            r = Math.sqrt(a * a - 1)
          const exact = r / (a * Math.sinh(r * S * X) + r * Math.cosh(r * S * X))
          expect(T[b]).toBeCloseTo(exact, 3)
          expect(T[b]! + map[3 * b + 1]!).toBeLessThanOrEqual(1.0001)
        })
      }),
    )
  })
  it('goes to and fro between two films', () => {
    fc.assert(
      fc.property(paint, film, paint, film, (one, X, two, Y) => {
        const below = evenFilm(one, X),
          over = evenFilm(two, Y),
          both = passing(laidOn(over, below))
        const t = passing(below),
          s = passing(over)
        for (let b = 0; b < FEW.length; b++)
          // Over black a film sends back its β, from below as from above.
          expect(both[b]).toBeCloseTo((s[b]! * t[b]!) / (1 - over[3 * b + 1]! * below[3 * b + 1]!), 3)
      }),
    )
  })
  it('is once through an ink and not there and back, by Bouguer and Lambert', () => {
    const at = (coats: Coating[], strength = 1): number[] => {
      const behind = lampWeights(3000)
      for (const row of behind) for (let b = 0; b < BANDS; b++) row[b]! *= strength
      const { glow } = paintSkin(
        new Float32Array(MAPS),
        new Uint8Array(1),
        new Map([[0, { ground: unprimed, coats, behind }]]),
        unprimed,
        lampWeights(3000),
      )
      return [...glow!]
    }
    const bare = at([])
    // As bright as the white card that the eye has adapted to, in the lamp's own cast.
    expect(0.2126 * bare[0]! + 0.7152 * bare[1]! + 0.0722 * bare[2]!).toBeCloseTo(1, 1)
    at([], 2).forEach((v, c) => expect(v).toBeCloseTo(2 * bare[c]!, 4))
    // What the paler inside sends back a second time falls with the ink: calculated here by the sum of all goes.
    const through = (kx: number): number => {
      const t = Math.exp(-kx),
        inside = 0.7 / (0.45 + 0.55 * 0.7)
      return (t * (1 - 0.55 * inside)) / (1 - 0.55 * inside * t * t)
    }
    for (const kx of [0.2, 1, 2.5])
      at([coat(ink(kx / 20), 20)]).forEach((v, c) => expect(v / bare[c]!).toBeCloseTo(through(kx), 2))
    // Two coats of half the film are that film.
    at([coat(ink(0.05), 10), coat(ink(0.05), 10)]).forEach((v, c) =>
      expect(v).toBeCloseTo(at([coat(ink(0.05), 20)])[c]!, 4),
    )
    expect(at([coat(opticsOf('#202020', 0.97), 200)])[1]).toBeLessThan(0.001)
  })
  it('is told for each coat of a clear region, and of no other', () => {
    const ask = (regionId: number, id: string, optics: Optics): Asked => ({
      id,
      regionId,
      technique: 'clear ink',
      optics,
      film: 20,
      once: 20,
    })
    const facts = coatFacts([ask(0, 'a', ink(0.02)), ask(0, 'b', ink(0.02)), ask(1, 'c', ink(0.02))], (r) =>
      r === 0
        ? { reflectance: unprimed.reflectance, lamp: 3000 }
        : { reflectance: undercoated('grey').reflectance, lamp: null },
    )
    expect(facts.map((f) => f.through !== null)).toEqual([true, true, false])
    expect(facts[0]!.through).toBeGreaterThan(facts[1]!.through!)
    expect(facts[0]!.through).toBeLessThan(1)
    expect(hexToLab(facts[1]!.hex)[0]).toBeLessThan(hexToLab(facts[0]!.hex)[0])
  })
  it('of a candle is amber to an eye used to daylight, and paler to one used to lamps', () => {
    const blue = (eye: number | null): number => {
      const [r, , b] = lampWeights(1900, eye).map((w) => w.reduce((x, y) => x + y))
      return b! / r!
    }
    expect(blue(null)).toBeLessThan(0.3)
    expect(blue(2700)).toBeGreaterThan(1.3 * blue(null))
  })
})

describe('a coat that is dragged', () => {
  it('looks as the whole stack painted again, whichever coat, however many are under and over it', () => {
    const n = 1300
    const share = (seed: number): Uint8Array => Uint8Array.from({ length: n }, (_, v) => (v * 131 * (seed + 3)) % 256)
    const regions = Uint8Array.from({ length: n }, (_, v) => ((v * 7) % 5 === 0 ? 1 : 0))
    const maps = Float32Array.from({ length: n * MAPS }, (_, i) => Math.abs(Math.sin(i)))
    const ground = undercoated('zenithal')
    fc.assert(
      fc.property(
        fc.array(fc.record({ o: paint, film, even: fc.boolean(), metal: fc.boolean() }), {
          minLength: 1,
          maxLength: 30,
        }),
        fc.array(fc.tuple(fc.nat(), film), { minLength: 3, maxLength: 6 }),
        (list, drags) => {
          const coats = list.map(({ o, film, even, metal }, i): Coating => ({
            ...coat(o, film, even ? null : share(i)),
            sheen: metal ? 'metal' : 'matt',
          }))
          const stacks = new Map([
            [0, { ground, coats }],
            [1, { ground, coats: coats.slice(0, 2) }],
          ])
          const painter = new Painter(maps),
            by = lampWeights(null)
          painter.paint(regions, stacks, ground, by)
          for (const [which, film] of drags) {
            const k = which % coats.length
            // Now and then another shines otherwise all at once, and its film stays.
            const other = (k + 1) % coats.length
            if (film % 3 === 0) coats[other] = { ...coats[other]!, sheen: 'gloss' }
            else coats[k] = { ...coats[k]!, film }
            const now = painter.paint(regions, stacks, ground, by),
              again = paintSkin(maps, regions, stacks, ground, by)
            const off = (a: Float32Array, b: Float32Array): number =>
              a.reduce((worst, v, i) => Math.max(worst, Math.abs(v - b[i]!)), 0)
            expect(off(now.colours, again.colours)).toBeLessThan(1e-4)
            expect(off(now.sheen, again.sheen)).toBeLessThan(1e-4)
          }
        },
      ),
      { numRuns: 25 },
    )
  })
})
