import { describe, expect, it } from 'vitest'
import type { FitReport } from '../fit/gap'
import { pinFor } from '../fit/pin'
import type { HollowReport } from '../shape/hollow'
import type { Printer } from '../print/slice/printer'
import type { SupportReport } from '../print/support/support'
import type { BalanceReport } from '../fit/balance'
import { cavityHoles as cavityHolesOf, wallKept as wallKeptOf } from './cavityHoles'
import { doesNotFit as doesNotFitOf, doesNotStand as doesNotStandOf } from './doesNotFit'
import { enoughResin as enoughResinOf } from './enoughResin'
import { facesAway as facesAwayOf } from './facesAway'
import { hollowSaving as hollowSavingOf, LEAST_SAVING } from './hollowSaving'
import { jointLoad as jointLoadOf } from './jointLoad'
import { newSurface as newSurfaceOf } from './newSurface'
import { oldResin as oldResinOf } from './oldResin'
import { flawCauses as flawCausesOf, openFlaws as openFlawsOf } from './openFlaws'
import { poorFit as poorFitOf } from './poorFit'
import { supportedAlready as supportedAlreadyOf, supportedFile as supportedFileOf } from './supportedAlready'
import { supportFailures as supportFailuresOf } from './supportFailures'
import { supportGaps as supportGapsOf } from './supportGaps'
import { topples as topplesOf } from './topples'
import { directionWords } from './trappedResin'
import { say } from '../words/say'
import { inWords } from '../testSpoken'

const cavityHoles = inWords(cavityHolesOf)
const wallKept = inWords(wallKeptOf)
const doesNotFit = inWords(doesNotFitOf)
const doesNotStand = inWords(doesNotStandOf)
const enoughResin = inWords(enoughResinOf)
const facesAway = inWords(facesAwayOf)
const hollowSaving = inWords(hollowSavingOf)
const jointLoad = inWords(jointLoadOf)
const newSurface = inWords(newSurfaceOf)
const oldResin = inWords(oldResinOf)
const flawCauses = inWords(flawCausesOf)
const openFlaws = inWords(openFlawsOf)
const poorFit = inWords(poorFitOf)
const supportedAlready = inWords(supportedAlreadyOf)
const supportedFile = inWords(supportedFileOf)
const supportFailures = inWords(supportFailuresOf)
const supportGaps = inWords(supportGapsOf)
const topples = inWords(topplesOf)

/** Each rule at its thresholds: silent on the one side, and saying what it measured on the other. */
const ids = (list: readonly { id: string; level: string }[]): string[] => list.map((f) => `${f.id} ${f.level}`)

describe('a hollow part', () => {
  const hollow = (more: Partial<HollowReport>): HollowReport =>
    ({
      wallAsked: 2,
      wall: { minimum: 2, percentile1: 2, mean: 2, samples: 1000, thinnest: [1, 2, 3] },
      cavities: 1,
      cavityVolume: 4200,
      ...more,
    }) as HollowReport
  it('needs two holes for each cavity, and is told how many are wanting', () => {
    expect(cavityHoles(hollow({}), 2)).toEqual([])
    expect(cavityHoles(hollow({}), 1)[0]).toMatchObject({ level: 'problem', value: '4.2' })
    expect(cavityHoles(hollow({}), 1)[0]!.sentence).toContain('1 cavity with 1 hole')
    expect(cavityHoles(hollow({}), 1)[0]!.sentence).toContain('1 more is needed')
    expect(cavityHoles(hollow({ cavities: 3 }), 2)[0]!.sentence).toContain('3 cavities with 2 holes')
    expect(cavityHoles(hollow({ cavities: 3 }), 2)[0]!.sentence).toContain('4 more are needed')
  })
  it('keeps its wall within a twentieth or one voxel, whichever is less strict', () => {
    const at = (minimum: number) => hollow({ wall: { ...hollow({}).wall, minimum } })
    expect(wallKept(at(1.9), 0.05)).toEqual([])
    expect(ids(wallKept(at(1.89), 0.05))).toEqual(['wall warning'])
    expect(wallKept(at(1.6), 0.4)).toEqual([])
    expect(wallKept(at(1.59), 0.4)[0]).toMatchObject({ value: '1.59', places: [[1, 2, 3]] })
  })
  it('is worth it from so much on, and only where it drains', () => {
    const { ml, share } = LEAST_SAVING
    expect(hollowSaving(20_000, 20_000 - 1000 * ml - 1000, true)).toEqual([])
    expect(hollowSaving(20_000, 20_000 - 1000 * ml + 1, true)).toHaveLength(1)
    // Two millilitres of a hundred are few, however many they are.
    expect(hollowSaving(1e5, 1e5 * (1 - share) + 1, true)).toHaveLength(1)
    expect(hollowSaving(1e5, 1e5 * (1 - share) - 1, true)).toEqual([])
    expect(hollowSaving(1e5, 2e4, false)[0]!.sentence).toContain('there is no room for the two holes')
  })
})

