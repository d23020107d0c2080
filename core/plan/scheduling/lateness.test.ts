import { describe, expect, it } from 'vitest'
import { kindOf, lateness, spreadsOf, type DurationSpread } from './lateness'
import type { Problem, Task } from './types'

const H = 3_600_000
const START = Date.UTC(2026, 10, 23)
const task = (id: string, more: Partial<Task> = {}): Task => ({
  id,
  piece: 'p',
  work: 3600,
  waiting: 0,
  needs: 'bench',
  after: [],
  ...more,
})
/** One person at work round the clock, so that a time is what the work takes. */
const problem = (tasks: Task[], due: Record<string, number> = {}): Problem => ({
  tasks,
  people: [{ name: '', hours: [0, 1, 2, 3, 4, 5, 6].map((weekday) => ({ weekday, from: 0, to: 1440 })), off: [] }],
  resources: {},
  start: START,
  due,
  zone: 'UTC',
})
const sure: DurationSpread = { middle: 0, width: 0, freedom: 4, from: 9 }
const risk = (
  p: Problem,
  spread: (kind: string) => DurationSpread,
  mishaps = new Map<string, { chance: number; costs: number }[]>(),
  samples = 400,
) =>
  lateness(
    p,
    p.tasks.map((t) => t.id),
    new Map(p.tasks.map((t) => [t.id, kindOf(t.id)])),
    spread,
    mishaps,
    samples,
  )

describe('the kind of a step', () => {
  it('is the first word of its key, whatever it is of', () => {
    expect(kindOf('prime-2')).toBe('prime')
    expect(kindOf('glue: arm + torso')).toBe('glue')
    expect(kindOf('Prime 3')).toBe('Prime')
    expect(kindOf('3 coats')).toBe('3 coats')
  })
})

describe('how long steps take over what is planned', () => {
  it('is as planned within a third where nothing was logged', () => {
    const s = spreadsOf([])('glue')
    expect(s).toMatchObject({ middle: 0, from: 0, freedom: 4 })
    expect(Math.exp(s.width)).toBeGreaterThan(1.2)
    expect(Math.exp(s.width)).toBeLessThan(1.4)
  })
  it('comes to what was logged, the more of it the nearer, and is surer then', () => {
    const twice = (n: number) =>
      spreadsOf(Array.from({ length: n }, () => ({ kind: 'glue', planned: 600, took: 1200 })))('glue')
    const [few, many] = [twice(2), twice(60)]
    expect(few.middle).toBeGreaterThan(0)
    expect(few.middle).toBeLessThan(many.middle)
    expect(Math.exp(many.middle)).toBeCloseTo(2, 1)
    expect(many.width).toBeLessThan(few.width)
    expect(many.from).toBe(60)
  })
  it('follows from the prior and what was logged as the normal-inverse-gamma has it', () => {
    const took = [900, 1500, 800]
    const y = took.map((t) => Math.log(t / 600)),
      mean = (y[0]! + y[1]! + y[2]!) / 3
    // Murphy 2007, equations 85 to 89, with the mean 0 on the weight of 2, shape 2 and scale 0.09.
    const weight = 2 + 3,
      shape = 2 + 3 / 2,
      scale = 0.09 + y.reduce((s, v) => s + (v - mean) ** 2, 0) / 2 + (2 * 3 * mean ** 2) / (2 * weight)
    const all = spreadsOf(took.map((t) => ({ kind: 'glue', planned: 600, took: t })))('paint')
    expect(all.middle).toBeCloseTo((3 * mean) / weight, 12)
    expect(all.freedom).toBeCloseTo(2 * shape, 12)
    expect(all.width).toBeCloseTo(Math.sqrt((scale * (weight + 1)) / (shape * weight)), 12)
    // Of the kind itself: the same, about the mean of all.
    const own = spreadsOf(took.map((t) => ({ kind: 'glue', planned: 600, took: t })))('glue')
    const about = mean - all.middle
    const ownScale = 0.09 + y.reduce((s, v) => s + (v - mean) ** 2, 0) / 2 + (2 * 3 * about ** 2) / (2 * weight)
    expect(own.middle).toBeCloseTo((2 * all.middle + 3 * mean) / weight, 12)
    expect(own.width).toBeCloseTo(Math.sqrt((ownScale * (weight + 1)) / (shape * weight)), 12)
  })
  it('of a kind that was never logged leans on all that was, and claims no record of its own', () => {
    const spread = spreadsOf(Array.from({ length: 40 }, () => ({ kind: 'glue', planned: 600, took: 1200 })))
    expect(spread('paint').middle).toBeCloseTo(spread('glue').middle, 1)
    expect(spread('paint').from).toBe(0)
    // The same answer to the same question.
    expect(spread('paint')).toBe(spread('paint'))
  })
  it('learns nothing from what has no time', () => {
    const none = spreadsOf([
      { kind: 'glue', planned: 0, took: 600 },
      { kind: 'glue', planned: 600, took: 0 },
    ])('glue')
    expect(none).toEqual({ ...spreadsOf([])('glue') })
  })
})

