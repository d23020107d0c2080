import type { Vector3 } from '../math/vectors'

export interface BustShape {
  /** mm from the neck out to the cut at the sides, and to the front and back */
  across: number
  deep: number
  /** mm by which the line lies under the pit of the neck in front, at the back and at the sides */
  front: number
  back: number
  sides: number
}
/** Shares of a figure's head, from chin to crown, that make a bust of the usual cut. */
export const bustDefaults = (head: number): BustShape => ({
  across: 1.05 * head,
  deep: 0.7 * head,
  front: 0.95 * head,
  back: 0.6 * head,
  sides: 0.35 * head,
})
const POINTS = 16

/**
 * The line along which a figure is cut to a bust: low over the breast, higher at the back, highest over the arms, so that
 * the sheet through it rises outward and leaves the arms below. Points round the body, seen from above against the clock.
 *
 * @param neck pit of the neck, mm; front is −y
 */
export function bustLine(neck: Vector3, o: BustShape): [number, number, number][] {
  return Array.from({ length: POINTS }, (_, i) => {
    const a = (2 * Math.PI * i) / POINTS
    const side = Math.sin(a) ** 2
    const low = Math.cos(a) > 0 ? o.front : o.back
    return [
      neck[0] + o.across * Math.sin(a),
      neck[1] - o.deep * Math.cos(a),
      neck[2] - (low * (1 - side) + o.sides * side),
    ]
  })
}
