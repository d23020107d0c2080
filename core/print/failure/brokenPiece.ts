import { apply3, fromQuaternion, type Vector3 } from '../../math/vectors'

/** How a part stood in the printer: turned, set down, lifted by its supports. */
export interface Stood {
  quaternion: readonly [number, number, number, number]
  /** mm by which it was moved after turning, and by its supports */
  offset: readonly number[]
  shift: readonly number[]
}
export interface Lost {
  /** on the part as it stood, mm */
  point: Vector3
  /** heights between which something is missing, mm from the plate */
  reach: readonly [number, number]
}
export interface PieceCut {
  point: [number, number, number]
  /** unit, away from the plate */
  normal: [number, number, number]
  keep: 'above' | 'below'
  /** a place on the piece: only what holds to it is printed again */
  piece: [number, number, number]
}

/** mm */
export const MARGINS = [1.5, -0.1] as const

/**
 * The cut that parts what broke off from what is sound, on the part as it was before it was stood up. Where the print went on
 * soundly later, the piece lies toward the plate and is cut beyond the failure; where all from there on is missing, it lies
 * away from the plate and is cut before it. The cut keeps `margin` on the sound side, so that a clean face can be sawn there.
 *
 * Beyond the height at which a piece grew together with what was sound, a level cut takes more than the piece: there a
 * margin just below 0 keeps it apart. `MARGINS` are to be tried in order.
 *
 * @param height of the print, mm
 */
export function brokenPiece(lost: Lost, stood: Stood, height: number, margin: number = MARGINS[0]): PieceCut {
  const [low, high] = lost.reach
  const toward = high < height - 0.5
  const z = toward ? high + margin : low - margin
  // The turn's inverse is its transpose: the conjugate quaternion.
  const [qx, qy, qz, qw] = stood.quaternion
  const back = fromQuaternion([-qx, -qy, -qz, qw])
  const before = (p: Vector3): [number, number, number] =>
    apply3(back, [0, 1, 2].map((k) => p[k]! - stood.shift[k]! - stood.offset[k]!) as [number, number, number])
  return {
    point: before([lost.point[0], lost.point[1], z]),
    normal: apply3(back, [0, 0, 1]),
    keep: toward ? 'below' : 'above',
    piece: before(lost.point),
  }
}
