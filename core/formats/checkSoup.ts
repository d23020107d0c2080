import { bad } from '../answer'
import { fixed } from '../words/format'
import { message } from '../words/message'
import type { Said } from '../words/say'

/** Largest coordinate taken seriously, mm. Beyond it Float32 steps are coarser than a printer's pixel. */
const REACH = 100_000

/** A problem when a coordinate is not a finite, sensible number; null when all are. */
export function checkSoup(coordinates: Float32Array, name: (face: number) => Said): ReturnType<typeof bad> | null {
  for (let i = 0; i < coordinates.length; i++) {
    const v = coordinates[i]!
    if (v - v !== 0)
      return bad(
        'coordinate-not-a-number',
        message('problems.checkSoup.aCornerOfIsNot', { name: name(Math.floor(i / 9)), v }),
      )
    if (v > REACH || v < -REACH)
      return bad(
        'coordinate-too-far',
        message('problems.checkSoup.aCornerOfIsM', { name: name(Math.floor(i / 9)), n: fixed(Math.abs(v / 1000), 0) }),
      )
  }
  return null
}
