import type { Vector3 } from '../math/vectors'

export interface PicturePair {
  /** mm, on the sculpt */
  point: Vector3
  /** in the picture, to the right and down, in any unit */
  picture: readonly [number, number]
}
export interface MatchedView {
  /** radians round the upright from the front, and above the level */
  azimuth: number
  elevation: number
  /** picture = scale · turned by roll (view) + shift, view to the right and down in mm at the middle's distance */
  scale: number
  roll: number
  shift: [number, number]
  /** how far the places lie from where the picture has them, in the picture's unit, root mean square */
  error: number
}

/** Where a place is seen: mm to the right and down of the middle, as large as things at the middle's distance are. */
export function seenFrom(
  p: Vector3,
  middle: Vector3,
  azimuth: number,
  elevation: number,
  distance: number,
): [number, number] {
  const [x, y, z] = [p[0] - middle[0], p[1] - middle[1], p[2] - middle[2]]
  // Looked at from the front (−y), turned to the right by the azimuth, from above by the elevation.
  const ca = Math.cos(azimuth),
    sa = Math.sin(azimuth),
    ce = Math.cos(elevation),
    se = Math.sin(elevation)
  const right = x * ca + y * sa
  const inward = -x * sa + y * ca
  const up = z * ce + inward * se
  const away = inward * ce - z * se
  const k = distance / (distance + away)
  return [right * k, -up * k]
}

/**
 * The view from which a picture was taken: the camera's direction that best brings places of the sculpt onto the places
 * pressed in the picture. For each direction the picture's scale, roll and shift follow in closed form (Procrustes); so
 * only two angles are searched, on a grid and then by halving steps.
 *
 * @param distance mm of the camera from the middle
 * @returns null with fewer than four places, or when they lie on one line
 */
export function matchView(pairs: readonly PicturePair[], middle: Vector3, distance: number): MatchedView | null {
  if (pairs.length < 4) return null
  const at = (azimuth: number, elevation: number): MatchedView =>
    fitted(
      pairs,
      pairs.map((p) => seenFrom(p.point, middle, azimuth, elevation, distance)),
      azimuth,
      elevation,
    )
  let best: MatchedView | null = null
  for (let a = -Math.PI; a < Math.PI; a += Math.PI / 24)
    for (let e = -1.2; e <= 1.2; e += 0.15) {
      const m = at(a, e)
      if (!best || m.error < best.error) best = m
    }
  if (!best || !Number.isFinite(best.error)) return null
  for (let step = 0.08; step > 1e-5; step /= 2)
    for (let moved = true; moved;) {
      moved = false
      for (const [da, de] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        const m: MatchedView = at(best.azimuth + da * step, best.elevation + de * step)
        if (m.error < best.error - 1e-12) {
          best = m
          moved = true
        }
      }
    }
  return best
}

/** Scale, roll and shift that bring one set of flat points nearest to another, without mirroring. */
function fitted(
  pairs: readonly PicturePair[],
  view: readonly (readonly [number, number])[],
  azimuth: number,
  elevation: number,
): MatchedView {
  const n = pairs.length
  const mean = (get: (i: number) => number): number => pairs.reduce((s, _, i) => s + get(i), 0) / n
  const vx = mean((i) => view[i]![0]),
    vy = mean((i) => view[i]![1]),
    px = mean((i) => pairs[i]!.picture[0]),
    py = mean((i) => pairs[i]!.picture[1])
  let a = 0,
    b = 0,
    size = 0
  for (let i = 0; i < n; i++) {
    const [x, y] = [view[i]![0] - vx, view[i]![1] - vy],
      [u, v] = [pairs[i]!.picture[0] - px, pairs[i]!.picture[1] - py]
    a += x * u + y * v
    b += x * v - y * u
    size += x * x + y * y
  }
  const c = a / size,
    s = b / size
  let error = 0
  for (let i = 0; i < n; i++) {
    const [x, y] = [view[i]![0] - vx, view[i]![1] - vy]
    error += (c * x - s * y + px - pairs[i]!.picture[0]) ** 2 + (s * x + c * y + py - pairs[i]!.picture[1]) ** 2
  }
  return {
    azimuth,
    elevation,
    scale: Math.hypot(c, s),
    roll: Math.atan2(s, c),
    shift: [px - (c * vx - s * vy), py - (s * vx + c * vy)],
    error: Math.sqrt(error / n),
  }
}
