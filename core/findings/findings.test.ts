import { describe, expect, it } from 'vitest'
import { orderPlan } from '../paint/order/plan'
import type { OrderCoat, OrderScheme } from '../paint/order/types'
import { emptyRegion as emptyRegionOf } from './emptyRegion'
import { newSurface as newSurfaceOf } from './newSurface'
import { sprayReach as sprayReachOf } from './sprayReach'
import {
  forbiddenCoats as forbiddenCoatsOf,
  listedOrder as listedOrderOf,
  paintOrder as paintOrderOf,
} from './paintOrder'
import { health } from '../mesh/health'
import { concatenate, keepFaces } from '../mesh/mesh'
import { transformed } from '../mesh/transform'
import { boxBody, sphereBody } from '../testBodies'
import { colourUnreached as colourUnreachedOf } from './colourUnreached'
import { enoughResin as enoughResinOf } from './enoughResin'
import { islandGaps as islandGapsOf } from './islands'
import { laterEdition as laterEditionOf, licence as licenceOf } from './licence'
import { openMesh as openMeshOf } from './openMesh'
import { suctionCup as suctionCupOf } from './suctionCup'
import { supportGaps as supportGapsOf } from './supportGaps'
import type { TrapReport } from '../print/resin/trapped'
import { trappedResin as trappedResinOf } from './trappedResin'
import { MOST_DABS } from '../schemas/geometry'
import { PRINTS, SURVIVES, tooThin as tooThinOf } from './tooThin'
import type { SpokenFinding } from './finding'
import { inWords } from '../testSpoken'
import { message } from '../words/message'

const emptyRegion = inWords(emptyRegionOf)
const newSurface = inWords(newSurfaceOf)
const sprayReach = inWords(sprayReachOf)
const forbiddenCoats = inWords(forbiddenCoatsOf)
const listedOrder = inWords(listedOrderOf)
const paintOrder = inWords(paintOrderOf)
const colourUnreached = inWords(colourUnreachedOf)
const enoughResin = inWords(enoughResinOf)
const islandGaps = inWords(islandGapsOf)
const laterEdition = inWords(laterEditionOf)
const licence = inWords(licenceOf)
const openMesh = inWords(openMeshOf)
const suctionCup = inWords(suctionCupOf)
const supportGaps = inWords(supportGapsOf)
const trappedResin = inWords(trappedResinOf)
const tooThin = inWords(tooThinOf)

/** What every finding owes its reader. */
function complete(list: readonly SpokenFinding[]): void {
  for (const f of list) {
    expect(f.value).not.toBe('')
    expect(f.unit).not.toBe('')
    expect(f.sentence).toMatch(/\.$/)
    expect(f.how.length).toBeGreaterThan(10)
    for (const p of f.places) expect(p.every(Number.isFinite)).toBe(true)
    for (const x of f.fixes) expect(x.label).not.toBe('')
  }
  expect(new Set(list.map((f) => f.id)).size).toBe(list.length)
}

describe('what is wrong with a file', () => {
  it('is nothing with a sound one, and each kind by its own name with its places otherwise', () => {
    expect(openMesh(health(sphereBody(20, 4)))).toEqual([])
    const torn = keepFaces(
      sphereBody(20, 4),
      Uint8Array.from({ length: 2048 }, (_, f) => (f === 9 || f === 700 ? 0 : 1)),
    )
    const list = openMesh(health(concatenate([torn, boxBody(0.4, 0.4, 0.4, 40, 0, 0)])))
    complete(list)
    expect(list.find((f) => f.id === 'holes')).toMatchObject({ level: 'problem', value: '2' })
    expect(list.find((f) => f.id === 'holes')!.places).toHaveLength(2)
    expect(list.map((f) => f.id)).toContain('crumbs')
  })
  it('asks about units when the size is not to be believed, and offers the factor', () => {
    const third = [1, 0, 0, 0, 1, 0, 0, 0, 1].map((v) => v * 0.01) as never
    const list = openMesh(health(transformed(sphereBody(20, 3), third, [0, 0, 0])))
    complete(list)
    expect(list.some((f) => f.fixes.some((x) => x.act === 'scale' && x.factor === 1000))).toBe(true)
  })
})

