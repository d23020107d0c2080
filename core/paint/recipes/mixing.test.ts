import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { batchOf, DROP, paintFor, thinnerFor } from '../coats/batch'
import { deltaE00, hexToLab, labToHex, toLab, toXyz, type Triple } from '../optics/colour'
import { everyMix } from './everyMix'
import { rankOf } from './mixRank'
import { BLACK, filmOver, hiding, mix, opticsOf, opticsOfSwatches } from '../optics/film'
import { chromaOf, hueOf, hueTurn } from '../optics/hue'
import { nearest, nearestToOrigin } from './hull'
import { solveRecipe, type StockPaint } from './recipe'
import { searchMixes } from './recipeSearch'
import { mutings, skinZones, threeTones } from './tones'
import { bestTint } from '../coats/tint'
import { groundOf, undercoatBy } from '../coats/undercoat'
import { compareUndercoats } from '../coats/undercoats'
import { say } from '../../words/say'

const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
const paintOf = fc.record({ hex: colour, opacity: fc.double({ min: 0.3, max: 0.95, noNaN: true }) })

describe('the hull', () => {
  it('gives the nearest point: no step toward a corner comes nearer', () => {
    const corner = fc.double({ min: -1, max: 1, noNaN: true })
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), fc.array(corner, { minLength: 12, maxLength: 12 }), (count, list) => {
        const w = Float64Array.from(list),
          out = nearest()
        nearestToOrigin(w, count, out)
        const at = [0, 1, 2].map((k) => [0, 1, 2, 3].reduce((s, i) => s + out.weights[i]! * w[3 * i + k]!, 0))
        expect(out.weights.reduce((a, b) => a + b)).toBeCloseTo(1, 9)
        expect(Math.min(...out.weights)).toBeGreaterThanOrEqual(0)
        expect(at.reduce((s, v) => s + v * v, 0)).toBeCloseTo(out.squared, 9)
        // The optimum of a convex set: every corner lies beyond the plane through it.
        for (let i = 0; i < count; i++)
          expect(at.reduce((s, v, k) => s + v * w[3 * i + k]!, 0)).toBeGreaterThanOrEqual(out.squared - 1e-7)
      }),
      { numRuns: 400 },
    )
  })
})

describe('the recipe search', () => {
  it('gives the same first and the same closest mix as trying every one', () => {
    fc.assert(
      fc.property(fc.array(paintOf, { minLength: 1, maxLength: 10 }), colour, (list, hex) => {
        const known = list.map((p) => opticsOf(p.hex, p.opacity)),
          target = hexToLab(hex)
        const every = everyMix(known, target),
          ours = searchMixes(known, target)!
        // Within the gamut and far beyond it.
        expect(ours.closest.error - every.closest.error).toBeLessThan(1e-6)
        // The same step, count of paints and count of drops.
        expect(Math.floor(rankOf(ours.simplest) / 100)).toBe(Math.floor(rankOf(every.simplest) / 100))
      }),
      { numRuns: 12 },
    )
  })
  const stock: StockPaint[] = ['#f3f1ea', '#1b1a1c', '#c02528', '#e7b416', '#274a78', '#6b4a30', '#3d5a38'].map(
    (h, i) => ({
      id: `p${i}`,
      name: `Paint ${i}`,
      lab: hexToLab(h),
      opacity: 0.6 + 0.04 * i,
      kind: 'acrylic',
      price: 0.2 + 0.02 * i,
      open: i !== 3,
    }),
  )
  it('finds what a target was mixed from, and says what each answer is best at', () => {
    const known = stock.map((p) => opticsOf(p.lab, p.opacity))
    const target = toLab(hiding(mix([known[0]!, known[2]!, known[3]!], [4, 2, 1])))
    const a = solveRecipe(target, stock)
    const of = (merit: string): (typeof a.recipes)[number] => a.recipes.find((r) => r.merits.includes(merit as 'open'))!
    expect(of('closest').error).toBeLessThan(0.5)
    expect(a.reached).toBe(true)
    for (const r of a.recipes) {
      expect(r.total).toBeLessThanOrEqual(12)
      expect(of('closest').error).toBeLessThanOrEqual(r.error + 1e-9)
      if (r.error <= 2) expect(of('cheapest').price!).toBeLessThanOrEqual(r.price! + 1e-9)
      if (r.error <= 2) expect(of('fewest').drops.length).toBeLessThanOrEqual(r.drops.length)
    }
    expect(of('open')?.drops.some((d) => d.paint === 'p3') ?? false).toBe(false)
  })
  it('names the pigment that the stock lacks, and leaves out with a reason what cannot be mixed', () => {
    const more: StockPaint[] = [
      ...stock,
      { id: 'm', name: 'Brass', lab: [60, 5, 40], opacity: 0.8, kind: 'metallic' },
      { id: 'o', name: 'Oil umber', lab: [30, 8, 14], opacity: 0.8, kind: 'oil' },
      { id: 'c', name: 'Medium', lab: [95, 0, 0], opacity: 0, kind: 'acrylic' },
    ]
    const a = solveRecipe('#00b8c0', more)
    expect(a.reached).toBe(false)
    expect(say(a.missing!)).toMatch(/turquoise|green/)
    expect(a.excluded.map((e) => say(e))).toEqual([
      expect.stringContaining('Brass'),
      expect.stringContaining('no opacity'),
    ])
    for (const r of a.recipes)
      if (r.drops.some((d) => d.paint === 'o')) expect(r.drops.every((d) => d.paint === 'o')).toBe(true)
    expect(say(solveRecipe('#808080', []).missing!)).toMatch(/no mixable paint/)
    expect(solveRecipe('#808080', [stock[2]!]).recipes[0]!.drops).toEqual([{ paint: 'p2', name: 'Paint 2', drops: 1 }])
  })
})

