import type { HollowReport } from '../shape/hollow'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** Every cavity needs two holes: one for resin to leave, one for air to enter. */
export function cavityHoles(h: HollowReport, holes: number): Finding<'proposeHoles'>[] {
  const needed = 2 * h.cavities
  if (holes >= needed) return []
  return [
    {
      id: 'cavity-holes',
      level: 'problem',
      value: (h.cavityVolume / 1000).toFixed(1),
      unit: 'ml enclosed',
      places: [],
      sentence: `${plural(h.cavities, 'cavity', 'cavities')} with ${plural(holes, 'hole')}: raw resin stays inside, leaks later or splits the wall. ${needed - holes} more ${needed - holes === 1 ? 'is' : 'are'} needed.`,
      how: 'Volume of the inner surface; two holes for each cavity.',
      fixes: [
        { act: 'proposeHoles', label: 'Propose holes', effect: 'one low while it hangs, one for air, both hidden' },
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
      value: h.wall.minimum.toFixed(2),
      unit: 'mm wall',
      sentence: `At its thinnest the wall is ${h.wall.minimum.toFixed(2)} mm; ${h.wallAsked} mm was set.`,
      places: [h.wall.thinnest],
      how: `${h.wall.samples.toLocaleString('en')} exact distances from the inner to the outer surface.`,
      fixes: [],
    },
  ]
}

export const drainHoles = rule({
  title: 'every cavity has two holes',
  stages: ['hollow'],
  inputs: ['hollow'],
  find: ({ hollow }) => cavityHoles(hollow.report, hollow.holes),
})
export const wallAsAsked = rule({
  title: 'the wall is as thick as set',
  stages: ['hollow'],
  inputs: ['hollow'],
  find: ({ hollow }) => wallKept(hollow.report, hollow.voxel),
})
