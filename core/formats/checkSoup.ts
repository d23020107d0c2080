import { bad } from '../answer'

/** Largest coordinate taken seriously, mm. Beyond it Float32 steps are coarser than a printer's pixel. */
const REACH = 100_000

/** A problem when a coordinate is not a finite, sensible number; null when all are. */
export function checkSoup(coordinates: Float32Array, name: (face: number) => string): ReturnType<typeof bad> | null {
  for (let i = 0; i < coordinates.length; i++) {
    const v = coordinates[i]!
    if (v - v !== 0)
      return bad(
        'coordinate-not-a-number',
        `A corner of ${name(Math.floor(i / 9))} is not a number (${v}). The file is damaged: export it again.`,
      )
    if (v > REACH || v < -REACH)
      return bad(
        'coordinate-too-far',
        `A corner of ${name(Math.floor(i / 9))} is ${Math.abs(v / 1000).toFixed(0)} m from the origin. Check the file's units, or move the sculpt to the origin before exporting.`,
      )
  }
  return null
}
