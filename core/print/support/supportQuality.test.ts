import { describe, expect, it } from 'vitest'
import { chainBody, supportWish } from '../../testBodies'
import { overFaces } from '../../testSamples'
import { closest, closestPoint } from '../../mesh/closest'
import { bounds, splitFaces } from '../../mesh/mesh'
import { identity3, type Vector3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { treeOf } from '../../mesh/tree'
import { shells, topology } from '../../mesh/topology'
import { orient } from '../../shape/orient'
import { scoreOrientations } from '../orient/orientation'
import { inspectLayers } from '../slice/slice'
import { support } from './support'
import { gradeDefaults, type GradeName } from './supportRoute'
import { say } from '../../words/say'

const options = supportWish
/** mm from its tip within which a support may be near the skin: its neck, stretched as far as it may be, and its stem */
const reachOf = (grade: GradeName): number => gradeDefaults[grade].neck * 1.8 + gradeDefaults[grade].stem + 0.5
/** mm, what one foot on the skin spans with the slanted end above it */
const FOOT = 5

/** What supports must keep on any body, not only on those they were written for. */
describe('supports of made-up bodies', () => {
  for (const seed of [1, 22, 333, 4444, 55555, 666666]) {
    it(`hold body ${seed} without touching it elsewhere`, () => {
      const body = orient(chainBody(seed, 7), [0, 0, 0, 1]).mesh
      const r = support(body, options)
      if (!r.ok) throw new Error(say(r.problem.message))
      const { tips, bodyFaces, unreached, shift } = r.value.report
      const skin = treeOf(transformed(body, identity3, shift)),
        hit = closest()

      // Every island has its tip, but where no stem found a way, and that is said.
      const islands = inspectLayers(r.value.mesh, 0.1).islands.filter((i) => i.area > 0.25)
      const confessed = unreached.filter((u) => u.island).length
      expect(islands.length).toBeLessThanOrEqual(confessed)

      // Tips sit on the skin, below overhanging places.
      for (const tip of tips) expect(closestPoint(skin, ...tip.point, hit)).toBeLessThan(0.02)

      // Stems on the plate keep their clearance from the neck down; all supports are closed solids above z = 0.
      const { triangles: t } = r.value.mesh
      const [, supports] = splitFaces(r.value.mesh, bodyFaces)
      expect(topology(supports)).toMatchObject({ openEdges: 0, nonManifoldEdges: 0, disorientedEdges: 0 })
      expect(bounds(supports).min[2]).toBeGreaterThanOrEqual(-1e-4)
      const nearTip = (x: number, y: number, z: number): boolean =>
        tips.some(({ point: q, grade }) => Math.hypot(x - q[0], y - q[1], z - q[2]) < reachOf(grade))
      const feet: Vector3[] = []
      overFaces(
        r.value.mesh,
        0.7,
        (x, y, z) => {
          if (closestPoint(skin, x, y, z, hit) > options.clearance * 0.9 || nearTip(x, y, z)) return
          if (!feet.some((q) => Math.hypot(x - q[0], y - q[1], z - q[2]) < FOOT)) feet.push([x, y, z])
        },
        bodyFaces,
      )
      // Below the necks they come near the skin only where they stand on it: one foot for each that does.
      expect(feet.length).toBeLessThanOrEqual(tips.filter((tip) => tip.landsOn === 'body').length)
      // The body itself is not changed by a single bit but for the shift.
      expect([...t.subarray(0, bodyFaces * 3)]).toEqual([...body.triangles])
      expect(shells(supports).count).toBeGreaterThan(0)
    })
  }
})

describe('the orientation found', () => {
  it('needs less support than most ways, and fits', () => {
    for (const seed of [5, 50, 500]) {
      const scores = scoreOrientations(chainBody(seed, 7), { limit: 40, volume: [80, 80, 120] })
      const scars = scores.map((s) => s.scar).sort((a, b) => a - b)
      expect(scores[0]!.fits).toBe(true)
      expect(scores[0]!.scar).toBeLessThanOrEqual(scars[Math.floor(scars.length / 2)]!)
    }
  })
})
