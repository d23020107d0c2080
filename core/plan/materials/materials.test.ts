import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { accessOf, mergedAccess, regionAccess } from '../../fit/access'
import { identity3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { concatenate, reversed } from '../../mesh/mesh'
import { cuspsOf } from '../../print/orient/cusps'
import { boxBody, sphereBody } from '../../testBodies'
import { GRAIN, ladder, sandingTime, surfaceOf } from './abrasives'
import { adhesiveFor as adhesiveForOf } from './adhesive'
import { batches, potLife } from './batches'
import { expected as expectedOf, remedies as remediesOf } from '../facts/dryFit'
import { fillSeam } from './filling'
import { ADHESIVES, FILLERS } from './materials'
import { primerFor as primerForOf } from './primer'
import { spokenBy } from '../../testSpoken'

const adhesiveFor = spokenBy(adhesiveForOf)
const expected = spokenBy(expectedOf)
const remedies = spokenBy(remediesOf)
const primerFor = spokenBy(primerForOf)

const ROOM = { temperature: 20, humidity: 50 }
const material = (id: string) => [...FILLERS, ...ADHESIVES].find((m) => m.id === id)!
const room = fc.record({ temperature: fc.integer({ min: 5, max: 32 }), humidity: fc.integer({ min: 20, max: 85 }) })

describe('mixes', () => {
  it('are used up before they set, in any room, and together are what is needed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FILLERS),
        fc.double({ min: 0.01, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 20_000, noNaN: true }),
        room,
        (m, ml, work, r) => {
          const all = batches(m, ml, work, r)
          for (const b of all) expect(b.work).toBeLessThanOrEqual(0.8 * potLife(m, r) + 1e-6)
          expect(all.reduce((s, b) => s + b.work, 0)).toBeCloseTo(work, 4)
          expect(all.reduce((s, b) => s + b.ml, 0)).toBeGreaterThanOrEqual(ml * 1.3 - 1e-9)
        },
      ),
    )
  })
  it('have half the time ten degrees warmer, and twice as long colder', () => {
    const epoxy = material('epoxyPutty')
    expect(potLife(epoxy, ROOM)).toBe(90 * 60)
    expect(potLife(epoxy, { ...ROOM, temperature: 30 })).toBeCloseTo(45 * 60)
    expect(potLife(epoxy, { ...ROOM, temperature: 10 })).toBeCloseTo(180 * 60)
    // Three minutes' work with a putty of four: at 20 °C one mix, at 30 °C, where 96 s are usable, two.
    expect(batches(material('polyester'), 4, 180, ROOM)).toHaveLength(1)
    expect(batches(material('polyester'), 4, 180, { ...ROOM, temperature: 30 })).toHaveLength(2)
  })
})

describe('filling a seam', () => {
  it('depends on how the gap is spread: a hairline with one wide end takes two, by hand 1.2 mm³ and 40 mm³', () => {
    const fills = fillSeam(
      [
        { upTo: 0.1, length: 80, volume: 1.2 },
        { upTo: 2, length: 12, volume: 40 },
      ],
      ROOM,
    )
    expect(fills.map((f) => f.material.id)).toEqual(['resin', 'uvPutty'])
    expect(fills.map((f) => f.volume)).toEqual([1.2, 40])
    // 2 mm of brushed resin, 1 mm at a time; putty sets 2 mm deep at once.
    expect(fills.map((f) => f.layers)).toEqual([2, 1])
    expect(fills[1]!.batches[0]!.ml).toBeCloseTo((40 * 1.3) / 1000, 9)
  })
  it('sets up no second material for a little that the first can bridge', () => {
    const fills = fillSeam(
      [
        { upTo: 0.3, length: 100, volume: 30 },
        { upTo: 0.5, length: 4, volume: 3 },
      ],
      ROOM,
    )
    expect(fills).toHaveLength(1)
    expect(fills[0]!.material.gap[1]).toBeGreaterThanOrEqual(0.5)
  })
  it('never puts a material into a gap that it does not bridge, and leaves nothing out that one does', () => {
    const limits = [0.1, 0.3, 0.5, 1, 2, null]
    const classes = fc
      .array(fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 300 })), {
        minLength: 6,
        maxLength: 6,
      })
      .map((list) =>
        list.map(([length, volume], i) => ({ upTo: limits[i]!, length, volume })).filter((c) => c.length > 0),
      )
    fc.assert(
      fc.property(classes, room, (seam, r) => {
        const fills = fillSeam(seam, r)
        expect(fills.reduce((s, f) => s + f.length, 0)).toBe(seam.reduce((s, c) => s + c.length, 0))
        expect(fills.reduce((s, f) => s + f.volume, 0)).toBe(seam.reduce((s, c) => s + c.volume, 0))
        for (const f of fills) expect(f.widest ?? 4).toBeLessThanOrEqual(f.material.gap[1])
      }),
      { numRuns: 60 },
    )
  })
})

