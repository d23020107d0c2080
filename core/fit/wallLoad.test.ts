import { expect, it } from 'vitest'
import { concatenate } from '../mesh/mesh'
import { identity3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { boxBody, cylinderBody, sphereBody } from '../testBodies'
import { loadDefaults, wallLoad } from './wallLoad'

const PUSH = { ...loadDefaults, handling: 0, density: 0 }

it('finds the wall of a tube under a push at its top, as the formula gives it', () => {
  // A post of ⌀12, 120 mm tall, pushed by 3 N: at its foot M = 360 N·mm, σ = 32·M·D/(π(D⁴ − d⁴)).
  const post = cylinderBody(6, 120)
  const stressOf = (wall: number, z: number): number =>
    (32 * 3 * (120 - z) * 12) / (Math.PI * (12 ** 4 - (12 - 2 * wall) ** 4))
  const load = { ...PUSH, wall: 0.4, allow: 4 }
  const { places, planned, solid } = wallLoad(post, load)
  const foot = places[0]!
  expect(foot.stress / stressOf(0.4, foot.point[2])).toBeCloseTo(1, 0)
  // The raster's ring is good to a cell of a hundred-and-sixtieth of the width.
  expect(stressOf(foot.wall!, foot.point[2])).toBeGreaterThan(0.85 * load.allow)
  expect(stressOf(foot.wall!, foot.point[2])).toBeLessThan(1.15 * load.allow)
  expect(planned.stress).toBe(foot.stress)
  expect(solid.stress / stressOf(6, solid.height)).toBeCloseTo(1, 1)
  expect(Math.hypot(foot.point[0], foot.point[1])).toBeLessThan(0.3)
  // Higher up there is less lever: it ends where the plain wall does.
  const last = places.at(-1)!.point[2]
  expect(stressOf(0.4, last)).toBeGreaterThan(0.85 * load.allow)
  expect(stressOf(0.4, last + 5)).toBeLessThan(1.15 * load.allow)
})

it('shares the load between two legs, and says when even solid does not do', () => {
  const leg = (x: number) => transformed(cylinderBody(4, 60), identity3, [x, 0, 0])
  const one = wallLoad(leg(0), { ...PUSH, wall: 1, allow: 1 }).places[0]!,
    two = wallLoad(concatenate([leg(-20), leg(20)]), { ...PUSH, wall: 1, allow: 1 }).places
  expect(two[0]!.stress / one.stress).toBeCloseTo(0.5, 1)
  expect(wallLoad(leg(0), { ...PUSH, wall: 1, allow: 0.05 }).places[0]!.wall).toBeNull()
  expect(wallLoad(boxBody(60, 60, 30), { ...PUSH, wall: 1.5 }).places).toEqual([])
})

it('measures a head that leans out over its neck', () => {
  const head = (x: number) => concatenate([cylinderBody(4, 40), transformed(sphereBody(18, 4), identity3, [x, 0, 56])])
  const load = { ...loadDefaults, push: 0, wall: 1, allow: 0.3 }
  const leaning = wallLoad(head(12), load).places
  expect(wallLoad(head(0), load).places.filter((p) => p.point[2] < 38)).toEqual([])
  // Weight of the ball 24,400 mm³ · 1.12 · 9.81e-6 = 0.268 N, times 12 mm and five for handling: 16 N·mm.
  const neck = leaning.find((p) => Math.abs(p.point[2] - 30) < 2)!
  const tube = (16.1 * 32 * 8) / (Math.PI * (8 ** 4 - 6 ** 4))
  expect(neck.stress / tube).toBeGreaterThan(0.85)
  expect(neck.stress / tube).toBeLessThan(1.2)
})
