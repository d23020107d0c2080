import { describe, expect, it } from 'vitest'
import { carryOver, cleanUp as cleanUpOf, saturation, type WashedPart } from './cleanUp'
import { spokenBy } from '../../testSpoken'

const cleanUp = spokenBy(cleanUpOf)

const room = { temperature: 20, humidity: 50 }
const solid: WashedPart = {
  name: 'Hand',
  area: 5000,
  supportArea: 2000,
  height: 40,
  hollow: false,
  holes: [],
  clear: false,
  tips: 30,
}
const bust: WashedPart = {
  name: 'Bust',
  area: 60_000,
  supportArea: 30_000,
  height: 170,
  hollow: true,
  holes: [4, 5],
  clear: false,
  tips: 200,
}
const keys = (parts: WashedPart[], strip: 'beforeWash' | 'afterWash' | 'afterCure' = 'afterWash'): string[] =>
  cleanUp({ parts, strip, room }).map((s) => s.key)
const step = (parts: WashedPart[], key: string, at = room) =>
  cleanUp({ parts, strip: 'afterWash', room: at }).find((s) => s.key === key)!

describe('clean up', () => {
  it('strips when the school says, and flushes and lights only what is hollow', () => {
    expect(keys([solid])).toEqual(['drain', 'wash', 'rinse', 'strip', 'dry', 'cure', 'feel'])
    expect(keys([solid], 'beforeWash').indexOf('strip')).toBe(1)
    expect(keys([solid], 'afterCure').at(-2)).toBe('strip')
    expect(keys([bust])).toEqual(['drain', 'wash', 'flush', 'rinse', 'strip', 'dry', 'cure', 'inside', 'feel'])
    expect(keys([{ ...solid, tips: 0 }])).not.toContain('strip')
  })
  it('cures 2 to 10 minutes by size, clear parts 2 at most; lights the inside longer where no lamp goes in', () => {
    expect(step([solid], 'cure').wait).toBe(180)
    expect(step([{ ...solid, height: 900 }], 'cure').wait).toBe(600)
    expect(step([{ ...bust, clear: true }], 'cure').wait).toBe(120)
    expect(step([bust], 'inside').wait).toBeGreaterThan(step([{ ...bust, holes: [12] }], 'inside').wait)
  })
  it('dries twice as long in half the drying power, and every step that can hurt says so', () => {
    expect(step([solid], 'dry', { temperature: 20, humidity: 75 }).wait).toBeCloseTo(2 * step([solid], 'dry').wait, 6)
    for (const s of cleanUp({ parts: [bust], strip: 'afterWash', room })) expect(s.cautions.length).toBeGreaterThan(0)
  })
  it('carries film by surface and what hangs in cavities into the baths, and says when they are full', () => {
    // 0.1 ml on 100 cm²: 600 cm² carry 0.6 ml, and 1.5 ml hang inside.
    const { first, second } = carryOver([bust], 'beforeWash')
    expect(first + second).toBeCloseTo(2.1, 9)
    expect(first / second).toBeCloseTo(9, 9)
    // Supports that are still on carry theirs: 300 cm² more.
    expect(carryOver([bust], 'afterWash').first - first).toBeCloseTo(0.9 * 0.3, 9)
    const s = saturation({ litres: 4, resin: 200, limit: 8 }, 40)
    expect(s.now).toBeCloseTo(5, 9)
    expect(s.after).toBeCloseTo(6, 9)
    expect(s.runs).toBe(3)
    expect(saturation({ litres: 4, resin: 400, limit: 8 }, 40).runs).toBe(0)
  })
})
