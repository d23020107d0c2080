/**
 * Speckle in space: balls of one size at random places (a Poisson process), of which a share of all space lies inside.
 * A skin laid through them is covered by the same share of its area (Delesse 1847), however it is meshed, so dots and
 * chips lie fast on the sculpt and keep to the coverage asked for.
 *
 * The places are hashed from their cells: the same seed gives the same speckle, at any place, without a table.
 */
export interface Speckle {
  /** mm; diameter of a ball */
  grain: number
  /** any whole number: another pattern for each coat */
  seed: number
}

/** 32 random bits of a cell (murmur3's finaliser, Appleby 2011). */
function hash(x: number, y: number, z: number, k: number): number {
  let h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(z, 0xc2b2ae3d) ^ Math.imul(k, 0x27d4eb2f)
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}
const unit = (h: number): number => h / 4294967296

/** Most balls looked at in a cell; more than this many are one case in ten thousand at the densest. */
const MOST = 16
/** Coverage can be asked for up to this: the last bare crumbs would take endlessly many balls. */
export const DENSEST = 0.95

/**
 * Whether a place lies in a ball, softened over the outer fifth of its radius.
 *
 * @param coverage 0 to DENSEST; may differ from place to place: where it is less, the same balls are thinned out
 * @returns 0 to 1
 */
export function speckleAt(s: Speckle, x: number, y: number, z: number, coverage: number): number {
  if (coverage <= 0) return 0
  const radius = s.grain / 2
  // Cells as wide as a ball: nothing farther than the next but one reaches here.
  const gx = x / s.grain,
    gy = y / s.grain,
    gz = z / s.grain
  const perCell = (c: number): number => -Math.log(1 - Math.min(DENSEST, c)) / (Math.PI / 6)
  const most = perCell(DENSEST),
    keep = perCell(coverage) / most
  let near = Infinity
  for (let i = Math.floor(gx - REACH); i <= Math.floor(gx + REACH); i++)
    for (let j = Math.floor(gy - REACH); j <= Math.floor(gy + REACH); j++)
      for (let k = Math.floor(gz - REACH); k <= Math.floor(gz + REACH); k++) {
        const n = poisson(most, unit(hash(i, j, k, s.seed * 64)))
        for (let b = 0; b < n; b++) {
          const at = (m: number): number => unit(hash(i, j, k, s.seed * 64 + 1 + 4 * b + m))
          if (at(3) >= keep) continue
          const dx = i + at(0) - gx,
            dy = j + at(1) - gy,
            dz = k + at(2) - gz
          const d = dx * dx + dy * dy + dz * dz
          if (d < near) near = d
        }
      }
  const inside = 1 - (Math.sqrt(near) * s.grain) / radius
  return inside <= -SOFT ? 0 : inside >= SOFT ? 1 : 0.5 + inside / (2 * SOFT)
}
/** of the radius, to each side of the rim: what is lost within is gained without */
const SOFT = 0.1
/** of the grain: how far a ball and its soft rim reach */
const REACH = 0.5 * (1 + SOFT)

/** The Poisson count of mean `mean` at a place of its distribution, 0 to 1. */
function poisson(mean: number, at: number): number {
  let n = 0,
    p = Math.exp(-mean),
    sum = p
  while (at > sum && n < MOST) {
    n++
    p *= mean / n
    sum += p
  }
  return n
}
