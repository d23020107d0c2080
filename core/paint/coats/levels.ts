import { LEVELS } from '../optics/filmTable'
import { isEven, shareAt, type Laying, type Place } from './technique'
import { MAP, MAPS } from '../surface/surfaceMaps'

export interface Skin {
  /** MAPS floats per vertex */
  maps: Float32Array
  /** mm, 3 per vertex */
  positions: Float32Array
  /** mm between vertices */
  spacing: number
}

/** Step of film that stands for a share of it. */
export const level = (share: number): number =>
  share <= 0 ? 0 : share >= 1 ? LEVELS - 1 : (share * (LEVELS - 1) + 0.5) | 0

/**
 * How much of a coat's film lies at each vertex, 0 to 255; null where all of it lies everywhere. It depends on how the
 * coat is laid and not on its paint or film, so that those can be dragged without asking the surface again.
 *
 * @param from the coat's own spray light per vertex, where it is sprayed from elsewhere than the undercoat's light
 */
export function levelsOf(c: Laying, skin: Skin, from: Float32Array | null): Uint8Array | null {
  if (from === null && isEven(c)) return null
  const { maps, positions, spacing } = skin
  const out = new Uint8Array(positions.length / 3)
  const place: Place = { spray: 0, recess: 0, ridge: 0, exposure: 1, x: 0, y: 0, z: 0 }
  for (let v = 0, m = 0, o = 0; v < out.length; v++, m += MAPS, o += 3) {
    place.spray = from ? from[v]! : maps[m + MAP.spray]!
    place.recess = maps[m + MAP.recess]!
    place.ridge = maps[m + MAP.ridge]!
    place.exposure = maps[m + MAP.exposure]!
    place.x = positions[o]!
    place.y = positions[o + 1]!
    place.z = positions[o + 2]!
    out[v] = level(shareAt(c, place, spacing))
  }
  return out
}
