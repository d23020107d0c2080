import type { TrapReport } from '../print/resin/trapped'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** mm³ that a rinse and a shake take along: a film, and a thousandth of what the cavities hold */
export const rinsedAway = (cavity: number): number => Math.max(150, cavity / 1000)

/** The way a direction of a part is said at the bench, as it stands upright before you. */
export function directionWords([x, y, z]: readonly [number, number, number]): string {
  const words: string[] = []
  if (z < -0.38) words.push('foot')
  if (z > 0.38) words.push('head')
  if (y < -0.38) words.push('front')
  if (y > 0.38) words.push('back')
  if (x < -0.38) words.push('left side')
  if (x > 0.38) words.push('right side')
  return `${words.join(' and ')} down`
}

type DrainAct = 'proposeHoles' | 'leaveSolid' | 'holeAt'
/** What stays inside as the part hangs, and how it is got out. */
export function trappedResin(r: TrapReport): Finding<DrainAct>[] {
  const out: Finding<DrainAct>[] = []
  const least = rinsedAway(r.cavity)
  const inside = r.pools.filter((p) => p.inside)
  const how = `Cells of ${r.voxel.toFixed(2)} mm; resin leaves by the lowest path to an opening, and stays where that path is above it.`
  if (r.shut > 150)
    out.push({
      id: 'shut-in',
      level: 'problem',
      value: (r.shut / 1000).toFixed(1),
      unit: 'ml enclosed',
      sentence: 'A cavity has no opening: raw resin stays inside, leaks later or splits the wall.',
      places: [],
      how,
      fixes: [
        { act: 'proposeHoles', label: 'Propose holes', effect: 'two that lead into each cavity' },
        { act: 'leaveSolid', label: 'Keep it solid', effect: 'no cavity, no holes, more resin' },
      ],
    })
  const last = r.routine.at(-1)
  const stuck = r.stuck.filter((p) => p.inside)
  if (last && last.left > least && r.cavity > 0)
    out.push({
      id: 'never-drains',
      level: 'problem',
      value: (last.left / 1000).toFixed(2),
      unit: 'ml never drain',
      sentence: `However it is turned, in ${plural(r.routine.length, 'position')} one after another, this much stays. It needs a hole there.`,
      places: stuck.slice(0, 6).map((p) => p.deepest),
      how,
      fixes: stuck.slice(0, 1).map((p) => ({
        act: 'holeAt',
        place: p.deepest,
        label: 'Place drain hole there',
        effect: 'the nearest place with room for one',
      })),
    })
  else if (r.trapped > least)
    out.push({
      id: 'trapped',
      level: 'warning',
      value: (r.trapped / 1000).toFixed(1),
      unit: 'ml stay inside while it hangs',
      sentence: `Drain it ${r.routine.map((s) => directionWords(s.down)).join(', then ')}${last && last.left <= least ? ': then it is empty' : ''}.`,
      places: inside.slice(0, 6).map((p) => p.deepest),
      how,
      fixes: [],
    })
  return out
}

export const resinDrains = rule({
  title: 'all resin leaves the cavities',
  stages: ['hollow'],
  inputs: ['drainage'],
  find: ({ drainage }) => trappedResin(drainage),
})