describe('films and swatches', () => {
  it('mixes a paint with itself to itself, and adds K and S in any order', () => {
    fc.assert(
      fc.property(paintOf, paintOf, fc.integer({ min: 1, max: 9 }), (p, q, n) => {
        const a = opticsOf(p.hex, p.opacity),
          b = opticsOf(q.hex, q.opacity)
        hiding(mix([a, a], [n, 3])).forEach((v, i) => expect(v).toBeCloseTo(hiding(a)[i]!, 9))
        const once = mix([a, b, a], [1, n, 2]),
          other = mix([b, a], [n, 3])
        once.K.forEach((v, i) => expect(v).toBeCloseTo(other.K[i]!, 9))
      }),
      { numRuns: 30 },
    )
  })
  it('follows the tinting line: K/S of black in white is a straight line in its share over the scattering', () => {
    // Duncan's law for a strong black in a white of nearly no absorption: K/S = c·K_black / (S_white(1−c) + c·S_black).
    const w = opticsOf('#f4f4f2', 0.9),
      k = opticsOf('#151515', 0.95)
    const b = 17
    let last = Infinity
    for (const c of [0, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1]) {
      const m = mix([w, k], [1 - c, c])
      const line = (c * k.K[b]! + (1 - c) * w.K[b]!) / (c * k.S[b]! + (1 - c) * w.S[b]!)
      expect(m.K[b]! / m.S[b]!).toBeCloseTo(line, 12)
      // Published in every table of the law: K/S 0.25 is R 0.5, 1.6 is 0.2, 4.05 is 0.1, inside the film.
      const R = 1 + line - Math.sqrt(line * line + 2 * line)
      expect((1 - R) ** 2 / (2 * R)).toBeCloseTo(line, 9)
      const y = toXyz(hiding(m))[1]
      expect(y).toBeLessThan(last)
      last = y
    }
    for (const [ks, R] of [
      [0.25, 0.5],
      [1.6, 0.2],
      [4.05, 0.1],
    ])
      expect(1 + ks! - Math.sqrt(ks! * ks! + 2 * ks!)).toBeCloseTo(R!, 9)
  })
  it('gives back both swatches that a paint was entered by', () => {
    fc.assert(
      fc.property(colour, fc.double({ min: 0.3, max: 0.9, noNaN: true }), (hex, opacity) => {
        const made = opticsOf(hex, opacity)
        const over = toLab(filmOver(made, 20, BLACK)),
          full = toLab(hiding(made))
        // A colour nearly as dark as the ground shows nothing over it, and one as pure as light has no smooth spectrum.
        if (full[0] < 35 || chromaOf(full) > 30) return
        const read = opticsOfSwatches(full, over)
        expect(deltaE00(toLab(hiding(read)), full)).toBeLessThan(0.5)
        expect(deltaE00(toLab(filmOver(read, 20, BLACK)), over)).toBeLessThan(2)
      }),
      { numRuns: 40 },
    )
  })
  it('takes what a swatch over black cannot tell, where the paint is as dark as that, from the bands that can', () => {
    // A red that is black in blue and green: over black both swatches look alike there, however much scatters.
    const red = opticsOf('#8c1210', 0.7)
    const read = opticsOfSwatches(toLab(hiding(red)), toLab(filmOver(red, 20, BLACK)))
    const dark = [...hiding(red).keys()].filter((b) => hiding(red)[b]! < BLACK[b]! + 0.01)
    expect(dark.length).toBeGreaterThan(5)
    for (const b of dark) {
      expect(read.S[b]! / red.S[b]!).toBeGreaterThan(0.2)
      expect(read.S[b]! / red.S[b]!).toBeLessThan(5)
    }
  })
})

