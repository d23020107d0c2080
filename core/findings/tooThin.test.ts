import { expect, it } from 'vitest'
import { thinness } from '../fit/thinness'
import { evenNumbers } from '../math/random'
import type { Mesh } from '../mesh/mesh'
import { tube } from '../shape/cylinder'
import { unite } from '../shape/solid'
import { thicken } from '../shape/thicken'
import { boxBody } from '../testBodies'
import { SURVIVES, thickening, tooThin } from './tooThin'

/** A block with a fin, a shelf or a bent spike of that thickness on it. */
const THIN = [
  (w: number) => boxBody(w, 6, 5, 10, 7, 3.5),
  (w: number) => boxBody(6, 5, w, 17, 7, 3),
  (w: number, to: () => number) =>
    tube(
      [
        [10, 10, 4],
        [10 + 4 * to(), 10, 9],
        [10, 10 + 6 * to(), 16],
      ],
      [2, 1, w / 2],
      24,
    ),
]

it('what is offered for thin skin mends it, on fins, shelves and spikes of any thickness', async () => {
  const to = evenNumbers(1811)
  let mended = 0
  for (let i = 0; i < 6; i++) {
    const made = await unite([boxBody(20, 20, 5), THIN[i % 3]!(0.1 + 0.45 * to(), to)])
    if (!made.ok) throw new Error('the body is none')
    const was = thinness(made.value, SURVIVES)
    const [fix] = tooThin(was)[0]?.fixes ?? []
    if (fix?.act !== 'thicken') continue
    const { dabs, by, voxel } = thickening(fix.places, fix.by)
    const r = await thicken(made.value as Mesh, { dabs: dabs as never, by: by!, voxel: voxel! })
    if (!r.ok) throw new Error(r.problem.code)
    const is = thinness(r.value.mesh, SURVIVES)
    expect(tooThin(is)).toEqual([])
    expect(is.thinnest!).toBeGreaterThan(was.thinnest!)
    expect(r.value.report.added).toBeGreaterThan(0)
    mended++
  }
  // Spikes that end blunt have nothing to mend.
  expect(mended).toBeGreaterThanOrEqual(4)
}, 180_000)
