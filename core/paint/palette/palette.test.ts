import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ORDER_COSTS, type Technique } from '../../defaults/paint'
import { undercoatBy } from '../coats/undercoat'
import { deltaE00, hexToLab } from '../optics/colour'
import { stockPaint, type KeptPaint } from '../recipes/stockPaint'
import { factsOf, orderOf, undercoatsOf, type PaintedCoat } from './coats'
import { Palette } from './palette'
import { say } from '../../words/say'

const kept = (name: string, hex: string, more: Partial<KeptPaint> = {}): KeptPaint => ({
  ...{ name, hex, lab: null, overBlack: null, opacity: 0.8, kind: 'acrylic', finish: 'matt', price: 3 },
  ...{ opened: null, lots: [] },
  ...more,
})
const stock = [
  stockPaint('white', kept('Chalk', '#f2f0ea')),
  stockPaint('red', kept('Rowan', '#a8322c')),
  stockPaint('blue', kept('Fjord', '#2c4f7c')),
  stockPaint('green', kept('Moss', '#4d6b3c')),
  stockPaint('oil', kept('Slow umber', '#5a4632', { kind: 'oil' })),
  stockPaint('ink', kept('Clear amber', '#c87820', { kind: 'ink', opacity: 0.1 })),
  stockPaint('brass', kept('Bell brass', '#b08d4c', { kind: 'metallic', finish: 'metal' })),
  stockPaint('clear', kept('Satin varnish', '#ffffff', { kind: 'varnish', opacity: 0, finish: 'satin' })),
]
const palette = new Palette()
palette.keep(stock)
const coat = (
  id: string,
  regionId: number,
  technique: Technique,
  paintId: string | null,
  more: Partial<PaintedCoat> = {},
): PaintedCoat => ({ id, regionId, technique, paintId, mix: [], tool: 'brush', film: 40, pigment: 1, ...more })
const grey = undercoatBy('grey', '#808080')

describe('paints at hand', () => {
  it('have the colour of their bottle where they hide, alone and in any number of drops', () => {
    for (const p of stock.slice(0, 4))
      for (const drops of [1, 5]) expect(deltaE00(palette.labOf([{ id: p.id, drops }])!, p.lab)).toBeLessThan(0.5)
    expect(palette.labOf([{ id: 'sold out', drops: 2 }])).toBeNull()
    expect(palette.labOf([{ id: 'red', drops: 0 }])).toBeNull()
    expect(palette.ofCoat(coat('a', 0, 'base', null))).toBeNull()
  })
  it('mix by their shares, not by their number or order, into a colour between them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 }), (a, b) => {
        const one = palette.labOf([
          { id: 'white', drops: a },
          { id: 'blue', drops: b },
        ])!
        const other = palette.labOf([
          { id: 'blue', drops: 2 * b },
          { id: 'white', drops: 2 * a },
        ])!
        for (const k of [0, 1, 2]) expect(one[k]).toBeCloseTo(other[k]!, 6)
        expect(one[0]).toBeGreaterThan(stock[2]!.lab[0] - 0.5)
        expect(one[0]).toBeLessThan(stock[0]!.lab[0] + 0.5)
      }),
      { numRuns: 20 },
    )
  })
  it('are worked out again only when what was measured of them has changed', () => {
    const own = new Palette()
    own.keep(stock)
    const before = own.optics.get('red')
    own.keep([{ ...stock[1]!, name: 'Rowan, new label' }])
    expect(own.optics.get('red')).toBe(before)
    expect(own.paintsOf(coat('a', 0, 'base', 'red'))[0]!.name).toBe('Rowan, new label')
    own.keep([{ ...stock[1]!, lab: hexToLab('#803020') }])
    expect(own.optics.get('red')).not.toBe(before)
  })
  it('are muted and turned to the zones of a face by paints of the same binder only', () => {
    const list = [{ id: 'red', drops: 3 }]
    const used = [...palette.muted(list, stock, 0.6), ...palette.skin(list, stock)].flatMap((m) => m.id ?? [])
    expect(used.length).toBeGreaterThan(0)
    for (const id of used) expect(['oil', 'clear']).not.toContain(id)
    expect(palette.muted([{ id: 'gone', drops: 1 }], stock, 0.6)).toEqual([])
    for (const m of palette.muted(list, stock, 0.6))
      if (m.id) expect(Math.hypot(m.lab[1], m.lab[2])).toBeLessThan(Math.hypot(stock[1]!.lab[1], stock[1]!.lab[2]))
  })
})

