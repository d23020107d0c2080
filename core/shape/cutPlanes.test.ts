import { describe, expect, it } from 'vitest'
import { tube } from './cylinder'
import { cutPlanes } from './cutPlanes'

/** Two thick columns one upon the other with a narrow waist at 80 mm of 200. */
const hourglass = tube(
  [
    [0, 0, 0],
    [0, 0, 70],
    [0, 0, 80],
    [0, 0, 90],
    [0, 0, 200],
  ],
  [25, 25, 9, 25, 25],
  64,
)

describe('where to cut', () => {
  it('is the waist: shortest seam, both halves fit', () => {
    const [best] = cutPlanes(hourglass, { volume: [120, 68, 150], focal: [] })
    expect(best!.normal).toEqual([0, 0, 1])
    expect(best!.point[2]).toBeGreaterThan(74)
    expect(best!.point[2]).toBeLessThan(86)
    expect(best!.parts).toBe(2)
    // Under the waist: a drum of 70 mm and a cone; of all: by Cavalieri.
    const cone = (10 * (25 * 25 + 25 * 9 + 81)) / 3
    expect(best!.smaller).toBeCloseTo((625 * 70 + cone) / (625 * 180 + 2 * cone), 1)
    expect(best!.pieces).toBe(1)
    expect(best!.room).toBeGreaterThan(8)
    expect(best!.below[2]).toBeCloseTo(best!.point[2], 0)
    expect(best!.above[2]).toBeCloseTo(200 - best!.point[2], 0)
  })
  it('is elsewhere when the waist is focal, or when halves cut there do not go into the printer', () => {
    const away = cutPlanes(hourglass, { volume: [120, 68, 150], focal: [{ point: [0, -9, 80], radius: 15 }] })
    expect(away[0]!.crosses).toBe(0)
    const low = cutPlanes(hourglass, { volume: [60, 60, 110], focal: [] })
    expect(low[0]!.parts).toBe(2)
    expect(low[0]!.point[2]).toBeGreaterThan(89)
    expect(low[0]!.point[2]).toBeLessThan(111)
  })
})