describe('the printer’s room', () => {
  const printer = { name: 'Small', pixelsX: 1000, pixelsY: 500, pitchX: 0.1, pitchY: 0.1, height: 150 } as Printer
  it('takes a body turned as it may be, or says by how much it is too large and what shrinks it', () => {
    // 100 by 50 by 150 mm.
    expect(doesNotFit([150, 100, 50], printer)).toEqual([])
    const [f] = doesNotFit([200, 40, 40], printer)
    expect(f).toMatchObject({ level: 'problem', value: '50', fixes: [{ act: 'scale' }] })
    expect((f!.fixes[0] as { factor: number }).factor).toBeCloseTo(0.98 * 0.75)
    expect(doesNotFit([150.05, 1, 1], printer)[0]!.value).toBe('0.1')
  })
  it('takes what stands in it, and offers a quarter turn only where that helps', () => {
    expect(doesNotStand([100, 50, 150], printer)).toEqual([])
    const acts = (size: [number, number, number]): string[] => doesNotStand(size, printer)[0]!.fixes.map((x) => x.act)
    expect(acts([50, 100, 150])).toEqual(['quarterTurn', 'scale', 'reorient'])
    expect(acts([50, 101, 150])).toEqual(['scale', 'reorient'])
    expect(acts([60, 100, 10])).toEqual(['scale', 'reorient'])
    expect(acts([10, 10, 151])).toEqual(['scale', 'reorient'])
  })
})

describe('resin on the shelf', () => {
  it('is enough with what must stand over the film, nearly enough, or not', () => {
    const film = [100, 50] as const // 15 ml stand in it
    expect(enoughResin(80, 95, film)).toEqual([])
    expect(ids(enoughResin(80, 94, film))).toEqual(['resin-short warning'])
    expect(enoughResin(80, 94, film)[0]!.value).toBe('1')
    expect(ids(enoughResin(80, 79, film))).toEqual(['resin-short problem'])
    expect(enoughResin(80, null, film)).toEqual([])
  })
  it('is told of within a month of its time, and past it, while there is any', () => {
    const bottle = (opened: string | null, ml = 100) => ({ lot: 'A', ml, opened, keeps: 12 })
    const today = '2026-11-20'
    expect(oldResin('Grey', [bottle('2025-12-25')], today)).toEqual([])
    const [soon] = oldResin('Grey', [bottle('2025-12-10')], today)
    expect(soon).toMatchObject({ level: 'note', value: '20', unit: 'days left' })
    const [late] = oldResin('Grey', [bottle('2025-11-10')], today)
    expect(late).toMatchObject({ level: 'warning', value: '10', unit: 'days past its date' })
    expect(oldResin('Grey', [bottle('2020-01-01', 0), bottle(null)], today)).toEqual([])
  })
})

