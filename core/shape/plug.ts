import { bad, good, type Answer } from '../answer'
import { measure } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'
import { tube } from './cylinder'
import { common } from './solid'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface PlugOptions {
  /** the hole: on the outer skin, unit direction into the body, mm across and deep */
  point: Vector3
  direction: Vector3
  diameter: number
  depth: number
  /** mm per side */
  clearance: number
}
export interface PlugReport {
  /** mm³ */
  volume: number
}

/** How much narrower a plug is at its inner end, by its length: it goes in by hand and seats at the skin. */
const TAPER = Math.tan((2 * Math.PI) / 180)
const SIDES = 48

/** What the drill took out, a little smaller: its outer end is the sculpt's own skin. */
export async function plug(mesh: Mesh, o: PlugOptions): Promise<Answer<{ mesh: Mesh; report: PlugReport }>> {
  const r = o.diameter / 2 - o.clearance
  const thin = r - TAPER * o.depth
  if (thin < 0.3)
    return bad(
      'plug-too-thin',
      message('problems.plug.aPlugForAMm', {
        diameter: o.diameter,
        clearance: o.clearance,
        n: fixed(2 * Math.max(0, thin), 1),
      }),
    )
  const at = (d: number): Vector3 => [0, 1, 2].map((k) => o.point[k]! + d * o.direction[k]!) as never
  const made = await common([mesh, tube([at(-o.diameter), at(0), at(o.depth)], [r, r, thin], SIDES)])
  if (!made.ok) return made
  const { volume } = measure(made.value)
  if (!(volume > 1e-3)) return bad('plug-misses', message('problems.plug.thereIsNoBodyWhere'))
  return good({ mesh: made.value, report: { volume } })
}
