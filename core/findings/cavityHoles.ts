import type { HollowReport } from '../shape/hollow'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** Every cavity needs two holes: one for resin to leave, one for air to enter. */
export function cavityHoles(h: HollowReport, holes: number): Finding<'proposeHoles'>[] {
  const needed = 2 * h.cavities
  if (holes >= needed) return []
  return [
    {
      id: 'cavity-holes',
      level: 'problem',
      value: fixed(h.cavityVolume / 1000, 1),
      unit: message('findings.cavityHoles.mlEnclosed'),
      places: [],
      sentence: message('findings.cavityHoles.cavityCavitiesWithHoleHoles', {
        cavities: h.cavities,
        holes,
        needed: needed - holes,
      }),
      how: message('findings.cavityHoles.volumeOfTheInnerSurface'),
      fixes: [
        {
          act: 'proposeHoles',
          label: message('findings.cavityHoles.proposeHoles'),
          effect: message('findings.cavityHoles.oneLowWhileItHangs'),
        },
      ],
    },
  ]
}
/** Whether the wall came out as asked: within 5 % or one voxel. */
export function wallKept(h: HollowReport, voxel: number): Finding<never>[] {
  if (h.wall.minimum >= Math.min(h.wallAsked * 0.95, h.wallAsked - voxel)) return []
  return [
    {
      id: 'wall',
      level: 'warning',
      value: fixed(h.wall.minimum, 2),
      unit: message('findings.cavityHoles.mmWall'),
      sentence: message('findings.cavityHoles.atItsThinnestTheWall', {
        minimum: fixed(h.wall.minimum, 2),
        wallAsked: h.wallAsked,
      }),
      places: [h.wall.thinnest],
      how: message('findings.cavityHoles.exactDistancesFromTheInner', { samples: h.wall.samples }),
      fixes: [],
    },
  ]
}

export const drainHoles = rule({
  title: message('findings.cavityHoles.everyCavityHasTwoHoles'),
  stages: ['hollow'],
  inputs: ['hollow'],
  find: ({ hollow }) => cavityHoles(hollow.report, hollow.holes),
})
export const wallAsAsked = rule({
  title: message('findings.cavityHoles.theWallIsAsThick'),
  stages: ['hollow'],
  inputs: ['hollow'],
  find: ({ hollow }) => wallKept(hollow.report, hollow.voxel),
})
