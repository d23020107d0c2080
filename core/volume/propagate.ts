import type { Grid } from './blockGrid'

/**
 * Cosine of the cone about its way in which a point travels on. The 26 steps leave no direction farther than 28° from one of
 * them (0.88), so the way on is always in it; what is outside is met sooner from elsewhere.
 */
const CONE = 0.5

/** The 26 steps to a neighbour: dx, dy, dz, and the change of slot when the neighbour is in the same block. */
const STEPS = Array.from(
  { length: 27 },
  (_, k) => [(k % 3) - 1, (((k / 3) | 0) % 3) - 1, ((k / 9) | 0) - 1] as const,
).filter(([x, y, z]) => x !== 0 || y !== 0 || z !== 0)
const DX = Int8Array.from(STEPS, (s) => s[0]),
  DY = Int8Array.from(STEPS, (s) => s[1]),
  DZ = Int8Array.from(STEPS, (s) => s[2]),
  SHIFT = Int32Array.from(STEPS, (s) => s[2] * 64 + s[1] * 8 + s[0]),
  /** per step: its length, times the cosine of how far it may turn aside from the way that a point has come */
  AHEAD = Float64Array.from(STEPS, (s) => CONE * Math.hypot(...s))

/** Distances to a set of points, passed on through a block grid. All three arrays are owned by the caller. */
export interface NearestSeeds {
  /** mm per slot; Infinity where unknown */
  readonly distance: Float32Array
  /** per slot: number of the nearest point known, or −1 */
  readonly seedOf: Int32Array
  /** 3 per point, mm */
  readonly points: Float32Array
  /** 3 per point: unit normal of the surface there */
  readonly normals: Float32Array
}

/**
 * Passes nearest points from slot to neighbouring slot in order of distance, in buckets a quarter of a voxel wide,
 * until `reach` mm. A distance found so is that to a true point of the set: never too small, and too large only by
 * what a neighbour's nearest point may differ from one's own.
 *
 * @param blocked slots that are not to be entered (1)
 */
export function propagate(grid: Grid, spread: NearestSeeds, reach: number, blocked: Uint8Array): void {
  const { near, places, origin, voxel } = grid
  const { distance, seedOf, points } = spread
  const width = voxel / 4
  /** seeds may lie on the far side of their own point by up to this, mm */
  const near0 = 1.8 * voxel
  const buckets: Queue[] = Array.from({ length: Math.ceil(reach / width) + 8 }, () => new Queue())
  /** bucket in which a slot stands; entries of it in others are stale */
  const levelOf = new Uint16Array(distance.length)
  for (let s = 0; s < distance.length; s++) {
    if (seedOf[s]! < 0 || distance[s]! >= reach) continue
    levelOf[s] = (distance[s]! / width) | 0
    buckets[levelOf[s]!]!.push(s)
  }
  for (let level = 0; level < buckets.length; level++) {
    const bucket = buckets[level]!
    // Neighbours lie near each other in memory: in the order of slots they are found in the cache.
    bucket.items.subarray(0, bucket.length).sort()
    for (let i = 0; i < bucket.length; i++) {
      const s = bucket.items[i]!
      if (levelOf[s]! !== level) continue
      const seed = seedOf[s]!
      const block = s >> 9
      const lx = s & 7,
        ly = (s >> 3) & 7,
        lz = (s >> 6) & 7
      const x = origin[0] + (places[block * 3]! * 8 + lx) * voxel - points[seed * 3]!,
        y = origin[1] + (places[block * 3 + 1]! * 8 + ly) * voxel - points[seed * 3 + 1]!,
        z = origin[2] + (places[block * 3 + 2]! * 8 + lz) * voxel - points[seed * 3 + 2]!
      // Farther out, a point only travels on: whoever lies nearer to it or beside its way has met it before.
      const all = distance[s]! < near0
      const come = all ? 0 : Math.sqrt(x * x + y * y + z * z)
      for (let k = 0; k < 26; k++) {
        const dx = DX[k]!,
          dy = DY[k]!,
          dz = DZ[k]!
        if (!all && x * dx + y * dy + z * dz < AHEAD[k]! * come) continue
        let n = s + SHIFT[k]!
        const tx = lx + dx,
          ty = ly + dy,
          tz = lz + dz
        // Only a coordinate out of 0..7 has a bit beyond the lowest three.
        if (((tx | ty | tz) & -8) !== 0) {
          const b = near[block * 27 + ((tz >> 3) + 1) * 9 + ((ty >> 3) + 1) * 3 + (tx >> 3) + 1]!
          if (b < 0) continue
          n = (b << 9) | ((tz & 7) << 6) | ((ty & 7) << 3) | (tx & 7)
        }
        const known = distance[n]!
        const nx = x + dx * voxel,
          ny = y + dy * voxel,
          nz = z + dz * voxel
        const d2 = nx * nx + ny * ny + nz * nz
        if (d2 >= known * known || blocked[n] === 1) continue
        // Rounded as it is stored, or a slot would pass itself on for ever.
        const d = Math.fround(Math.sqrt(d2))
        if (d >= known || d > reach) continue
        distance[n] = d
        seedOf[n] = seed
        // Next to the seeds a way can lead nearer; that is taken up at once.
        const to = Math.max(level, (d / width) | 0)
        levelOf[n] = to
        buckets[to]!.push(n)
      }
    }
    bucket.free()
  }
}

/**
 * Turns distances to strewn points into distances to the surface they were strewn on: what lies in the tangent plane
 * is taken off as long as it is no longer than the points are apart. On a plane that is exact; round an edge it can
 * take off (0.7 voxel)²/(2·distance) too much.
 */
export function toTangentPlanes(grid: Grid, { distance, seedOf, points, normals }: NearestSeeds): void {
  const { places, origin, voxel } = grid
  const most = (0.7 * voxel) ** 2
  for (let s = 0; s < distance.length; s++) {
    if (seedOf[s]! < 0) continue
    const q = seedOf[s]! * 3,
      b = (s >> 9) * 3
    const h = Math.abs(
      (origin[0] + (places[b]! * 8 + (s & 7)) * voxel - points[q]!) * normals[q]! +
        (origin[1] + (places[b + 1]! * 8 + ((s >> 3) & 7)) * voxel - points[q + 1]!) * normals[q + 1]! +
        (origin[2] + (places[b + 2]! * 8 + ((s >> 6) & 7)) * voxel - points[q + 2]!) * normals[q + 2]!,
    )
    if (distance[s]! ** 2 - h * h <= most) distance[s] = h
  }
}

/** Growing list of slots. */
export class Queue {
  items = new Int32Array(64)
  length = 0
  push(v: number): void {
    if (this.length === this.items.length) {
      const more = new Int32Array(this.length * 2)
      more.set(this.items)
      this.items = more
    }
    this.items[this.length++] = v
  }
  free(): void {
    this.items = new Int32Array(0)
    this.length = 0
  }
}
