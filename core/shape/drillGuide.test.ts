import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import { identity3, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { boxBody, sphereBody } from '../testBodies'
import { drillGuide, type DrillGuideOptions } from './drillGuide'
import { acceptedAsSolid, common } from './solid'
import { say } from '../words/say'

const options = (more: Partial<DrillGuideOptions> = {}): DrillGuideOptions => ({
  point: [10, 10, 30],
  direction: [0, 0, -1],
  bore: 1.6,
  radius: 9,
  height: 8,
  lap: 2.5,
  clearance: 0.15,
  ...more,
})
const made = async (mesh: Parameters<typeof drillGuide>[0], o: DrillGuideOptions) => {
  const r = await drillGuide(mesh, o)
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}

describe('a drilling guide', () => {
  it('sits over a square peg: a cap with a bore, lapping it by what was asked, and clear of it all round', async () => {
    // A peg of 8 mm square, its face at 30 mm.
    const peg = transformed(boxBody(8, 8, 30), identity3, [6, 6, 0])
    const { mesh, report } = await made(peg, options())
    expect(await acceptedAsSolid(mesh)).toBe(true)
    const disc = Math.PI * 81,
      bore = Math.PI * 0.64
    // Over the face the whole disc, beside it the disc less the peg and its clearance; the bore goes through all that is there.
    const cap = 8 * (disc - bore),
      lap = 2.5 * (disc - 8.3 ** 2)
    expect(report.volume / (cap + lap)).toBeCloseTo(1, 1.6)
    expect(report.led).toBe(5.5)
    const { box } = measure(mesh)
    expect([box.min[2], box.max[2]].map((v) => Number(v.toFixed(3)))).toEqual([27.5, 38])
  })
  it('comes off along the drill also where the part is thicker further down and overhangs, and never bites into it', async () => {
    // A ball: beside its top it falls away; under the middle it would hold on.
    const ball = transformed(sphereBody(8, 4), identity3, [10, 10, 22])
    for (const [lap, point] of [
      [2.5, [10, 10, 30]],
      [10, [10, 10, 30]],
    ] as [number, Vector3][]) {
      const { mesh } = await made(ball, options({ lap, point }))
      for (const up of [0, 0.5, 1.5, 4, 9]) {
        const both = await common([transformed(mesh, identity3, [0, 0, up]), ball])
        if (!both.ok) throw new Error(say(both.problem.message))
        expect(both.value.triangles.length === 0 ? 0 : measure(both.value).volume).toBeLessThan(0.05)
      }
    }
  })
  it('says in words what cannot be a guide', async () => {
    const code = async (o: Partial<DrillGuideOptions>): Promise<string> => {
      const r = await drillGuide(boxBody(20, 20, 30), options(o))
      return r.ok ? 'good' : r.problem.code
    }
    expect(await code({})).toBe('good')
    expect(await code({ radius: 1.2 })).toBe('guide-too-thin')
    expect(await code({ point: [10, 10, 90] })).toBe('guide-misses')
  })
})