describe('by when a piece is done', () => {
  it('is the sum of its work where nothing varies, and late or not for certain', () => {
    const p = (due?: number): Problem =>
      problem([task('glue'), task('fill', { after: ['glue'] })], due === undefined ? {} : { p: due })
    const at = START + 2 * H
    expect(risk(p(), () => sure)).toEqual({ p: { half: at, most: at, late: null } })
    expect(risk(p(at), () => sure).p!.late).toBe(0)
    expect(risk(p(at - 1), () => sure).p!.late).toBe(1)
  })
  it('counts what goes wrong as often as it does', () => {
    const p = problem([task('glue')], { p: START + 1.5 * H })
    const wrong = new Map([['glue', [{ chance: 0.3, costs: 3600 }]]])
    const r = risk(p, () => sure, wrong, 2000).p!
    // Three of ten take an hour more, and are late: within three standard deviations of a count of 2000.
    expect(Math.abs(r.late! - 0.3)).toBeLessThan(3 * Math.sqrt((0.3 * 0.7) / 2000))
    expect(r.half).toBe(START + H)
    expect(r.most).toBe(START + 2 * H)
  })
  it('spreads as the record does, and no draw makes a day more than two weeks', () => {
    const p = problem([task('glue', { work: 3600 })])
    const half = (width: number, middle = 0) =>
      risk(p, () => ({ middle, width, freedom: 40, from: 40 }), undefined, 1500).p!
    const narrow = half(0.1),
      wide = half(0.6)
    expect((narrow.half - START) / H).toBeCloseTo(1, 1)
    expect(wide.most - wide.half).toBeGreaterThan(3 * (narrow.most - narrow.half))
    // Nine tenths of a log-normal: e to 1.28 widths.
    expect((narrow.most - START) / H).toBeCloseTo(Math.exp(1.2816 * 0.1), 1)
    expect((half(0, 5).most - START) / H).toBeCloseTo(14, 6)
  })
  it('has the fat tail of few records: Student’s t, not the normal', () => {
    const p = problem([task('glue', { work: 60 })])
    const tail = (freedom: number): number =>
      Math.log(
        (risk(p, () => ({ middle: 0, width: 0.1, freedom, from: 1 }), undefined, 4000).p!.most - START) / 60_000,
      ) / 0.1
    // The ninth decile of t by its degrees of freedom, from tables: 1.533 of 4, 1.299 of 50.
    expect(Math.abs(tail(4) - 1.533)).toBeLessThan(0.12)
    expect(Math.abs(tail(50) - 1.299)).toBeLessThan(0.1)
  })
  it('asks for the spread of the kind that each step is, and passes over what is no step any more', () => {
    const asked: string[] = []
    const p = problem([task('glue: a + b'), task('fill')])
    lateness(
      p,
      ['fill', 'gone', 'glue: a + b'],
      new Map([['glue: a + b', 'glue']]),
      (kind) => {
        asked.push(kind)
        return sure
      },
      new Map(),
      1,
    )
    expect(asked).toEqual(['glue', ''])
  })
  it('is the same whenever it is asked', () => {
    const p = problem([task('glue'), task('fill')], { p: START + 2 * H })
    const spread = (): DurationSpread => ({ middle: 0, width: 0.4, freedom: 5, from: 3 })
    expect(risk(p, spread)).toEqual(risk(p, spread))
  })
})
