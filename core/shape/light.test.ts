import { describe, expect, it } from 'vitest'
import type { Answer } from '../answer'
import { measure } from '../mesh/measure'
import { concatenate, type Mesh } from '../mesh/mesh'
import { identity3, transformed } from '../mesh/transform'
import { boxBody, cylinderBody, sphereBody } from '../testBodies'
import { bay, channel } from './channel'
import { tube } from './cylinder'
import { lightRoute } from './lightRoute'
import { acceptedAsSolid, unite } from './solid'

const value = <T>(a: Answer<T>): T => {
  if (!a.ok) throw new Error(a.problem.message)
  return a.value
}
const code = (a: Answer<unknown>): string => (a.ok ? 'good' : a.problem.code)
const shifted = (m: Mesh, x: number, y: number, z: number): Mesh => transformed(m, identity3, [x, y, z])

describe('a way for a light', () => {
  it('goes round the corner of a bent arm and keeps its wall, across a joint with a gap', async () => {
    const arm = tube(
      [
        [0, 0, 0],
        [0, 0, 40],
        [30, 0, 52],
      ],
      [6, 6, 6],
      48,
    )
    const base = shifted(cylinderBody(20, 10), 0, 0, -10.2)
    const lamp = sphereBody(7, 4, [32, 0, 53])
    const wish = { from: [0, 0, -10.2], to: [34, 0, 54], diameter: 2.5, wall: 1.5 } as const
    const route = value(lightRoute([base, arm, lamp], wish))
    expect(route.wall).toBeGreaterThan(1.3)
    const straight = Math.hypot(34, 64.2)
    expect(route.length).toBeGreaterThan(straight)
    expect(route.length).toBeLessThan(1.25 * straight)
    // What each part loses is a bore of the channel's own width; together they lose all of it.
    let length = 0
    for (const part of [base, arm]) {
      const { mesh, report } = value(await channel(part, { path: route.path, diameter: 2.5 }))
      expect(await acceptedAsSolid(mesh)).toBe(true)
      expect(measure(part).volume - measure(mesh).volume).toBeCloseTo(report.volume, 2)
      length += report.length
    }
    expect(length).toBeGreaterThan(60)
    expect(code(await channel(shifted(lamp, 200, 0, 0), { path: route.path, diameter: 2.5 }))).toBe('channel-misses')
  })
  it('says that a wrist is too thin for it, and that an end lies outside', () => {
    const dumbbell = concatenate([
      boxBody(20, 20, 20, -10, -10, 0),
      boxBody(3, 3, 20.2, -1.5, -1.5, 19.9),
      boxBody(20, 20, 20, -10, -10, 40),
    ])
    const wish = { from: [0, 0, 0], to: [0, 0, 60], diameter: 2.5, wall: 1 } as const
    expect(code(lightRoute([dumbbell], wish))).toBe('no-route')
    expect(code(lightRoute([dumbbell], { ...wish, diameter: 0.8, wall: 0.5 }))).toBe('good')
    expect(code(lightRoute([dumbbell], { ...wish, to: [0, 90, 60] }))).toBe('route-outside')
  })
  it('has a bay for its battery, with the lid’s rebate, or the reason why not', async () => {
    const socle = value(await unite([cylinderBody(30, 14)]))
    const o = { centre: [0, 0] as const, width: 24, depth: 20, height: 6, lid: 1.6, ledge: 1.5 }
    const { mesh, report } = value(await bay(socle, o))
    expect(await acceptedAsSolid(mesh)).toBe(true)
    const corners = (w: number, d: number, r: number): number => w * d - (4 - Math.PI) * r * r
    const taken = corners(24, 20, 2) * 6 + corners(27, 23, 3.5) * 1.6
    expect((measure(socle).volume - measure(mesh).volume) / taken).toBeCloseTo(1, 2)
    // Above it 14 − 7.6 mm are left; to the side less: from the rebate's corner to the rim.
    expect(report.wall).toBeCloseTo(6.4, 1)
    expect(code(await bay(socle, { ...o, height: 13 }))).toBe('bay-breaks-out')
    expect(code(await bay(socle, { ...o, width: 70 }))).toBe('bay-breaks-out')
  })
})
