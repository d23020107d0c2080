import { describe, expect, it } from 'vitest'
import { rinsedAway } from '../findings/trappedResin'
import { bounds } from '../mesh/mesh'
import { identity3, type Matrix3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { chainBody, supportWish } from '../testBodies'
import { drainSites } from '../shape/drainSites'
import { drill } from '../shape/drill'
import { hollow } from '../shape/hollow'
import { orient } from '../shape/orient'
import { acceptedAsSolid } from '../shape/solid'
import { scarImportance } from './orient/importance'
import { scoreOrientations } from './orient/orientation'
import { inspectLayers } from './slice/slice'
import { support } from './support/support'
import { trappedResin } from './resin/trapped'
import { say } from '../words/say'
import type { Said } from '../words/say'

const must = <T>(r: { ok: true; value: T } | { ok: false; problem: { message: Said } }): T => {
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}
const scale = (k: number): Matrix3 => [k, 0, 0, 0, k, 0, 0, 0, k]

/** From a sculpt to what stands in the printer, on bodies that nothing was written for. */
describe('made-up sculpts, hollowed, drilled, turned and supported', () => {
  for (const seed of [3, 42])
    it(`body ${seed} keeps its wall, empties, closes no cup, and holds on its tips`, async () => {
      const body = transformed(chainBody(seed, 7), scale(1.6), [0, 0, 0])
      const wall = 1.6,
        voxel = 0.4
      const made = must(await hollow(body, { wall, voxel, opening: 0.8, leastPocket: 60 }))
      expect(made.report.wall.minimum).toBeGreaterThanOrEqual(Math.min(0.95 * wall, wall - voxel))
      const [way] = scoreOrientations(body, { limit: 40, volume: [130, 80, 160] })
      const down = way!.up.map((v) => -v) as [number, number, number]
      const sites = drainSites(made.mesh, { diameter: 3, down })
      expect(sites).toHaveLength(2 * made.report.cavities)
      const drilled = must(await drill(made.mesh, sites)).mesh
      expect(await acceptedAsSolid(drilled)).toBe(true)

      const trapped = trappedResin(drilled, down)
      expect(trapped.shut).toBeLessThan(150)
      expect(trapped.routine.at(-1)!.left).toBeLessThanOrEqual(rinsedAway(trapped.cavity))

      const stood = orient(drilled, way!.quaternion).mesh
      const { mesh, report } = must(support(stood, supportWish))
      const layers = inspectLayers(mesh, 0.1)
      expect(layers.cups.filter((c) => c.force > 5)).toEqual([])
      const confessed = report.unreached.filter((u) => u.island).length
      expect(layers.islands.filter((i) => i.area > 0.5).length).toBeLessThanOrEqual(confessed)
      expect(Math.max(...report.tips.map((t) => t.utilisation))).toBeLessThanOrEqual(1)
      for (const t of report.tips) if (t.landsOn !== 'body') expect(t.clearance).toBeGreaterThan(0.5)
      const { min, max } = bounds(mesh)
      expect(max[0] - min[0]).toBeLessThan(130)
      expect(max[1] - min[1]).toBeLessThan(130)
    })
})

it('halves the scar on focal areas against standing upright', () => {
  for (const seed of [3, 42]) {
    const body = transformed(chainBody(seed, 7), identity3, [0, 0, 0])
    // Eyes rest on the half that hangs lowest when it stands as it came.
    const { min, max } = bounds(body)
    const middle = [0, 1].map((k) => (min[k]! + max[k]!) / 2) as [number, number]
    const dabs = [{ point: [...middle, min[2] + 4] as const, radius: 0.7 * (max[2] - min[2]) }]
    const scores = scoreOrientations(body, {
      limit: 40,
      volume: [130, 80, 160],
      importance: scarImportance(body, dabs),
    })
    const upright = scores.find((s) => s.up[2] > 1 - 1e-9)!
    expect(upright.focal).toBeGreaterThan(10)
    expect(scores[0]!.focal).toBeLessThanOrEqual(0.5 * upright.focal)
  }
})