describe('adhesive', () => {
  const needs = { moment: 0, area: 60, gap: 0.05, mixed: false, hurry: Infinity }
  const of = (more: Partial<typeof needs>): string => adhesiveFor({ ...needs, ...more }, ROOM).material.id
  it('is the quickest that bridges, leaves time to line up, bears and gives', () => {
    expect(of({})).toBe('caThin')
    expect(of({ gap: 0.2 })).toBe('caGel')
    expect(of({ gap: 1 })).toBe('epoxyFast')
    // Twelve square centimetres want a minute to be lined up: gel grabs after twenty seconds.
    expect(of({ gap: 0.2, area: 1200 })).toBe('epoxyFast')
    expect(of({ mixed: true })).toBe('epoxyFast')
  })
  it('bears the bending in peel as 32 M/(π d³) has it, or says that none does', () => {
    // 100 mm² are 11.3 mm across: 400 N·mm make 2.83 N/mm², over what quick epoxy is trusted with.
    const a = adhesiveFor({ ...needs, area: 100, moment: 400 }, ROOM)
    expect(a.material.id).toBe('epoxySlow')
    expect(a.utilisation * a.material.strength).toBeCloseTo((32 * 400) / (Math.PI * ((4 * 100) / Math.PI) ** 1.5), 6)
    expect(a.others.find((o) => o.material.id === 'epoxyFast')!.against).toContain('Pin it')
    const b = adhesiveFor({ ...needs, area: 20, moment: 5000 }, ROOM)
    expect(b.utilisation).toBeGreaterThan(1)
    expect(b.why).toContain('Pin it')
    expect(adhesiveFor({ ...needs, area: 100, moment: 400, hurry: 3600 }, ROOM).why).toContain('no time')
  })
})

describe('abrasives and primer', () => {
  it('start at the grain of the step and never go more than twice as fine at once', () => {
    for (const surface of ['skin', 'cloth', 'armour', 'clear'] as const)
      for (const finish of ['shelf', 'display', 'exhibition'] as const)
        for (const step of [5, 20, 45, 60, 120]) {
          const grits = ladder(step, surface, finish)
          grits.slice(1).forEach((g, i) => {
            expect(g / grits[i]!).toBeLessThanOrEqual(2)
            expect(g).toBeGreaterThan(grits[i]!)
          })
          for (const g of grits) expect(GRAIN[g]).toBeDefined()
        }
    expect(ladder(45, 'skin', 'display')).toEqual([320, 600])
    expect(ladder(120, 'skin', 'exhibition')).toEqual([180, 320, 600, 800])
    // Cloth keeps its texture.
    expect(ladder(45, 'cloth', 'exhibition')).toEqual([320])
    expect(surfaceOf('Brass lantern')).toBe('armour')
    expect(surfaceOf('Wool coat')).toBe('cloth')
    expect(surfaceOf('Face')).toBe('skin')
    expect(sandingTime([320, 600], 20_000, 45, 0, false)).toBeGreaterThan(sandingTime([320, 600], 10_000, 45, 0, false))
  })
  it('prime with filler only where steps are left, and sum the film', () => {
    const fine = primerFor(12, 10_000, 2000, 2)
    expect(fine).toMatchObject({ filler: 0, film: 30 })
    // 60 µm less 15 that plain hides; 24 of 40 µm stay of a coat after sanding: two coats.
    const coarse = primerFor(60, 10_000, 2000, 1)
    expect(coarse.filler).toBe(2)
    expect(coarse.film).toBeCloseTo(2 * 24 + 15, 9)
    // 1 dm² under 15 µm is 0.15 ml of solids: at 30 % solids and a quarter landing, 2 ml leave the can.
    expect(coarse.ml.plain).toBeCloseTo(2, 9)
  })
  it('knows the steps on a ball: |n·up| is spread evenly over a sphere', () => {
    const c = cuspsOf(sphereBody(20, 5), [0, 0, 1], 0.05)
    expect(c.p50).toBeCloseTo(25, 0)
    expect(c.p90).toBeCloseTo(45, 0)
    expect(cuspsOf(boxBody(10, 10, 10), [0, 0, 1], 0.05)).toMatchObject({ p90: 0, stepped: 400, flat: 200 })
  })
})

