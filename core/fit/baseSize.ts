export interface Foot {
  /** mm across and from front to back, of what stands on the base */
  width: number
  depth: number
  /** its middle, and the height of the ground, mm */
  x: number
  y: number
  z: number
}
/** Share by which a base is wider than what stands on it. */
const MARGIN = 1.15
/** mm that a base may measure */
const LEAST = 5,
  MOST = 1000

/**
 * Width and depth of a base, mm: wider than what stands on it, and wide enough that the whole may be tipped to the wished
 * angle before it goes over. The base's own mass, which lowers the centre, is not counted.
 *
 * @param centre of mass of what stands on it, mm; null while it is not known
 * @param wish degrees
 * @param height of the base, mm
 * @returns `forTipping`: the wished angle and not the foot gave one of the sizes
 */
export function baseSize(
  foot: Foot,
  centre: readonly number[] | null,
  wish: number,
  height: number,
): { width: number; depth: number; forTipping: boolean } {
  // The centre of mass is over the base's edge when it is tipped by atan(margin / height): methods.md 8.
  const reach = centre
    ? Math.hypot(centre[0]! - foot.x, centre[1]! - foot.y) +
      (centre[2]! - foot.z + height) * Math.tan((wish * Math.PI) / 180)
    : 0
  const size = (stands: number): number =>
    Math.min(MOST, Math.max(LEAST, Math.ceil(Math.max(MARGIN * stands, 2 * reach) * 10) / 10))
  return {
    width: size(foot.width),
    depth: size(foot.depth),
    forTipping: 2 * reach > MARGIN * Math.min(foot.width, foot.depth),
  }
}
