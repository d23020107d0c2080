import { between } from '../fit/facing'
import type { Finding } from './finding'
import { rule } from './rule'

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
  const how =
    'The direction chosen on the face, turned with its part and joint, compared with the front around the vertical.'
  const side = (d: number): string => (d > 0 ? 'right' : 'left')
  const aside = between(face, front)
  if (plate !== null && Math.abs(between(face, plate)) > STRAIGHT) {
    const d = between(face, plate)
    out.push({
      id: 'plate-aside',
      level: 'warning',
      value: `${Math.abs(d).toFixed(0)}°`,
      unit: 'beside the nameplate',
      sentence: `The face looks ${Math.abs(d).toFixed(0)}° to the ${side(d)} of the nameplate.`,
      places: [at],
      how,
      fixes: [
        {
          act: 'turnNameplate',
          label: 'Turn the nameplate to the face',
          effect: `sets it at ${face.toFixed(0)}° around the base`,
        },
      ],
    })
  }
  if (Math.abs(aside) > STRAIGHT && plate === null)
    out.push({
      id: 'faces-aside',
      level: 'note',
      value: `${Math.abs(aside).toFixed(0)}°`,
      unit: 'off the front',
      sentence: `The face looks ${Math.abs(aside).toFixed(0)}° to the ${side(aside)} of the base’s front.`,
      places: [at],
      how,
      fixes: [{ act: 'turnBase', label: 'Turn the base to the face', effect: 'its front is then under the face' }],
    })
  return out
}

export const facesFront = rule({
  title: 'the face looks to the front',
  stages: ['combine'],
  inputs: ['facing'],
  find: ({ facing }) => facesAway(facing.face, facing.at, facing.front, facing.plate),
})
