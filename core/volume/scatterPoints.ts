import type { Mesh } from '../mesh/mesh'
import type { Grid } from './blockGrid'
import type { NearestSeeds } from './propagate'

/**
 * Strews points no farther apart than half a voxel on every face, with the face's normal; each stored grid point
 * keeps the nearest of those in the cells around it.
 */
export function scatterPoints(
  { positions: p, triangles: t }: Mesh,
  grid: Grid,
  distance: Float32Array,
): Omit<NearestSeeds, 'distance'> {
  const { table, size, origin, voxel } = grid
  const [ox, oy, oz] = origin,
    [sx, sy] = size
  const seedOf = new Int32Array(distance.length).fill(-1)
  let points: Float32Array = new Float32Array(3 << 16),
    normals: Float32Array = new Float32Array(3 << 16)
  let seeds = 0
  const put = (x: number, y: number, z: number, nx: number, ny: number, nz: number): void => {
    const gx = (x - ox) / voxel,
      gy = (y - oy) / voxel,
      gz = (z - oz) / voxel
    const fx = Math.floor(gx),
      fy = Math.floor(gy),
      fz = Math.floor(gz)
    for (let c = 0; c < 8; c++) {
      const ix = fx + (c & 1),
        iy = fy + ((c >> 1) & 1),
        iz = fz + (c >> 2)
      const block = table[((iz >> 3) * sy + (iy >> 3)) * sx + (ix >> 3)]!
      if (block < 0) continue
      const s = (block << 9) | ((iz & 7) << 6) | ((iy & 7) << 3) | (ix & 7)
      const dx = gx - ix,
        dy = gy - iy,
        dz = gz - iz
      const d = Math.fround(voxel * Math.sqrt(dx * dx + dy * dy + dz * dz))
      if (d >= distance[s]!) continue
      distance[s] = d
      let seed = seedOf[s]!
      if (seed < 0) {
        seed = seedOf[s] = seeds++
        if (seed * 3 >= points.length) {
          points = doubled(points)
          normals = doubled(normals)
        }
      }
      const o = seed * 3
      points[o] = x
      points[o + 1] = y
      points[o + 2] = z
      normals[o] = nx
      normals[o + 1] = ny
      normals[o + 2] = nz
    }
  }
  for (let f = 0; f < t.length; f += 3) {
    const a = t[f]! * 3,
      b = t[f + 1]! * 3,
      c = t[f + 2]! * 3
    const ax = p[a]!,
      ay = p[a + 1]!,
      az = p[a + 2]!
    const ux = p[b]! - ax,
      uy = p[b + 1]! - ay,
      uz = p[b + 2]! - az
    const vx = p[c]! - ax,
      vy = p[c + 1]! - ay,
      vz = p[c + 2]! - az
    let nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx
    const k = 1 / (Math.sqrt(nx * nx + ny * ny + nz * nz) || 1)
    nx *= k
    ny *= k
    nz *= k
    const wx = vx - ux,
      wy = vy - uy,
      wz = vz - uz
    const longest = Math.max(ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz, wx * wx + wy * wy + wz * wz)
    const n = Math.ceil(Math.sqrt(longest) / (voxel / 2))
    if (n <= 1) put(ax + (ux + vx) / 3, ay + (uy + vy) / 3, az + (uz + vz) / 3, nx, ny, nz)
    else
      for (let i = 0; i <= n; i++)
        for (let j = 0; j <= n - i; j++)
          put(ax + (ux * i + vx * j) / n, ay + (uy * i + vy * j) / n, az + (uz * i + vz * j) / n, nx, ny, nz)
  }
  return { seedOf, points, normals }
}

function doubled(a: Float32Array): Float32Array {
  const more = new Float32Array(a.length * 2)
  more.set(a)
  return more
}
