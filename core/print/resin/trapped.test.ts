import { describe, expect, it } from 'vitest'
import type { Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { tube } from '../../shape/cylinder'
import { subtract } from '../../shape/solid'
import { boxBody, sphereBody } from '../../testBodies'
import { trappedResin as measured, type TrapReport } from './trapped'
import { say } from '../../words/say'

/** Small bodies need no more cells than a large one's cavity gets. */
const trappedResin = (mesh: Mesh, down: Vector3): TrapReport => measured(mesh, down, undefined, 7e5)
const minus = async (body: Mesh, ...tools: Mesh[]): Promise<Mesh> => {
  const r = await subtract(body, tools)
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}
const hole = (a: Vector3, b: Vector3, radius: number): Mesh => tube([a, b], [radius, radius], 24)
const tilted = (degrees: number): Vector3 => {
  const a = (degrees * Math.PI) / 180
  return [Math.sin(a), 0, -Math.cos(a)]
}

describe('resin that stays', () => {
  it('is in a tilted jug what its lip holds back', async () => {
    // Inside 40 wide, 30 deep, 50 high, open at the top.
    const jug = await minus(boxBody(44, 34, 52, -22, -17, -2), boxBody(40, 30, 60, -20, -15, 0))
    for (const angle of [0, 25, 45]) {
      const held = 40 * 30 * (50 - 20 * Math.tan((angle * Math.PI) / 180))
      const { pools } = trappedResin(jug, tilted(angle))
      const volume = pools.reduce((s, p) => s + p.volume, 0)
      expect(Math.abs(volume / held - 1)).toBeLessThan(0.04)
    }
    const over = trappedResin(jug, tilted(130))
    expect(over.pools.reduce((s, p) => s + p.volume, 0)).toBe(0)
  })
  it('is below the hole of a hollow ball, all of one that is shut, and none when it hangs by the hole', async () => {
    const ball = await minus(sphereBody(20, 4), sphereBody(17, 4))
    const shut = trappedResin(ball, [0, 0, -1])
    expect(shut.shut / ((4 / 3) * Math.PI * 17 ** 3)).toBeCloseTo(1, 1)
    expect(shut.cavity).toBe(0)
    const drained = await minus(ball, hole([0, 0, 0], [25, 0, 0], 2))
    // Upright the hole is at half its height: the lower half stays, to the hole's lower edge.
    const upright = trappedResin(drained, [0, 0, -1])
    const h = 15
    const cap = (Math.PI * h * h * (3 * 17 - h)) / 3
    expect(Math.abs(upright.trapped / cap - 1)).toBeLessThan(0.06)
    expect(upright.pools[0]!.inside).toBe(true)
    expect(upright.pools[0]!.deepest[2]).toBeLessThan(-15)
    expect(trappedResin(drained, [1, 0, 0]).trapped).toBeLessThan(30)
    expect(upright.routine).toHaveLength(1)
    expect(upright.routine[0]!.down[0]).toBeGreaterThan(0.8)
    expect(upright.routine[0]!.left).toBeLessThan(30)
  })
  it('takes two poses out of a bent pipe, and says so', async () => {
    // A U on its side with both arms shut at their ends and one hole in the middle of one arm's end face.
    const block = boxBody(46, 12, 40, -23, -6, -20)
    const u = await minus(
      block,
      boxBody(40, 8, 8, -20, -4, -18),
      boxBody(8, 8, 30, -20, -4, -12),
      boxBody(8, 8, 30, 12, -4, -12),
      hole([16, 0, 0], [16, 0, 30], 2),
    )
    const r = trappedResin(u, [0, 0, -1])
    expect(r.trapped).toBeGreaterThan(3000)
    expect(r.best.left).toBeGreaterThan(0)
    expect(r.routine.length).toBeGreaterThan(1)
    expect(r.routine.at(-1)!.left).toBeLessThan(0.1 * r.cavity)
    for (let i = 1; i < r.routine.length; i++) expect(r.routine[i]!.left).toBeLessThan(r.routine[i - 1]!.left)
  })
})
