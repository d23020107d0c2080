import { describe, expect, it } from 'vitest'
import { cavityHoles as cavityHolesOf } from '../findings/cavityHoles'
import { doesNotFit as doesNotFitOf, doesNotStand as doesNotStandOf } from '../findings/doesNotFit'
import { scheduleRisk as scheduleRiskOf } from '../findings/scheduleRisk'
import { islandGaps as islandGapsOf } from '../findings/islands'
import { ranked } from '../findings/finding'
import { sprayRefused as sprayRefusedOf, waitingIn } from './materials/drying'
import { inWords, spokenBy } from '../testSpoken'

const cavityHoles = inWords(cavityHolesOf)
const doesNotFit = inWords(doesNotFitOf)
const doesNotStand = inWords(doesNotStandOf)
const scheduleRisk = inWords(scheduleRiskOf)
const islandGaps = inWords(islandGapsOf)
const sprayRefused = spokenBy(sprayRefusedOf)

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
    expect(cavityHoles(hollow, 1)).toMatchObject([{ level: 'problem', value: '14.2', unit: 'ml enclosed' }])
    expect(cavityHoles(hollow, 2)).toEqual([])
  })
  it('measure how far a body does not fit, in any orientation or in its own', () => {
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
    expect(doesNotFit([140, 40, 40], printer)).toEqual([])
    expect(doesNotStand([140, 40, 40], printer)[0]).toMatchObject({ value: '40', level: 'problem' })
    expect(doesNotStand([40, 90, 40], printer)[0]!.fixes[0]!.act).toBe('quarterTurn')
    expect(doesNotStand([40, 40, 170], printer)[0]).toMatchObject({ value: '20' })
  })
  it('name islands, long waits and lateness, worst first', () => {
    const island = islandGaps(
      [
        { layer: 9, x: 1, y: 2, area: 3 },
        { layer: 3, x: 0, y: 0, area: 0.01 },
      ],
      0.5,
      false,
    )
    expect(island).toMatchObject([{ value: '1', places: [[1, 2, 4.75]] }])
    const waits = scheduleRisk(
      [{ title: 'Varnish', waiting: 86_400, doneAt: null }],
      new Date('2026-06-10').getTime(),
      '2026-06-05',
    )
    expect(ranked([waits[1]!, waits[0]!]).map((f) => f.id)).toEqual(['late', 'long-wait'])
    expect(scheduleRisk([{ title: 'Varnish', waiting: 86_400, doneAt: 'yes' }], 0, null)).toEqual([])
  })
})