describe('two parts that meet', () => {
  const fit = (more: Partial<FitReport>): FitReport =>
    ({
      touching: true,
      area: 200,
      centre: [0, 0, 0],
      outward: [0, 0, 1],
      p5: 0,
      p50: 0.05,
      p95: 0.1,
      overlap: 0,
      seam: 30,
      filler: 40,
      seamGaps: [],
      widest: { point: [1, 1, 1], gap: 0.4 },
      deepest: null,
      ...more,
    }) as FitReport
  const found = (more: Partial<FitReport>) => poorFit('arm', 'torso', 'k', fit(more))
  it('are well where they touch within a hairline, or lie apart', () => {
    expect(found({})).toEqual([])
    expect(found({ p95: 0.12 })).toEqual([])
    expect(found({ touching: false, p95: 3 })).toEqual([])
    // A gap that nobody sees.
    expect(found({ p95: 0.5, seam: 0.9 })).toEqual([])
  })
  it('gape, and are told what filler that takes', () => {
    const [f] = found({ p95: 0.3 })
    expect(f).toMatchObject({ id: 'gap:k', level: 'warning', value: '0.30', places: [[1, 1, 1]], fixes: [] })
    expect(f!.sentence).toContain('30 mm of the seam are visible and need 0.04 ml')
  })
  it('claim the same room by more than a skin, wherever that is deepest', () => {
    const deep = (gap: number) => ({ overlap: 12.34, deepest: { point: [2, 2, 2] as [number, number, number], gap } })
    expect(found(deep(-0.07))).toEqual([])
    const [f] = found(deep(-0.5))
    expect(f).toMatchObject({ id: 'overlap:k', level: 'problem', value: '0.50', places: [[2, 2, 2]] })
    expect(f!.fixes.map((x) => x.act)).toEqual(['relieve', 'union'])
    expect(found({ overlap: 0.29, deepest: { point: [2, 2, 2], gap: -1 } })).toEqual([])
    expect(found({ touching: false, overlap: 250 })[0]).toMatchObject({ value: '250', unit: 'mm³ overlap' })
  })
  const hanging = (mass: number, reach: number) => ({
    key: 'k',
    hangs: 'arm',
    holds: 'torso',
    mass,
    centre: [reach, 0, 5] as const,
    joint: [0, 0, 0] as const,
    area: 80,
  })
  it('bear what hangs on them by glue, by a wire that is named, or not by one', () => {
    // 5 g at 200 mm: 49 N·mm with handling.
    expect(jointLoad(hanging(5, 200))).toEqual([])
    const [f] = jointLoad(hanging(20, 100))
    const pin = pinFor([0, 0, 0], 20, [100, 0, 5], 'brass')
    expect(f).toMatchObject({
      level: 'note',
      value: pin.moment.toFixed(0),
      unit: 'N·mm',
      fixes: [{ act: 'pin', joint: 'k' }],
    })
    expect(f!.sentence).toContain(`A brass wire of ${pin.wire} mm bears it`)
    const [heavy] = jointLoad(hanging(5000, 400))
    expect(heavy).toMatchObject({ level: 'warning', unit: 'N·m', fixes: [] })
    expect(heavy!.sentence).toContain('No single wire is strong enough')
  })
})

describe('how the whole stands', () => {
  const report = (angle: number, margin: number, remedy: BalanceReport['remedy']): BalanceReport =>
    ({ mass: 120, centre: [1, 2, 30], weakest: { direction: 135, margin, angle }, remedy }) as BalanceReport
  it('is nothing to say where it bears what is wished', () => {
    expect(topples(report(20, 5, null), 15)).toEqual([])
  })
  it('falls, or tips too soon, and is told toward where and what helps', () => {
    const [tips] = topples(report(8, 3, { ballast: 40.2, widen: 1.234 }), 15)
    expect(tips).toMatchObject({ level: 'warning', value: '8.0°', unit: 'of 15° wished' })
    expect(tips!.sentence).toBe(
      'It tips over first toward back right. It needs 41 g of ballast low in the foot, or a foot 24 % wider.',
    )
    const [falls] = topples(report(-4, -2.5, { ballast: null, widen: 2 }), 15)
    expect(falls).toMatchObject({ level: 'problem', value: '2.5', unit: 'mm beyond its foot' })
    expect(falls!.sentence).toContain('no ballast is enough')
    expect(falls!.fixes.map((f) => f.act)).toEqual(['widenBase'])
    // A base eighteen times wider is nothing that one offers.
    const [absurd] = topples(report(-30, -20, { ballast: null, widen: 19 }), 15)
    expect(absurd!.fixes).toEqual([])
    expect(absurd!.sentence).toContain('tip it back')
  })
  it('looks where its nameplate is, or where its base’s front is', () => {
    const at: [number, number, number] = [0, 0, 9]
    expect(facesAway(10, at, 0, null)).toEqual([])
    expect(facesAway(-20, at, 0, null)[0]).toMatchObject({ id: 'faces-aside', level: 'note', value: '20°' })
    expect(facesAway(-20, at, 0, null)[0]!.sentence).toContain('to the left of the base')
    // Round the back the short way: 170° and −170° are twenty apart.
    expect(facesAway(170, at, 0, -170)[0]).toMatchObject({ id: 'plate-aside', value: '20°' })
    expect(facesAway(170, at, 0, 175)).toEqual([])
  })
})

