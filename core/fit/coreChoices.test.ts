import { expect, it } from 'vitest'
import { hollowSaving as hollowSavingOf } from '../findings/hollowSaving'
import { measure } from '../mesh/measure'
import { concatenate, reversed } from '../mesh/mesh'
import { boxBody } from '../testBodies'
import { coreChoices } from './coreChoices'
import { loadDefaults } from './wallLoad'
import { inWords } from '../testSpoken'

const hollowSaving = inWords(hollowSavingOf)

it('weighs solid, hollow and cast full as their volumes say, and lets each tip by its own centre', () => {
  // A post whose cavity lies in its upper half: hollow it is bottom-heavy, cast of something denser top-heavy.
  const post = boxBody(30, 30, 80),
    cavity = boxBody(24, 24, 34, 3, 3, 43)
  const hollowed = concatenate([post, reversed(cavity)])
  const [solid, room] = [30 * 30 * 80, 24 * 24 * 34]
  const c = coreChoices(post, hollowed, 1.9, { ...loadDefaults, density: 1.1, wall: 3 })
  expect(c.solid).toMatchObject({ casting: 0 })
  expect(c.solid.resin).toBeCloseTo(solid, 0)
  expect(c.hollow.resin).toBeCloseTo(solid - room, 0)
  expect(c.filled.casting).toBeCloseTo(room, 0)
  expect(c.filled.mass).toBeCloseTo(((solid - room) * 1.1 + room * 1.9) / 1000, 2)
  const centre = (inside: number): number =>
    (solid * 1.1 * 40 + room * (inside - 1.1) * 60) / (solid * 1.1 + room * (inside - 1.1))
  expect(c.solid.centre).toBeCloseTo(40, 3)
  expect(c.hollow.centre).toBeCloseTo(centre(0), 2)
  expect(c.filled.centre).toBeCloseTo(centre(1.9), 2)
  const tips = (h: number): number => (Math.atan(15 / h) * 180) / Math.PI
  for (const x of [c.solid, c.hollow, c.filled]) expect(x.tip).toBeCloseTo(tips(x.centre), 1)
  // Largest layer: the whole foot, hollow or not; a casting that bonds bends like solid.
  expect(c.solid.section).toBeCloseTo(900, 3)
  expect(c.hollow.section).toBeCloseTo(900, 3)
  expect(c.filled.stress).toBe(c.solid.stress)
  expect(c.hollow.stress).toBeGreaterThan(c.solid.stress)
  expect(measure(post).volume).toBeCloseTo(solid, 0)
})

it('finds hollowing not worth it when it saves little, or when nothing drains it', () => {
  expect(hollowSaving(20_000, 9_000, true)).toEqual([])
  expect(hollowSaving(9_000, 7_500, true)[0]).toMatchObject({ value: '1.5', fixes: [{ act: 'leaveSolid' }] })
  expect(hollowSaving(90_000, 80_000, true)[0]!.sentence).toContain('11 %')
  expect(hollowSaving(20_000, 9_000, false)[0]!.sentence).toContain('there is no room for the two holes')
})
