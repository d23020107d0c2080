import { between } from '../fit/facing'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** Degrees within which a face looks to the front. */
const STRAIGHT = 12

/**
 * Where the face looks against the front of the base and the nameplate, all in degrees from the front of the turntable.
 *
 * @param plate null where there is no nameplate
 */
export function facesAway(
  face: number,
  at: [number, number, number],
  front: number,
  plate: number | null,
): Finding<'turnNameplate' | 'turnBase'>[] {
  const out: Finding<'turnNameplate' | 'turnBase'>[] = []
  const how = message('findings.facesAway.theDirectionChosenOnThe')
  const side = (d: number): string => (d > 0 ? 'right' : 'left')
  const aside = between(face, front)
  if (plate !== null && Math.abs(between(face, plate)) > STRAIGHT) {
    const d = between(face, plate)
    out.push({
      id: 'plate-aside',
      level: 'warning',
      value: message('findings.facesAway.degrees', { n: fixed(Math.abs(d), 0) }),
      unit: message('findings.facesAway.besideTheNameplate'),
      sentence: message('findings.facesAway.theFaceLooksToThe', { n: fixed(Math.abs(d), 0), side: side(d) }),
      places: [at],
      how,
      fixes: [
        {
          act: 'turnNameplate',
          label: message('findings.facesAway.turnTheNameplateToThe'),
          effect: message('findings.facesAway.setsItAtAroundThe', { face: fixed(face, 0) }),
        },
      ],
    })
  }
  if (Math.abs(aside) > STRAIGHT && plate === null)
    out.push({
      id: 'faces-aside',
      level: 'note',
      value: message('findings.facesAway.degrees', { n: fixed(Math.abs(aside), 0) }),
      unit: message('findings.facesAway.offTheFront'),
      sentence: message('findings.facesAway.theFaceLooksToThe2', { n: fixed(Math.abs(aside), 0), side: side(aside) }),
      places: [at],
      how,
      fixes: [
        {
          act: 'turnBase',
          label: message('findings.facesAway.turnTheBaseToThe'),
          effect: message('findings.facesAway.itsFrontIsThenUnder'),
        },
      ],
    })
  return out
}

export const facesFront = rule({
  title: message('findings.facesAway.theFaceLooksToThe3'),
  stages: ['combine'],
  inputs: ['facing'],
  find: ({ facing }) => facesAway(facing.face, facing.at, facing.front, facing.plate),
})
