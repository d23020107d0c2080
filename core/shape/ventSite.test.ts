import { describe, expect, it } from 'vitest'
import { cylinderBody } from '../testBodies'
import { inspectLayers } from '../print/slice/slice'
import type { Mesh } from '../mesh/mesh'
import { drill } from './drill'
import { hollow } from './hollow'
import { orient } from './orient'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { ventSite } from './ventSite'
import { say } from '../words/say'
import type { Said } from '../words/say'

const UPRIGHT = [0, 0, 0, 1] as const
const must = <T>(r: { ok: true; value: T } | { ok: false; problem: { message: Said } }): T => {
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}

/** As supports hold it: on the plate itself a hole in the floor would be shut. */
const lifted = (mesh: Mesh, quaternion: readonly [number, number, number, number]): Mesh =>
  transformed(orient(mesh, quaternion).mesh, identity3, [0, 0, 5])

describe('a vent', () => {
  it('opens the cup of a hollow cylinder in any orientation', async () => {
    const shell = must(await hollow(cylinderBody(12, 30), { wall: 2, voxel: 0.5, opening: 1, leastPocket: 50 })).mesh
    for (const angle of [0, 0.4, Math.PI / 2]) {
      const quaternion = [Math.sin(angle / 2), 0, 0, Math.cos(angle / 2)] as const
      const cups = inspectLayers(lifted(shell, quaternion), 0.1).cups
      expect(cups[0]!.force).toBeGreaterThan(5)
      const site = must(
        ventSite(shell, {
          point: [cups[0]!.startX, cups[0]!.startY, (cups[0]!.firstLayer + 0.5) * 0.1],
          quaternion,
          shift: [0, 0, 5],
          diameter: 3,
        }),
      )
      const vented = must(await drill(shell, [site])).mesh
      const left = inspectLayers(lifted(vented, quaternion), 0.1).cups
      expect(left[0]?.force ?? 0).toBeLessThan(cups[0]!.force / 4)
    }
  })
  it('says so when the place is in the open', async () => {
    const shell = must(await hollow(cylinderBody(12, 30), { wall: 2, voxel: 0.5, opening: 1, leastPocket: 50 })).mesh
    expect(ventSite(shell, { point: [80, 0, 10], quaternion: UPRIGHT, shift: [0, 0, 0], diameter: 3 })).toMatchObject({
      ok: false,
      problem: { code: 'no-vent' },
    })
  })
})
