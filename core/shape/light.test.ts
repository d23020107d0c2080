import { describe, expect, it } from 'vitest'
import type { Answer } from '../answer'
import { measure } from '../mesh/measure'
import { concatenate, type Mesh } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { boxBody, cylinderBody, sphereBody } from '../testBodies'
import { bay, channel } from './channel'
import { tube } from './cylinder'
import { lightRoute } from './lightRoute'
import { mouthOpen } from './mouths'
import { acceptedAsSolid, unite } from './solid'
import { say } from '../words/say'

const value = <T>(a: Answer<T>): T => {
  if (!a.ok) throw new Error(say(a.problem.message))
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
    // The light sits in the lamp's body; without the lamp that end comes out, and with a plate under the foot the other shuts.
    expect(route.open).toEqual([1, 0])
    const ends = [route.path.slice(0, 2), route.path.slice(-2).reverse()] as const
    const plate = shifted(boxBody(60, 60, 2), -30, -30, -12.5)
    expect(ends.map(([end, before]) => mouthOpen([plate, base, arm], end!, before!, 2.5))).toEqual([0, 1])
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
  it('says that a wrist is too thin for it, and that an end is outside', () => {
    const dumbbell = concatenate([
      boxBody(20, 20, 20, -10, -10, 0),
      boxBody(3, 3, 20.2, -1.5, -1.5, 19.9),
      boxBody(20, 20, 20, -10, -10, 40),
    ])
    const wish = { from: [0, 0, 0], to: [0, 0, 60], diameter: 2.5, wall: 1 } as const
    const none = lightRoute([dumbbell], wish)
    expect(code(none)).toBe('no-route')
    // A square wrist of 3 mm takes a channel of 1 mm with 1 mm of wall, to a cell of the search.
    const said = none.ok ? '' : say(none.problem.message)
    const fits = Number(/a channel of ([\d.]+) mm with that wall/.exec(said)?.[1])
    expect(fits).toBeGreaterThan(0.4)
    expect(fits).toBeLessThan(1.6)
    const up = Number(/is (\d+) mm up/.exec(said)?.[1])
    expect(up).toBeGreaterThan(18)
    expect(up).toBeLessThan(42)
    const apart = lightRoute([boxBody(20, 20, 20), shifted(boxBody(20, 20, 20), 0, 0, 24)], {
      ...wish,
      from: [10, 10, 0],
      to: [10, 10, 44],
    })
    expect(apart.ok ? '' : say(apart.problem.message)).toContain('do not touch')
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
