import type { JointLoad } from './facts'
import { magnetFor } from '../fit/magnet'
import { pinFor } from '../fit/pin'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** N·mm, handling counted, that glue on a fitted joint bears without a thought */
const GLUE_ALONE = 60

/** What a joint carries, and the wire or magnets that bear it. */
export function jointLoad(j: JointLoad): Finding<'pin'>[] {
  const pin = pinFor(j.joint, j.mass, j.centre, 'brass')
  if (pin.moment < GLUE_ALONE) return []
  const across = 2 * Math.sqrt(j.area / Math.PI)
  const { diameter, thickness, enough } = magnetFor(pin.moment / 5, across)
  const magnets = enough ? message('findings.jointLoad.toBeRemovableAPair', { diameter, thickness }) : ''
  return [
    {
      id: `load:${j.key}`,
      level: pin.enough ? 'note' : 'warning',
      value: pin.moment < 1000 ? fixed(pin.moment, 0) : fixed(pin.moment / 1000, 1),
      unit: pin.moment < 1000 ? message('findings.jointLoad.nMm') : message('findings.jointLoad.nM'),
      sentence: message('findings.jointLoad.gHangOnTheJoint', {
        mass: fixed(j.mass, 0),
        hangs: j.hangs,
        holds: j.holds,
        enough: Boolean(pin.enough),
        wire: pin.wire,
        depth: pin.depth,
        magnets,
      }),
      places: [[...j.joint]],
      how: message('findings.jointLoad.mMGDWith'),
      fixes: pin.enough
        ? [
            {
              act: 'pin',
              joint: j.key,
              label: message('findings.jointLoad.addAMmPin', { wire: pin.wire }),
              effect: message('findings.jointLoad.aHoleOfMmIn', { depth: pin.depth }),
            },
          ]
        : [],
    },
  ]
}

export const jointsBear = rule({
  title: message('findings.jointLoad.everyJointIsStrongEnough'),
  stages: ['combine'],
  inputs: ['joints'],
  find: ({ joints }) => joints.flatMap(jointLoad),
})
