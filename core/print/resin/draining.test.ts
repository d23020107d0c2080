import { expect, it } from 'vitest'
import { bounds, type Mesh } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { isClosed } from '../../mesh/topology'
import { tube } from '../../shape/cylinder'
import { subtract } from '../../shape/solid'
import { boxBody } from '../../testBodies'
import { drainFrames } from './draining'
import { say } from '../../words/say'

it('shows a box run empty: full at first, level all the time, and with what stays at the end', async () => {
  const made = await subtract(boxBody(44, 34, 54, -22, -17, -2), [
    boxBody(40, 30, 50, -20, -15, 0),
    // A hole in a side wall, its lower edge 20 mm above the cavity's floor.
    tube(
      [[15, 0, 23] as const, [30, 0, 23] as const].map((p) => [...p] as [number, number, number]),
      [3, 3],
      24,
    ),
  ])
  if (!made.ok) throw new Error(say(made.problem.message))
  const frames = [...drainFrames(made.value, [[0, 0, -1]], 6)]
  const full = 40 * 30 * 50,
    stays = 40 * 30 * 20
  expect(frames).toHaveLength(6)
  expect(Math.abs(frames[0]!.left / full - 1)).toBeLessThan(0.05)
  expect(Math.abs(frames.at(-1)!.left / stays - 1)).toBeLessThan(0.05)
  const top = (m: Mesh): number => bounds(m).max[2]
  for (const [k, f] of frames.entries()) {
    expect(isClosed(f.surface)).toBe(true)
    expect(Math.abs(measure(f.surface).volume / f.left - 1)).toBeLessThan(0.05)
    // What is left in an upright box stands at its own height.
    expect(Math.abs(top(f.surface) - f.left / (40 * 30))).toBeLessThan(2.2)
    if (k > 0) expect(f.left).toBeLessThan(frames[k - 1]!.left)
  }
})
