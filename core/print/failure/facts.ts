/** Degrees between a body's own up and the printer's, for a turn given as a unit quaternion x, y, z, w. */
export function tiltOf([x, y]: readonly [number, number, number, number]): number {
  return (Math.acos(Math.max(-1, Math.min(1, 1 - 2 * (x * x + y * y)))) * 180) / Math.PI
}