describe('thin places', () => {
  const thin = (thinnest: number): Parameters<typeof tooThin>[0] =>
    ({
      thinnest,
      thinArea: thinnest < SURVIVES ? 12 : 0,
      samples: 4000,
      places: [{ point: [1, 2, 3], thickness: thinnest }],
      spots: [[1, 2, 3]],
    }) as never
  it('are named by whether they print at all or merely break', () => {
    expect(tooThin(thin(SURVIVES + 0.01))).toEqual([])
    expect(tooThin(thin(PRINTS + 0.05))).toMatchObject([{ level: 'warning' }])
    expect(tooThin(thin(PRINTS - 0.05))).toMatchObject([{ level: 'problem' }])
    complete(tooThin(thin(0.2)))
  })
  it('are not said to be of any size at another scale, where only the thinnest was measured', () => {
    const [there] = tooThin({ ...thin(0.5), thinArea: null })
    expect(there!.sentence).toMatch(/^At this size .* Scale the part to measure/)
    expect(tooThin({ ...thin(SURVIVES + 0.01), thinArea: null })).toEqual([])
    // Where it is thin is not known there, so that nothing is thickened.
    expect(there!.fixes.map((f) => f.act)).toEqual(['scale'])
  })
  it('are no places any more where a whole cape is thin: the operation would not take them', () => {
    const cape = (spots: number): string[] =>
      tooThin({ ...thin(0.3), spots: Array.from({ length: spots }, () => [0, 0, 0] as const) })[0]!.fixes.map(
        (f) => f.act,
      )
    expect(cape(MOST_DABS)).toEqual(['thicken'])
    expect(cape(MOST_DABS + 1)).toEqual([])
  })
  it('are thickened, and grow with the whole only where that is half as large again at most', () => {
    const fixes = (t: number): string[] => tooThin(thin(t))[0]!.fixes.map((f) => f.act)
    expect(fixes(0.5)).toEqual(['thicken', 'scale'])
    expect(fixes(0.399)).toEqual(['thicken'])
    expect(fixes(0.002)).toEqual(['thicken'])
    // Both sides grow: more than what is missing, and not by far.
    for (const t of [0.01, 0.2, 0.45, 0.59]) {
      const [fix] = tooThin(thin(t))[0]!.fixes
      if (fix?.act !== 'thicken') throw new Error('no thickening')
      expect(t + 2 * fix.by).toBeGreaterThanOrEqual(SURVIVES)
      expect(t + 2 * fix.by).toBeLessThan(SURVIVES + 0.3)
    }
  })
})

describe('what the layers say', () => {
  it('weighs a cup by its force, and shows its closed end first', () => {
    const cup = { firstLayer: 10, lastLayer: 40, worstLayer: 20, x: 5, y: 6, startX: 1, startY: 2 }
    const list = suctionCup(
      [
        { ...cup, area: 300, force: 30 },
        { ...cup, area: 50, force: 5 },
        { ...cup, area: 5, force: 0.5 },
      ],
      0.1,
    )
    complete(list)
    expect(list.map((f) => f.level)).toEqual(['problem', 'warning', 'note'])
    expect(list[0]!.places[0]).toEqual([1, 2, 1.05])
  })
  it('passes over flecks, and tells overloaded tips and unreached places from islands', () => {
    expect(islandGaps([{ layer: 3, x: 0, y: 0, area: 0.3 }], 0.1, false)).toEqual([])
    const tip = { point: [0, 0, 5], utilisation: 1.4 }
    const report = {
      tips: [tip, { ...tip, utilisation: 0.4 }],
      unreached: [{ point: [1, 1, 9], island: true }],
      barred: [[4, 4, 2]],
      lostEdits: 2,
    }
    const list = [...islandGaps([{ layer: 3, x: 0, y: 0, area: 2 }], 0.1, true), ...supportGaps(report as never)]
    complete(list)
    expect(list.map((f) => f.id)).toEqual(['islands', 'overload', 'barred', 'unreached', 'lost-edits'])
    expect(list[1]).toMatchObject({ value: '140 %' })
  })
})

describe('a colour out of reach', () => {
  it('says how far off the nearest mix is, and nothing when it is near enough', () => {
    const recipe = { drops: [], total: 1, hex: '#000000', merits: [], price: null, hides: 2 }
    expect(
      colourUnreached('Face', '#ff0000', {
        recipes: [{ ...recipe, error: 1 }],
        reached: true,
        missing: null,
        excluded: [],
      }),
    ).toEqual([])
    const list = colourUnreached('Face', '#ff0000', {
      recipes: [
        { ...recipe, error: 9 },
        { ...recipe, error: 6.25 },
      ],
      reached: false,
      missing: message('painting.missing.noPaint'),
      excluded: [],
    })
    complete(list)
    expect(list[0]).toMatchObject({ value: '6.3', sentence: expect.stringContaining('no mixable paint') })
  })
})

