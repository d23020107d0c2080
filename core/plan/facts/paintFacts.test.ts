import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ORDER_COSTS } from '../../defaults/paint'
import { areaOf, coatsOf, finishesOf, surfacesOf, unprimedIn, type PlannedScheme } from './paintFacts'
import { message } from '../../words/message'
import { say } from '../../words/say'

const paints = new Map([
  ['navy', { name: 'Wool navy', kind: 'acrylic', finish: 'matt' }],
  ['brass', { name: 'Bell brass', kind: 'metallic', finish: 'satin' }],
  ['oil', { name: 'Slow umber', kind: 'oil', finish: 'satin' }],
  ['gloss', { name: 'Clear gloss', kind: 'varnish', finish: 'gloss' }],
])
const coat = (
  id: string,
  regionId: number,
  paintId: string | null,
  more: Partial<PlannedScheme['coats'][number]> = {},
): PlannedScheme['coats'][number] => ({
  id,
  regionId,
  paintId,
  mix: [],
  technique: 'base',
  tool: 'brush',
  film: 25,
  ...more,
})
const scheme: PlannedScheme = {
  regions: [
    { id: 0, name: 'Coat', takes: 'paint' },
    { id: 1, name: 'Buckle', takes: 'paint' },
    { id: 2, name: 'Neck joint', takes: 'glue' },
    { id: 3, name: 'Lantern glass', takes: 'light' },
  ],
  coats: [
    coat('a', 0, 'navy', { tool: 'airbrush' }),
    coat('b', 1, 'brass'),
    coat('c', 0, 'oil', {
      mix: [
        { paintId: 'oil', drops: 2 },
        { paintId: 'navy', drops: 1 },
      ],
    }),
    coat('d', 0, 'gloss', { technique: 'varnish' }),
  ],
  order: ['b'],
  maps: [
    { areas: { 0: 900, 1: 20 }, borders: [{ a: 0, b: 1, mm: 14 }] },
    { areas: { 0: 100, 3: 30 }, borders: [] },
  ],
  effects: [],
}

describe('what a plan takes from a scheme', () => {
  it('puts coats in the order of one’s own, the rest as listed, each with its paint, area and kind', () => {
    const list = coatsOf(scheme, 5000, paints, ORDER_COSTS)
    expect(list.map((c) => [c.nth, c.region, say(c.paint), c.area])).toEqual([
      [1, 'Buckle', 'Bell brass', 20],
      [0, 'Coat', 'Wool navy', 1000],
      [2, 'Coat', '2 Slow umber + 1 Wool navy', 1000],
    ])
    expect(list.map((c) => [c.metallic, c.solvent, c.byAirbrush])).toEqual([
      [true, false, false],
      [false, false, true],
      [false, true, false],
    ])
    // Sprayed after the buckle was brushed beside it: that is masked along the edge that they share.
    expect(list[1]!.masks).toMatchObject({ names: ['Buckle'], mm: 14 })
    expect(list[0]!.masks).toBeUndefined()
    expect(
      coatsOf({ ...scheme, coats: [coat('x', 0, 'gone'), coat('y', 0, null)] }, 1, paints, ORDER_COSTS),
    ).toMatchObject([{ paint: message('supplies.gone') }, { paint: message('supplies.paintToChoose') }])
  })
  it('takes the sheen from the last varnish, none where glue goes, and names what stays bare', () => {
    expect(finishesOf(scheme, 5000, paints)).toMatchObject([
      { name: 'Coat', wanted: 'gloss', metallic: false, edges: [{ to: 'Buckle', mm: 14 }] },
      { name: 'Buckle', wanted: null, metallic: true },
    ])
    expect(finishesOf({ ...scheme, coats: [] }, 5000, paints)).toEqual([])
    // The joint lies nowhere on the sculpt; the glass does.
    expect(unprimedIn(scheme, 5000)).toEqual([{ name: 'Lantern glass', takes: 'light' }])
  })
  it('shares the whole evenly where nothing was brushed, and loses none of it by surfaces', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.double({ min: 1, max: 1e6, noNaN: true }), (n, whole) => {
        const bare: PlannedScheme = {
          ...scheme,
          maps: [],
          regions: Array.from({ length: n }, (_, id) => ({
            id,
            name: id % 2 ? 'Face' : 'Cloak',
            takes: 'paint' as const,
          })),
        }
        const sum = bare.regions.reduce((s, r) => s + areaOf(bare, r.id, whole), 0)
        expect(sum / whole).toBeCloseTo(1, 9)
        expect(surfacesOf(bare, whole, false).reduce((s, x) => s + x.area, 0) / whole).toBeCloseTo(1, 9)
        expect(surfacesOf(bare, whole, true).map((x) => x.surface)).toEqual(['clear'])
      }),
    )
  })
})