describe('what supports leave', () => {
  const report = (more: Partial<SupportReport>): SupportReport =>
    ({ tips: [], barred: [], unreached: [], lostEdits: 0, ...more }) as SupportReport
  const tip = (utilisation: number, x = 0) =>
    ({ point: [x, 0, 0], utilisation }) as unknown as SupportReport['tips'][number]
  it('is nothing while every tip holds and every place is reached', () => {
    expect(supportGaps(report({ tips: [tip(1), tip(0.2)] }))).toEqual([])
  })
  it('is each by its own name: overloaded, barred, not reached, without a place', () => {
    const all = supportGaps(
      report({
        tips: [tip(1.01, 3), tip(2.4, 5), tip(0.5)],
        barred: [[1, 1, 1]],
        unreached: [{ point: [2, 2, 2], island: false }],
        lostEdits: 2,
      }),
    )
    expect(ids(all)).toEqual(['overload warning', 'barred problem', 'unreached note', 'lost-edits warning'])
    expect(all[0]).toMatchObject({
      value: '240 %',
      places: [
        [3, 0, 0],
        [5, 0, 0],
      ],
    })
    expect(all[0]!.sentence).toContain('2 tips are')
    expect(all[1]!.unit).toBe('island without a tip')
    expect(supportGaps(report({ unreached: [{ point: [2, 2, 2], island: true }] }))[0]!.level).toBe('warning')
  })
  it('was in the file already: it is left as it stands', () => {
    const own = { stems: 24, height: 3.2, raft: true }
    expect(supportedAlready(own)[0]).toMatchObject({ value: '24', fixes: [{ act: 'leaveSupported' }] })
    expect(supportedAlready(own)[0]!.sentence).toContain('already has supports and a raft')
    expect(supportedAlready({ ...own, raft: false })[0]!.sentence).not.toContain('raft')
    expect(supportedFile(own)[0]).toMatchObject({ id: 'supported-file', fixes: [] })
  })
  it('of layers made elsewhere: what falls, what tears, what merely lets go', () => {
    const at = (layer: number) => ({ layer, x: layer, y: 0, z: 1 })
    const list = supportFailures([
      { ...at(9), kind: 'tip', fell: false },
      { ...at(4), kind: 'tip', fell: true },
      { ...at(7), kind: 'cup' },
    ] as never)
    expect(ids(list)).toEqual(['falls problem', 'tears problem', 'lets-go warning'])
    expect(list[0]!.sentence).toContain('first in layer 5')
    expect(list.map((f) => f.places[0]![0])).toEqual([4, 7, 9])
    expect(supportFailures([])).toEqual([])
  })
})

describe('what primer shows', () => {
  it('is open until it is mended or accepted', () => {
    expect(openFlaws([], 2)).toEqual([])
    expect(openFlaws([{ point: [1, 2, 3] }], 2)[0]).toMatchObject({
      value: '1',
      unit: 'flaw open',
      places: [[1, 2, 3]],
    })
    expect(openFlaws([{ point: [1, 2, 3] }, { point: [0, 0, 0] }], 2)[0]!.unit).toBe('flaws open')
  })
  it('says what most of a kind came of, and what changes that', () => {
    const learned = (cause: object) => ({ kind: 'pit', cause, count: 4, of: 5, region: 'Scarf' }) as never
    const [tips] = flawCauses([learned({ kind: 'tip', tip: 0.4, focal: false })])
    expect(tips).toMatchObject({ value: '4 of 5', unit: 'pits', level: 'note' })
    expect(tips!.sentence).toContain('are scars of tips of 0.4 mm, most of them on scarf.')
    for (const kind of ['layers', 'joint', 'sanding', 'spray'] as const)
      expect(flawCauses([learned({ kind })])[0]!.id).toBe(`flaw-cause pit ${kind}`)
  })
  it('is new skin from two in a thousand on', () => {
    expect(newSurface(0.0019)).toEqual([])
    expect(newSurface(0.004)[0]!.value).toBe('0.4')
    expect(newSurface(0.256)[0]!.value).toBe('26')
  })
})

describe('a direction at the bench', () => {
  it('is said by what looks down', () => {
    expect(say(directionWords([0, 0, -1]))).toBe('foot down')
    expect(say(directionWords([0, 0, 1]))).toBe('head down')
    expect(say(directionWords([0.7, -0.7, 0]))).toBe('front and right side down')
    expect(say(directionWords([-0.6, 0.6, 0.5]))).toBe('head, back and left side down')
  })
})