describe('tones', () => {
  it('darkens and lightens, and turns the hue as the school says', () => {
    const blue: Triple = [45, 2, -38],
      warm = threeTones(blue, 'warmLight'),
      same = threeTones(blue, 'sameHue')
    expect(warm.shadow[0]).toBeLessThan(blue[0])
    expect(warm.light[0]).toBeGreaterThan(blue[0])
    expect(Math.abs(hueTurn(hueOf(warm.light), 92))).toBeLessThan(Math.abs(hueTurn(hueOf(blue), 92)))
    expect(hueTurn(hueOf(same.light), hueOf(blue))).toBeCloseTo(0, 6)
    // Red lightens toward orange in every school: white alone would make it pink.
    const red: Triple = [42, 60, 35]
    for (const school of ['warmLight', 'coolLight', 'sameHue'] as const)
      expect(hueTurn(hueOf(red), hueOf(threeTones(red, school).light))).toBeGreaterThan(5)
  })
  it('mutes in three ways to the chroma that was asked, or says that the stock cannot', () => {
    const paints = ['#1b1a1c', '#6b4a30', '#3d6a38', '#274a78'].map((h) => opticsOf(h, 0.8))
    const red = opticsOf('#c02528', 0.7)
    const all = mutings(red, paints, 0.6)
    const goal = 0.6 * chromaOf(toLab(hiding(red)))
    expect([2, 3]).toContain(all[0]!.paint)
    expect(all.slice(1).map((m) => m.paint)).toEqual([1, 0])
    for (const m of all) expect(Math.abs(chromaOf(m.lab) - goal)).toBeLessThan(9)
    // Black darkens more than the complement at the same chroma.
    expect(all[2]!.darker).toBeGreaterThan(all[0]!.darker)
    expect(mutings(red, [opticsOf('#f0f0f0', 0.8)], 0.6).every((m) => m.paint === null)).toBe(true)
  })
  it('tints skin by what can just be seen and comes back half way', () => {
    const skin = opticsOf('#d9a184', 0.75)
    const zones = skinZones(
      skin,
      ['#a02030', '#204090', '#e0b030'].map((h) => opticsOf(h, 0.4)),
    )
    expect(zones.map((z) => z.zone)).toEqual(['red', 'base', 'cool', 'base', 'yellow', 'base'])
    const base = toLab(hiding(skin))
    for (let i = 0; i < zones.length; i += 2) {
      expect(zones[i]!.shift).toBeGreaterThan(1)
      expect(zones[i]!.shift).toBeLessThan(9)
      expect(deltaE00(zones[i + 1]!.lab, base)).toBeLessThan(deltaE00(zones[i]!.lab, base))
    }
    expect(hueTurn(hueOf(base), hueOf(zones[0]!.lab))).toBeLessThan(0)
    expect(zones[2]!.lab[2]).toBeLessThan(base[2])
  })
})

