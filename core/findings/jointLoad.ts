import type { JointLoad } from './facts'
import { magnetFor } from '../fit/magnet'
import { pinFor } from '../fit/pin'
import type { Finding } from './finding'
import { rule } from './rule'

/** N·mm, handling counted, that glue on a fitted joint bears without a thought */
const GLUE_ALONE = 60

/** What a joint carries, and the wire or magnets that bear it. */
export function jointLoad(j: JointLoad): Finding<'pin'>[] {
  const pin = pinFor(j.joint, j.mass, j.centre, 'brass')
  if (pin.moment < GLUE_ALONE) return []
  const across = 2 * Math.sqrt(j.area / Math.PI)
  const { diameter, thickness, enough } = magnetFor(pin.moment / 5, across)
  const magnets = enough ? ` To be removable: a pair of magnets of ${diameter} × ${thickness} mm.` : ''
  return [
    {
      id: `load:${j.key}`,
      level: pin.enough ? 'note' : 'warning',
      value: pin.moment < 1000 ? pin.moment.toFixed(0) : (pin.moment / 1000).toFixed(1),
      unit: pin.moment < 1000 ? 'N·mm' : 'N·m',
      sentence: `${j.mass.toFixed(0)} g hang on the joint between ${j.hangs} and ${j.holds}. ${pin.enough ? `A brass wire of ${pin.wire} mm bears it, ${pin.depth} mm into each.` : 'No single wire is strong enough: use two, or widen the joint.'}${magnets}`,
      places: [[...j.joint]],
      how: 'M = m·g·d with d across from the joint to the centre of what hangs on it, times five for handling; wire by σ = 32 M/(π d³) with 200 N/mm² for brass, 4 d deep.',
      fixes: pin.enough
        ? [
            {
              act: 'pin',
              joint: j.key,
              label: `Add a ${pin.wire} mm pin`,
              effect: `a hole of ${pin.depth} mm in each part, in the middle of the joint`,
            },
          ]
        : [],
    },
  ]
}

export const jointsBear = rule({
  title: 'every joint is strong enough for what hangs on it',
  stages: ['combine'],
  inputs: ['joints'],
  find: ({ joints }) => joints.flatMap(jointLoad),
})