describe('what tools reach', () => {
  it('is all of a ball, and nothing of the inside of a shut box', () => {
    const ball = accessOf(sphereBody(20, 4), [])
    expect(ball.brush / ball.area).toBeCloseTo(1, 2)
    expect(ball.airbrush / ball.area).toBeCloseTo(1, 2)
    expect(ball.area / (4 * Math.PI * 400)).toBeCloseTo(1, 1)
    const shut = concatenate([boxBody(40, 40, 40, -20, -20, -20), reversed(boxBody(36, 36, 36, -18, -18, -18))])
    const r = accessOf(shut, [])
    expect(r.brush / r.area).toBeCloseTo((6 * 1600) / (6 * 1600 + 6 * 1296), 1)
  })
  it('is told region by region, and over several parts by their areas', () => {
    const out = sphereBody(20, 4),
      inside = reversed(sphereBody(18, 4))
    const n = out.positions.length / 3
    const both = concatenate([out, inside])
    const labels = Uint8Array.from({ length: 2 * n }, (_, v) => (v < n ? 3 : 5))
    const [skin, hollow] = regionAccess(both, labels)
    expect(skin).toMatchObject({ region: 3, brush: 1, airbrush: 1 })
    expect(hollow).toMatchObject({ region: 5, brush: 0, airbrush: 0 })
    expect(hollow!.area / skin!.area).toBeCloseTo(0.81, 1)
    const [all] = mergedAccess([skin!, { ...hollow!, region: 3 }])
    expect(all!.brush).toBeCloseTo(1 / 1.81, 1)
    expect(all!.area).toBeCloseTo(skin!.area + hollow!.area, 6)
  })
  it('is lost where another part is put over it, and its joint face does not count', () => {
    const plate = boxBody(60, 60, 4, -30, -30, -4)
    // A hood that stands on the plate over its middle, open to below only.
    const hood = concatenate([
      boxBody(2, 40, 30, -20, -20),
      boxBody(2, 40, 30, 18, -20),
      boxBody(40, 2, 30, -20, -20),
      boxBody(40, 2, 30, -20, 18),
      boxBody(40, 40, 2, -20, -20, 28),
    ])
    const r = accessOf(plate, [transformed(hood, identity3, [0, 0, 0.1])])
    // Under the hood are 36 × 36 mm that a brush had reached; the ring it stands on is the joint.
    expect(r.brushLost / 1296).toBeCloseTo(1, 0.7)
    const far = accessOf(plate, [transformed(hood, identity3, [300, 0, 0])])
    expect(far.brushLost).toBe(0)
  })
})

describe('a dry fit', () => {
  it('is expected by the fit map, and helped by what is measured', () => {
    const fit = { p5: 0.05, p50: 0.1, p95: 0.2, overlap: 0 }
    expect(expected(fit).word).toBe('slides')
    expect(expected({ ...fit, p5: -0.2, overlap: 3 }).word).toBe('binds')
    expect(expected({ ...fit, p50: 0.3, p95: 1.4 }).word).toBe('gapes')
    expect(remedies({ tight: null }, fit)).toEqual([])
    expect(remedies({ tight: 0.3 }, fit)[0]).toContain('0.15 mm per side')
    expect(remedies({ tight: -0.4 }, fit).join(' ')).toContain('Fill the seam')
  })
})
