import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import { concatenate, reversed } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { refine } from '../mesh/refine'
import { treeOf } from '../mesh/tree'
import { trappedResin } from '../print/resin/trapped'
import { boxBody, sphereBody } from '../testBodies'
import { drainSites } from './drainSites'
import { drill, probe } from './drill'
import { hollow } from './hollow'
import { holeNear } from './holeNear'
import { plug } from './plug'
import { acceptedAsSolid, unite } from './solid'
import { say } from '../words/say'

const shell = concatenate([boxBody(40, 40, 40), reversed(boxBody(36, 36, 36, 2, 2, 2))])
const down = [0, 0, -1] as const

describe('proposed holes', () => {
  it('are two for each cavity, each pair in its own, and empty both', async () => {
    const two = await unite([
      sphereBody(12, 4, [-14, 0, 12]),
      sphereBody(12, 4, [14, 0, 12]),
      boxBody(20, 3, 3, -10, -1.5, 10),
    ])
    if (!two.ok) throw new Error(say(two.problem.message))
    const made = await hollow(two.value, { wall: 2, voxel: 0.5, opening: 1, leastPocket: 50 })
    if (!made.ok) throw new Error(say(made.problem.message))
    expect(made.value.report.cavities).toBe(2)
    const sites = drainSites(made.value.mesh, { diameter: 4, down })
    expect(sites).toHaveLength(4)
    for (const side of [-1, 1]) {
      const own = sites.filter((s) => Math.sign(s.point[0]) === side)
      expect(own).toHaveLength(2)
      expect(own[0]!.cavity).toBe(own[1]!.cavity)
      expect(own[0]!.point[2]).toBeLessThan(2)
    }
    const drilled = await drill(made.value.mesh, sites)
    if (!drilled.ok) throw new Error(say(drilled.problem.message))
    expect(await acceptedAsSolid(drilled.value.mesh)).toBe(true)
    const report = trappedResin(drilled.value.mesh, [0, 0, -1])
    expect(report.routine.at(-1)!.left / report.cavity).toBeLessThan(0.02)
  })
  it('lead into cavities alone, not into the gap under a collar that overlaps the body', () => {
    // A ring that stands round the box: behind it lies air that nearly every look out of meets a wall, but no cavity.
    const collar = concatenate([
      boxBody(60, 2, 20, -10, -10, 10),
      boxBody(60, 2, 20, -10, 48, 10),
      boxBody(2, 60, 20, -10, -10, 10),
      boxBody(2, 60, 20, 48, -10, 10),
      boxBody(60, 60, 2, -10, -10, 30),
      boxBody(60, 60, 2, -10, -10, 8),
    ])
    const sites = drainSites(concatenate([dense(shell), dense(collar)]), { diameter: 4, down })
    expect(new Set(sites.map((s) => s.cavity)).size).toBe(1)
    expect(sites).toHaveLength(2)
  })
  it('lie under the part that will cover them, where there is one', () => {
    // A block laid against one side: its face is out of sight only because of the block.
    const block = boxBody(20, 24, 24, 40.2, 8, 8)
    const sites = drainSites(shell, { diameter: 4, down: [1, 0, 0] }, [block])
    expect(sites[0]!.covered).toBe(true)
    expect(sites[0]!.point[0]).toBeCloseTo(40, 3)
    expect(say(sites[0]!.reason)).toContain('covered when all is together')
  })
})

describe('a hole set by hand', () => {
  const wish = { diameter: 4, snap: 6, within: 15 }
  it('is taken under a joint nearby, kept where none is, and sent to the nearest place that takes it', () => {
    const block = boxBody(20, 10, 10, 40.2, 15, 15)
    const near = holeNear(dense(shell), [block], { ...wish, point: [40, 12, 20] })
    expect(near.instead?.covered).toBe(true)
    expect(Math.hypot(near.instead!.point[1] - 12, near.instead!.point[2] - 20)).toBeLessThan(6)
    const plain = holeNear(dense(shell), [], { ...wish, point: [40, 20, 20] })
    expect(plain.asked).not.toBeNull()
    expect(plain.instead).toBeNull()
    const edge = holeNear(dense(shell), [], { ...wish, point: [40, 1, 20] })
    expect(edge.asked).toBeNull()
    expect(say(edge.problem!.message)).toContain('edge')
    expect(edge.instead!.point[1]).toBeLessThan(12)
    const nowhere = holeNear(dense(boxBody(40, 40, 40)), [], { ...wish, point: [40, 20, 20] })
    expect([nowhere.asked, nowhere.instead]).toEqual([null, null])
  })
  it('knows how far it is to the edge', () => {
    const at = (y: number): number => {
      const r = probe(treeOf(shell), { point: [40, y, 20], direction: [-1, 0, 0], diameter: 4 })
      return r.ok ? r.value.edge : -1
    }
    expect(at(20)).toBe(3)
    // The rim ends 1.4 mm before the edge; looked for in halves.
    expect(at(3.4)).toBe(1)
  })
})

it('plugs a hole with what the drill took out, less the clearance and a taper', async () => {
  const hole = { point: [40, 20, 20] as const, direction: [-1, 0, 0] as const, diameter: 6, depth: 2, clearance: 0.1 }
  const r = await plug(boxBody(40, 40, 40), hole)
  if (!r.ok) throw new Error(say(r.problem.message))
  const [a, b] = [2.9, 2.9 - 2 * Math.tan((2 * Math.PI) / 180)]
  expect(measure(r.value.mesh).volume / ((Math.PI * 2 * (a * a + a * b + b * b)) / 3)).toBeCloseTo(1, 1.5)
  expect(await acceptedAsSolid(r.value.mesh)).toBe(true)
  const code = async (o: object): Promise<string> => {
    const p = await plug(transformed(boxBody(5, 5, 5), identity3, [90, 0, 0]), { ...hole, ...o })
    return p.ok ? 'good' : p.problem.code
  }
  expect(await code({})).toBe('plug-misses')
  expect(await code({ diameter: 1, clearance: 0.4 })).toBe('plug-too-thin')
})

/** The same box with faces of a few millimetres, as a sculpt has them. */
const dense = (mesh: typeof shell): typeof shell => refine(mesh, 2.5, 100_000)
