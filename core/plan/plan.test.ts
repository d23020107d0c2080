import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cavityHoles } from '../findings/cavityHoles'
import { doesNotFit } from '../findings/doesNotFit'
import { steepWait } from '../findings/steepWait'
import { supportGaps } from '../findings/supportGaps'
import { ranked } from '../findings/finding'
import { sprayRefused, waitingIn } from './drying'
import { schedule, type BenchHours } from './schedule'
import type { PlanStep } from './steps/types'

const HOURS: BenchHours[] = [1, 2, 3, 4, 5].map((weekday) => ({ weekday, from: 18 * 60, to: 21 * 60 }))
const now = new Date(2026, 5, 1, 12).getTime()
const step = (key: string, handsOn: number, waiting: number, after: string[]): PlanStep => ({
  key,
  handsOn,
  waiting,
  after,
  phase: 'Fit',
  title: key,
  why: '',
  needs: 'bench',
  cautions: [],
  materials: [],
  tools: [],
  lines: [],
  risks: [],
  window: null,
})

describe('drying', () => {
  it('doubles a reaction for ten degrees colder, and slows evaporation in damp', () => {
    expect(waitingIn({ temperature: 10, humidity: 50 }, 3600, 'reaction')).toBeCloseTo(7200)
    expect(waitingIn({ temperature: 30, humidity: 90 }, 3600, 'reaction')).toBeCloseTo(1800)
    expect(waitingIn({ temperature: 20, humidity: 75 }, 3600, 'evaporation')).toBeCloseTo(7200)
    expect(waitingIn({ temperature: 20, humidity: 50 }, 3600, 'evaporation')).toBe(3600)
    expect(sprayRefused({ temperature: 9, humidity: 50 })).toMatch(/10 °C/)
    expect(sprayRefused({ temperature: 20, humidity: 81 })).toMatch(/80 %/)
    expect(sprayRefused({ temperature: 10, humidity: 80 })).toBeNull()
  })
})

describe('schedule', () => {
  it('keeps precedence, waits, one pair of hands and the bench hours, whatever the steps', () => {
    const durations = fc.array(
      fc.tuple(fc.integer({ min: 60, max: 9000 }), fc.integer({ min: 0, max: 200_000 }), fc.nat(5)),
      { minLength: 1, maxLength: 14 },
    )
    fc.assert(
      fc.property(durations, (list) => {
        const steps = list.map(([h, w, p], i) => step(`s${i}`, h, w, i > 0 ? [`s${Math.max(0, i - 1 - p)}`] : []))
        const { slots, finish, critical } = schedule(steps, HOURS, now)
        expect(slots).toHaveLength(steps.length)
        slots.forEach((s, i) => {
          for (const p of steps[i]!.after) expect(s.start).toBeGreaterThanOrEqual(slots.find((x) => x.key === p)!.free)
          if (i > 0) expect(s.start).toBeGreaterThanOrEqual(slots[i - 1]!.end)
          const a = new Date(s.start),
            b = new Date(s.end)
          expect(
            HOURS.some(
              (h) =>
                h.weekday === a.getDay() &&
                a.getHours() * 60 + a.getMinutes() >= h.from &&
                b.getHours() * 60 + b.getMinutes() <= h.to,
            ),
          ).toBe(true)
        })
        expect(finish).toBe(Math.max(...slots.map((s) => s.free)))
        expect(critical.at(-1)).toBe(slots.find((s) => s.free === finish)!.key)
      }),
      { numRuns: 100 },
    )
  })
  it('splits work that no window holds, and names steps without any hours', () => {
    const { slots } = schedule([step('long', 5 * 3600, 0, [])], HOURS, now)
    expect(new Date(slots[0]!.end).getDay()).toBe(2)
    expect(schedule([step('a', 60, 0, [])], [], now).impossible).toEqual(['a'])
  })
  it('counts the wait of a ticked step from when it was done', () => {
    const steps = [step('a', 600, 86_400, []), step('b', 600, 0, ['a'])]
    const done = new Map([['a', now - 20 * 3600_000]])
    const { slots } = schedule(steps, HOURS, now, done)
    expect(slots.map((s) => s.key)).toEqual(['b'])
    expect(new Date(slots[0]!.start).getHours()).toBe(18)
  })
})

describe('findings', () => {
  const hollow = {
    wallAsked: 2,
    wall: { minimum: 1.95, percentile1: 2, mean: 2, samples: 1, thinnest: [0, 0, 0] as [number, number, number] },
    cavities: 1,
    cavityVolume: 14_200,
    volumeBefore: 1,
    volumeAfter: 1,
    centreBefore: [0, 0, 0] as [number, number, number],
    centreAfter: [0, 0, 0] as [number, number, number],
    pocketsFilled: 0,
    cavityCentre: [0, 0, 0] as [number, number, number],
    cavityRadius: 5,
    kept: 0,
  }
  it('ask for two holes a cavity, then rest', () => {
    expect(cavityHoles(hollow, 1)).toMatchObject([{ level: 'settle', value: '14.2', unit: 'ml shut in' }])
    expect(cavityHoles(hollow, 2)).toEqual([])
  })
  it('measure how far a body does not fit, any way up or as it stands', () => {
    const printer = {
      name: 'P',
      pixelsX: 1000,
      pixelsY: 500,
      pitchX: 0.1,
      pitchY: 0.1,
      height: 150,
      layerHeight: 0.05,
      liftTime: 1,
      retractTime: 1,
      restTime: 1,
      bottomLayers: 1,
    }
    expect(doesNotFit([140, 40, 40], printer, false)).toEqual([])
    expect(doesNotFit([140, 40, 40], printer, true)[0]).toMatchObject({ value: '40', level: 'settle' })
    expect(doesNotFit([40, 90, 40], printer, true)[0]!.fixes[0]!.act).toBe('quarterTurn')
    expect(doesNotFit([40, 40, 170], printer, true)[0]).toMatchObject({ value: '20' })
  })
  it('name islands, long waits and lateness, worst first', () => {
    const island = supportGaps(
      [
        { layer: 9, x: 1, y: 2, area: 3 },
        { layer: 3, x: 0, y: 0, area: 0.01 },
      ],
      0.5,
      null,
    )
    expect(island).toMatchObject([{ value: '1', places: [[1, 2, 4.75]] }])
    const waits = steepWait(
      [{ title: 'Varnish', waiting: 86_400, doneAt: null }],
      new Date('2026-06-10').getTime(),
      '2026-06-05',
    )
    expect(ranked([waits[1]!, waits[0]!]).map((f) => f.id)).toEqual(['late', 'steep-wait'])
    expect(steepWait([{ title: 'Varnish', waiting: 86_400, doneAt: 'yes' }], 0, null)).toEqual([])
  })
})
