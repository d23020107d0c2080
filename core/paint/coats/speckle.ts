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
/** The next of a cell's numbers (a step of an odd constant, mixed as above). */
function next(h: number): number {
  h = Math.imul((h + 0x6d2b79f5) ^ (h >>> 15), 0x2c1b3c6d)
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39)
  return (h ^ (h >>> 15)) >>> 0
}

/** Most balls looked at in a cell; more than this many are one case in ten thousand at the densest. */
const MAX_STEPS = 16
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
  // Balls in a cell are counted off its own place in the Poisson distribution: where less is to be covered the last ones
  // are left away, and those that stay are the same.
  const mean = -Math.log(1 - Math.min(DENSEST, coverage)) / (Math.PI / 6),
    none = Math.exp(-mean)
  const i1 = Math.floor(gx + REACH),
    j1 = Math.floor(gy + REACH),
    k1 = Math.floor(gz + REACH)
  let near = Infinity
  for (let i = Math.floor(gx - REACH); i <= i1; i++)
    for (let j = Math.floor(gy - REACH); j <= j1; j++)
      for (let k = Math.floor(gz - REACH); k <= k1; k++) {
        let h = hash(i, j, k, s.seed)
        const at = h / 4294967296
        for (let n = 0, p = none, sum = none; at > sum && n < MAX_STEPS; p *= mean / ++n, sum += p) {
          const dx = i + (h = next(h)) / 4294967296 - gx,
            dy = j + (h = next(h)) / 4294967296 - gy,
            dz = k + (h = next(h)) / 4294967296 - gz
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
