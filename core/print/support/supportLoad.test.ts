import { describe, expect, it } from 'vitest'
import { concatenate } from '../../mesh/mesh'
import { boxBody } from '../../testBodies'
import { tipCapacity, tipLoads, type LoadLayer } from './supportLoad'

/** Pa, and 4 MPa of green strength */
const PEEL = 10_000,
  GREEN = 4e6
const tip = (x: number, y: number, z: number, diameter = 0.4) => ({ point: [x, y, z] as const, diameter })

describe('what tips hold', () => {
  it('grows with the square of their diameter', () => {
    expect(tipCapacity(0.4, GREEN)).toBeCloseTo(GREEN * Math.PI * 0.0002 ** 2, 9)
    expect(tipCapacity(0.8, GREEN)).toBeCloseTo(4 * tipCapacity(0.4, GREEN), 9)
  })
})

describe('what tips carry', () => {
  it('is the whole area of a layer times the peel, shared by which tip is nearest', () => {
    // A slab of 40 by 20 mm: tips under the middles of its halves carry half each.
    const slab = boxBody(40, 20, 6, 0, 0, 5)
    const layers: LoadLayer[] = []
    const loads = tipLoads(slab, [tip(10, 10, 5), tip(30, 10, 5, 0.8)], PEEL, GREEN, 1, layers)
    const half = PEEL * 400e-6
    for (const l of loads) expect(l.force / half).toBeCloseTo(1, 1)
    expect(loads[0]!.utilisation).toBeCloseTo(loads[0]!.force / tipCapacity(0.4, GREEN), 9)
    // The same force on four times the area of tip.
    expect(loads[1]!.utilisation / loads[0]!.utilisation).toBeCloseTo(0.25, 1)
    expect(layers).toHaveLength(6)
    for (const l of layers) {
      expect(l.force).toBeCloseTo(loads[0]!.force + loads[1]!.force, 6)
      expect(l.utilisation).toBeCloseTo(loads[0]!.utilisation, 6)
    }
  })
  it('goes to the tip that is nearest, wherever that is', () => {
    const slab = boxBody(40, 20, 4, 0, 0, 5)
    // Everything left of 15 is nearest to the first: 300 of 800 mm².
    const [left, right] = tipLoads(slab, [tip(5, 10, 5), tip(25, 10, 5)], PEEL, GREEN)
    expect(left!.force / (PEEL * 300e-6)).toBeCloseTo(1, 1)
    expect(right!.force / (PEEL * 500e-6)).toBeCloseTo(1, 1)
  })
  it('is carried by the tips that are below the layer already, and never by one above it', () => {
    // A stalk that becomes a wide plate at 20 mm; the plate has a tip of its own at its edge.
    const body = concatenate([boxBody(4, 4, 16, 0, 0, 4), boxBody(40, 4, 4, 0, 0, 20)])
    const [stalk, edge] = tipLoads(body, [tip(2, 2, 4), tip(38, 2, 20)], PEEL, GREEN)
    expect(stalk!.worstZ).toBeGreaterThan(20)
    expect(edge!.worstZ).toBeGreaterThan(20)
    // Nearest to the edge is what is right of the middle between both.
    expect(edge!.force / (PEEL * 20 * 4 * 1e-6)).toBeCloseTo(1, 1)
    const alone = tipLoads(body, [tip(2, 2, 4)], PEEL, GREEN)[0]!
    expect(alone.force / (PEEL * 160e-6)).toBeCloseTo(1, 1)
  })
  it('is nothing where nothing stands on a tip, and layers below every tip pull on none', () => {
    const slab = boxBody(10, 10, 10)
    const layers: LoadLayer[] = []
    expect(tipLoads(slab, [], PEEL, GREEN, 1, layers)).toEqual([])
    expect(layers).toEqual([])
    const [high] = tipLoads(slab, [tip(5, 5, 7)], PEEL, GREEN, 1, layers)
    expect(high!.force).toBeGreaterThan(0)
    expect(layers.map((l) => l.z)).toEqual([7.5, 8.5, 9.5])
  })
})