describe('coats of a scheme in those paints', () => {
  const regions = [
    { id: 0, clear: false, behind: null },
    { id: 1, clear: true, behind: { kelvin: 2700 } },
  ]
  it('hide what is below them in their own region, and tell of light only where it comes through', () => {
    const facts = factsOf(
      palette,
      [
        coat('a', 0, 'base', 'red', { film: 200 }),
        coat('b', 0, 'base', 'white'),
        coat('c', 1, 'glaze', 'ink'),
        coat('d', 0, 'base', null),
      ],
      regions,
      grey,
    )
    const by = new Map(facts.map((f) => [f.id, f]))
    expect(deltaE00(hexToLab(by.get('a')!.hex), stock[1]!.lab)).toBeLessThan(3)
    expect(by.get('a')!.toHide).toBeGreaterThan(0)
    expect(by.get('a')!.through).toBeNull()
    const through = by.get('c')!.through!
    expect(through).toBeGreaterThan(0.05)
    expect(through).toBeLessThan(1)
    expect(by.get('d')).toMatchObject({ toHide: null, through: null })
    // White over red asks more than white over the grey primer.
    const [over] = factsOf(palette, [coat('b', 0, 'base', 'white')], regions, grey)
    expect(by.get('b')!.toHide ?? 99).toBeGreaterThanOrEqual(over!.toHide!)
  })
  it('ask for an undercoat by their bases alone', () => {
    const coats = [coat('a', 0, 'base', 'red'), coat('w', 0, 'wash', 'blue'), coat('b', 1, 'base', null)]
    const areas = [
      { id: 0, target: null, area: 900 },
      { id: 1, target: null, area: 100 },
    ]
    const { costs, best } = undercoatsOf(palette, coats, areas, '#803020')
    expect(costs.every((c) => c.coats.length === 1)).toBe(true)
    expect(costs.at(-1)!.undercoat).toEqual(undercoatBy('tinted', '#803020'))
    expect(best).toMatch(/^#[0-9a-f]{6}$/)
    expect(undercoatsOf(palette, [], areas, '#803020').best).toBeNull()
  })
  it('are ordered with their sheen, names and inks as the paints have them, an own order held beside', () => {
    const coats = [
      coat('v', 0, 'varnish', 'clear'),
      coat('m', 0, 'metallic', 'brass'),
      coat('b', 0, 'base', null, {
        mix: [
          { paintId: 'red', drops: 2 },
          { paintId: 'white', drops: 1 },
        ],
      }),
      coat('i', 1, 'glaze', 'ink'),
      coat('s', 0, 'airbrush', 'blue'),
      coat('u', 1, 'base', 'sold out'),
    ]
    const areas = [
      { id: 0, name: 'Bell', area: 900, takes: 'paint' },
      { id: 1, name: 'Lamp', area: 100, takes: 'light' },
    ] as unknown as Parameters<typeof orderOf>[2]
    const { scheme, plan, inks } = orderOf(
      palette,
      coats,
      areas,
      [],
      ['b', 's'],
      grey,
      ORDER_COSTS,
      'lightsLast' as never,
    )
    const by = new Map(scheme.coats.map((c) => [c.id, c]))
    expect(by.get('v')!.varnish).toBe('satin')
    expect([by.get('m')!.metallic, by.get('b')!.metallic]).toEqual([true, false])
    expect(say(by.get('b')!.name)).toBe('base, Rowan + Chalk')
    expect(say(by.get('u')!.name)).toBe('base, ?')
    expect(by.get('s')!.spray).toBe(true)
    expect(inks).toEqual(['i'])
    // Every coat once, in the best order as in one's own.
    for (const { steps } of [plan, plan.hand!]) expect(steps.map((s) => s.coat).sort()).toEqual([0, 1, 2, 3, 4, 5])
  })
})
