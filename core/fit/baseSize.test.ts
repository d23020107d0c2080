import fc from 'fast-check'
import { expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import { base } from '../shape/base'
import { boxBody } from '../testBodies'
import { balance } from './balance'
import { baseSize } from './baseSize'
import { say } from '../words/say'

const PLAIN = { corner: 6, side: 'plain', steps: 2, profile: [], top: 'plain', relief: 0, seed: 1 } as const

it('is wide enough for the whole to be tipped to the wished angle, however its weight is beside its foot', () => {
  const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  fc.assert(
    fc.property(
      mm(2, 40),
      mm(2, 40),
      mm(10, 120),
      mm(-25, 25),
      mm(3, 30),
      mm(0, 25),
      fc.constantFrom('round' as const, 'rounded' as const),
      (w, d, h, lean, height, wish, outline) => {
        // A post, and a block on it that reaches out to one side.
        const post = boxBody(w, d, h, -w / 2, -d / 2, height),
          block = boxBody(12, 12, 12, lean - 6, -6, height + h)
        const weights = [post, block].map((mesh) => ({ mesh, density: 1.12, infill: 1 }))
        const masses = weights.map((x) => measure(x.mesh))
        const volume = masses.reduce((a, m) => a + m.volume, 0)
        const centre = [0, 1, 2].map((k) => masses.reduce((a, m) => a + m.volume * m.centre[k]!, 0) / volume)
        const foot = { width: w, depth: d, x: 0, y: 0, z: height }
        const { width, depth } = baseSize(foot, centre, wish, height)
        const made = base({ ...PLAIN, outline, width, depth, height })
        if (!made.ok) throw new Error(say(made.problem.message))
        const stands = balance([...weights, { mesh: made.value, density: 1.12, infill: 1 }], wish)
        if (!stands.ok) throw new Error(say(stands.problem.message))
        // Half a degree for the bevel at its foot and the corners of a round outline.
        expect(stands.value.weakest.angle).toBeGreaterThan(wish - 0.5)
      },
    ),
    { numRuns: 150, seed: 20261129 },
  )
})
it('is 15 % wider than a foot that is wide enough, and never smaller or larger than a base may be', () => {
  const foot = { width: 60, depth: 40, x: 3, y: 4, z: 0 }
  expect(baseSize(foot, null, 15, 8)).toEqual({ width: 69, depth: 46, forTipping: false })
  expect(baseSize(foot, [3, 4, 20], 15, 8)).toEqual({ width: 69, depth: 46, forTipping: false })
  expect(baseSize({ ...foot, width: 2, depth: 3 }, null, 15, 8)).toMatchObject({ width: 5, depth: 5 })
  expect(baseSize({ ...foot, width: 1200 }, null, 15, 8)).toMatchObject({ width: 1000 })
  // 30 mm over the ground and 8 of base, 5 mm beside the foot: 5 + 38 tan 15° = 15.2 mm to each side.
  expect(baseSize({ ...foot, width: 2, depth: 3 }, [8, 4, 30], 15, 8)).toEqual({
    width: 30.4,
    depth: 30.4,
    forTipping: true,
  })
})
