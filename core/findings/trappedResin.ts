import type { TrapReport } from '../print/resin/trapped'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message, type Message } from '../words/message'

/** mm³ that a rinse and a shake take along: a film, and a thousandth of what the cavities hold */
export const rinsedAway = (cavity: number): number => Math.max(150, cavity / 1000)

/** The way a direction of a part is said at the bench, as it stands upright before you. */
export function directionWords([x, y, z]: readonly [number, number, number]): Message {
  const sides: Message[] = []
  if (z < -0.38) sides.push(message('findings.trappedResin.foot'))
  if (z > 0.38) sides.push(message('findings.trappedResin.head'))
  if (y < -0.38) sides.push(message('findings.trappedResin.front'))
  if (y > 0.38) sides.push(message('findings.trappedResin.back'))
  if (x < -0.38) sides.push(message('findings.trappedResin.left'))
  if (x > 0.38) sides.push(message('findings.trappedResin.right'))
  return message('findings.trappedResin.down', { sides })
}
/** One after the other: "foot down, then head down". */
const inTurn = (all: readonly Message[]): Message =>
  all.reduce((before, next) => message('findings.trappedResin.thenNext', { before, next }))

type DrainAct = 'proposeHoles' | 'leaveSolid' | 'holeAt'
/** What stays inside as the part hangs, and how it is got out. */
export function trappedResin(r: TrapReport): Finding<DrainAct>[] {
  const out: Finding<DrainAct>[] = []
  const least = rinsedAway(r.cavity)
  const inside = r.pools.filter((p) => p.inside)
  const how = message('findings.trappedResin.cellsOfMmResinLeaves', { voxel: fixed(r.voxel, 2) })
  if (r.shut > 150)
    out.push({
      id: 'shut-in',
      level: 'problem',
      value: fixed(r.shut / 1000, 1),
      unit: message('findings.trappedResin.mlEnclosed'),
      sentence: message('findings.trappedResin.aCavityHasNoOpening'),
      places: [],
      how,
      fixes: [
        {
          act: 'proposeHoles',
          label: message('findings.trappedResin.proposeHoles'),
          effect: message('findings.trappedResin.twoThatLeadIntoEach'),
        },
        {
          act: 'leaveSolid',
          label: message('findings.trappedResin.keepItSolid'),
          effect: message('findings.trappedResin.noCavityNoHolesMore'),
        },
      ],
    })
  const last = r.routine.at(-1)
  const stuck = r.stuck.filter((p) => p.inside)
  if (last && last.left > least && r.cavity > 0)
    out.push({
      id: 'never-drains',
      level: 'problem',
      value: fixed(last.left / 1000, 2),
      unit: message('findings.trappedResin.mlNeverDrain'),
      sentence: message('findings.trappedResin.howeverItIsTurnedIn', { length: r.routine.length }),
      places: stuck.slice(0, 6).map((p) => p.deepest),
      how,
      fixes: stuck.slice(0, 1).map((p) => ({
        act: 'holeAt',
        place: p.deepest,
        label: message('findings.trappedResin.placeDrainHoleThere'),
        effect: message('findings.trappedResin.theNearestPlaceWithRoom'),
      })),
    })
  else if (r.trapped > least)
    out.push({
      id: 'trapped',
      level: 'warning',
      value: fixed(r.trapped / 1000, 1),
      unit: message('findings.trappedResin.mlStayInsideWhileIt'),
      sentence: message('findings.trappedResin.drainItThenItIs', {
        routine: inTurn(r.routine.map((s) => directionWords(s.down))),
        empties: last !== undefined && last.left <= least,
      }),
      places: inside.slice(0, 6).map((p) => p.deepest),
      how,
      fixes: [],
    })
  return out
}

export const resinDrains = rule({
  title: message('findings.trappedResin.allResinLeavesTheCavities'),
  stages: ['hollow'],
  inputs: ['drainage'],
  find: ({ drainage }) => trappedResin(drainage),
})