describe('batches and undercoats', () => {
  it('scales drops to what is needed, never below the recipe', () => {
    // 100 cm², two brushed coats: 20 µm dry at 40 % solids is 50 µm wet; a tenth stays in the brush.
    expect(paintFor(10_000, 2, 'brush')).toBeCloseTo((10_000 * 0.05 * 2) / 1000 / 0.9, 9)
    // Half paint takes as much thinner, four fifths a quarter; by their shares.
    expect(
      thinnerFor(2, [
        { drops: 1, share: 0.5 },
        { drops: 3, share: 0.8 },
      ]),
    ).toBeCloseTo(0.5 + 1.5 / 4, 9)
    expect(thinnerFor(2, [])).toBe(0)
    expect(batchOf([3, 1], 0.01)).toEqual({ ml: 4 * DROP, times: 1, drops: [3, 1] })
    expect(batchOf([4, 2], 0.14)).toEqual({ ml: 3 * DROP, times: 0.5, drops: [2, 1] })
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 4 }),
        fc.double({ min: 0.01, max: 40, noNaN: true }),
        (drops, ml) => {
          const b = batchOf(drops, ml)
          expect(b.ml).toBeGreaterThanOrEqual(ml - 1e-9)
          b.drops.forEach((d, i) => expect(d / drops[i]!).toBeCloseTo(b.times, 9))
          expect(b.drops.every((d) => Number.isInteger(d))).toBe(true)
        },
      ),
    )
  })
  it('finds white the cheapest ground for yellow, and black for a deep blue', () => {
    const one = (hex: string, opacity: number): Map<string, number> =>
      new Map(
        compareUndercoats([{ area: 5000, optics: opticsOf(hex, opacity), tool: 'brush', goal: null }]).map((c) => [
          c.undercoat,
          c.total,
        ]),
      )
    const yellow = one('#f0c420', 0.5),
      blue = one('#16284a', 0.8)
    expect(yellow.get('white')!).toBeLessThan(yellow.get('black')!)
    expect(blue.get('black')!).toBeLessThan(blue.get('white')!)
  })
  it('has tinted primer look like the colour that it is tinted to, and cost what its lightness and hue cost', () => {
    fc.assert(
      fc.property(colour, (hex) => {
        expect(deltaE00(toLab(groundOf(undercoatBy('tinted', hex))), hexToLab(hex))).toBeLessThan(1)
      }),
    )
    const yellow = { area: 5000, optics: opticsOf('#e0a020', 0.5), tool: 'brush' as const, goal: null }
    const [own, grey, as] = compareUndercoats(
      [yellow],
      ['#e0a020', 'grey', undercoatBy('tinted', labToHex(toLab(groundOf('grey'))))],
    )
    expect(own!.total).toBe(1)
    expect(as!.total).toBe(grey!.total)
    // Mixed and strained beforehand.
    expect(as!.handsOn - grey!.handsOn).toBe(300)
  })
  it('finds the tint of fewest coats, to one coat: against the usual undercoats, and a grid of other colours', () => {
    const level = ['00', '48', '88', 'c4', 'ff']
    const grid = level.flatMap((r) => level.flatMap((g) => level.map((b): `#${string}` => `#${r}${g}${b}`)))
    const base = fc.record({
      area: fc.double({ min: 100, max: 5000, noNaN: true }),
      optics: paintOf.map((p) => opticsOf(p.hex, p.opacity)),
      tool: fc.constantFrom('brush' as const, 'airbrush' as const),
      goal: fc.constant(null),
    })
    fc.assert(
      fc.property(fc.array(base, { minLength: 1, maxLength: 5 }), (bases) => {
        const of = (list?: Parameters<typeof compareUndercoats>[1]): number =>
          Math.min(...compareUndercoats(bases, list).map((c) => c.total))
        const best = of([undercoatBy('tinted', bestTint(bases)!)])
        expect(best).toBeLessThanOrEqual(Math.min(of(), of(grid)) + 1)
      }),
      // A search by steps: on these it is held to one coat, on others it has been no further off.
      { numRuns: 8, seed: 20_261_126 },
    )
    expect(bestTint([])).toBeNull()
  })
})