describe('paint on the sculpt', () => {
  it('tells of skin that is newer than its regions, and of regions that lie nowhere', () => {
    expect(newSurface(0)).toEqual([])
    complete(newSurface(0.004))
    expect(newSurface(0.004)[0]).toMatchObject({ value: '0.4', level: 'warning' })
    expect(newSurface(0.13)[0]).toMatchObject({ value: '13' })
    complete(emptyRegion('Belt', 0, 2, true))
    expect(emptyRegion('Belt', 0, 2, true)[0]!.sentence).toContain('2 coats')
    for (const [area, coats, painted] of [
      [5, 2, true],
      [0, 0, true],
      [0, 2, false],
    ] as const)
      expect(emptyRegion('Belt', area, coats, painted)).toEqual([])
  })
  it('reports paint on a face that takes glue and a cover over what is clear, and names what an order breaks', () => {
    const coat = (id: string, region: number, more: Partial<OrderCoat> = {}): OrderCoat => ({
      id,
      region,
      name: `base, ${id}`,
      paint: id,
      spray: true,
      handsOn: 300,
      lightness: 50,
      hides: 2,
      messy: false,
      metallic: false,
      varnish: null,
      ...more,
    })
    const scheme: OrderScheme = {
      regions: [
        { id: 0, name: 'Neck joint', area: 10, glueFace: true },
        { id: 1, name: 'Lantern glass', area: 40, clear: true },
        { id: 2, name: 'Buckle', area: 20 },
        { id: 3, name: 'Coat', area: 900 },
      ],
      borders: [{ a: 2, b: 3, mm: 30 }],
      coats: [
        coat('skin', 0),
        coat('amber ink', 1),
        coat('white', 1),
        coat('brass', 2, { metallic: true }),
        coat('matt varnish', 3, { varnish: 'matt' }),
      ],
    }
    const forbidden = forbiddenCoats(scheme, new Set(['amber ink']))
    complete(forbidden)
    expect(forbidden.map((f) => [f.level, f.value])).toEqual([
      ['problem', '1'],
      ['problem', '1'],
    ])
    expect(forbidden[1]!.sentence).toContain('Lantern glass is clear')
    const list = paintOrder(scheme, orderPlan(scheme, [0, 1, 2, 3, 4]))
    complete(list)
    expect(list[0]).toMatchObject({ level: 'problem', sentence: expect.stringContaining('removes its sheen') })
    expect(paintOrder(scheme, orderPlan(scheme, [0, 1, 2, 4, 3]))).toEqual([])
    const listed = listedOrder(orderPlan(scheme, [0, 1, 2, 3, 4]))
    complete(listed)
    expect(listed[0]).toMatchObject({ value: '1', unit: 'rule broken as listed', fixes: [{ act: 'cheapestOrder' }] })
    expect(listedOrder(orderPlan(scheme, [0, 1, 2, 4, 3]))).toEqual([])
    // What the airbrush misses is said where it is used, and what no brush gets at before that.
    const reach = (region: number, brush: number, airbrush: number) =>
      [region, { region, area: 9, brush, airbrush }] as const
    const missed = sprayReach(scheme, new Map([reach(1, 0.98, 0.6), reach(2, 0.5, 0.2), reach(3, 1, 0.9)]))
    complete(missed)
    expect(missed.map((f) => [f.value, f.unit, f.fixes])).toEqual([
      ['40', '% not sprayed', [expect.objectContaining({ act: 'brushRegion', region: 1 })]],
      ['50', '% out of reach', []],
    ])
  })
})

describe('what the library says', () => {
  it('stops a sale that is not allowed, asks where nobody has noted it, and is silent otherwise', () => {
    expect(licence('Tern', 'no', 'sell')[0]).toMatchObject({ level: 'problem' })
    expect(licence('Tern', 'ask', 'commission')[0]).toMatchObject({ level: 'warning' })
    expect([...licence('Tern', 'no', 'keep'), ...licence('Tern', 'yes', 'sell')]).toEqual([])
    expect(laterEdition('Tern', 1, 3)[0]!.fixes[0]!.act).toBe('newestEdition')
    expect(laterEdition('Tern', 3, 3)).toEqual([])
  })
})

describe('what stays inside', () => {
  const report = {
    trapped: 4200,
    pools: [{ volume: 4200, centre: [0, 0, 5], deepest: [0, 0, 3], inside: true }],
    cavity: 30_000,
    shut: 0,
    best: { down: [0, 0, 1], left: 20 },
    routine: [{ down: [0, 0, 1], left: 20 }],
    stuck: [{ volume: 20, centre: [0, 0, 8], deepest: [0, 0, 7], inside: true }],
    voxel: 0.5,
  } as TrapReport
  it('says how to drain it, stops where nothing drains it, and is silent when all leaves as it hangs', () => {
    expect(trappedResin(report)[0]).toMatchObject({
      id: 'trapped',
      level: 'warning',
      value: '4.2',
      places: [[0, 0, 3]],
    })
    expect(trappedResin(report)[0]!.sentence).toBe('Drain it head down: then it is empty.')
    const never = { ...report, routine: [{ down: [0, 0, 1], left: 900 }] } as TrapReport
    expect(trappedResin(never)[0]).toMatchObject({
      id: 'never-drains',
      level: 'problem',
      value: '0.90',
      places: [[0, 0, 7]],
    })
    expect(trappedResin({ ...report, shut: 5000 })[0]).toMatchObject({ id: 'shut-in', level: 'problem' })
    expect(trappedResin({ ...report, trapped: 20 })).toEqual([])
  })
})

it('tells whether the resin in stock is enough, with what must stand in the vat', () => {
  // 100 × 60 mm of film at 3 mm: 18 ml.
  const at = (level: number | null): SpokenFinding[] => enoughResin(100, level, [100, 60])
  expect([at(null), at(118), at(500)]).toEqual([[], [], []])
  expect(at(117)).toMatchObject([{ level: 'warning', value: '1' }])
  expect(at(90)).toMatchObject([
    { level: 'problem', value: '28', sentence: expect.stringContaining('would not be finished') },
  ])
  complete([...at(110), ...at(50).map((f) => ({ ...f, id: 'other' }))])
})
