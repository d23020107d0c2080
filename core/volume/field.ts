import type { Box } from '../mesh/mesh'
import { silent, type Report } from '../answer'
import type { DistanceSource } from './source'

/** Samples along a block's edge. */
export const B = 8
export const B3 = B * B * B

/** Table entries of blocks that hold no samples. */
export const OUTSIDE = -1
export const INSIDE = -2

/**
 * A scalar field on a regular grid of which only the blocks near its zero are stored. Value < 0 is solid.
 *
 * Promise: an edge of the grid whose ends differ in sign has both ends, and all four cells around it, in
 * stored blocks. Blocks without samples are all of one sign, which the table tells.
 */
export interface SparseField {
  /** position of sample (0, 0, 0), mm */
  readonly origin: readonly [number, number, number]
  /** mm */
  readonly voxel: number
  /** number of blocks per axis */
  readonly size: readonly [number, number, number]
  /** block number, or OUTSIDE or INSIDE; x fastest */
  readonly table: Int32Array
  /** block coordinates, 3 per stored block */
  readonly places: Int32Array
  /** B³ values per stored block, x fastest */
  readonly data: Float32Array
}

/** Grids beyond this many blocks (about 1.6 km of voxels on a side cubed) are refused before allocation. */
const MAX_BLOCKS = 60_000_000
const TOP = 4

/**
 * A grid of whole super-blocks (32 voxels) around a box and two voxels beyond it, with no block stored.
 *
 * @throws RangeError when the grid would be absurd (callers check voxel against size first)
 */
export function emptyField(box: Box, voxel: number): Omit<SparseField, 'data' | 'places'> & { places: Int32Array } {
  const pad = 2 * voxel,
    step = B * TOP
  const size = [0, 1, 2].map(
    (k) => TOP * Math.max(1, Math.ceil((box.max[k]! - box.min[k]! + 2 * pad) / voxel / step + 1 / step)),
  ) as [number, number, number]
  const total = size[0] * size[1] * size[2]
  if (!(total <= MAX_BLOCKS)) throw new RangeError('Voxel too small for this body.')
  return {
    origin: [box.min[0] - pad, box.min[1] - pad, box.min[2] - pad],
    voxel,
    size,
    table: new Int32Array(total).fill(OUTSIDE),
    places: new Int32Array(0),
  }
}

/**
 * Samples `source − iso` on a grid of the given voxel wherever the zero can be, descending from blocks of 32
 * voxels: a block is skipped when the value at its centre is farther from zero than the source can change
 * within the block and one voxel around it. Exactness therefore costs only the surface, not the volume.
 *
 * @throws RangeError when the grid would be absurd (callers check voxel against size first)
 */
export function sampleField(
  source: DistanceSource,
  box: Box,
  voxel: number,
  iso: number,
  report: Report = silent,
): SparseField {
  const { origin, size, table } = emptyField(box, voxel)
  const tops = size.map((s) => s / TOP) as [number, number, number]
  const step = B * TOP
  const places: number[] = []
  let data = new Float32Array(256 * B3)
  let stored = 0
  const L = source.lipschitz
  const half = (n: number): number => ((n - 1) / 2 + 1) * Math.sqrt(3) * voxel * L
  const far32 = half(step),
    far8 = half(B)
  const centre = (x: number, y: number, z: number, n: number): number =>
    source.sample(
      origin[0] + (x + (n - 1) / 2) * voxel,
      origin[1] + (y + (n - 1) / 2) * voxel,
      origin[2] + (z + (n - 1) / 2) * voxel,
    ) - iso

  for (let tz = 0; tz < tops[2]; tz++)
    for (let ty = 0; ty < tops[1]; ty++) {
      report((tz * tops[1] + ty) / (tops[2] * tops[1]))
      for (let tx = 0; tx < tops[0]; tx++) {
        const v = centre(tx * step, ty * step, tz * step, step)
        const skip = Math.abs(v) > far32
        if (skip && v > 0) continue
        for (let bz = tz * TOP; bz < tz * TOP + TOP; bz++)
          for (let by = ty * TOP; by < ty * TOP + TOP; by++)
            for (let bx = tx * TOP; bx < tx * TOP + TOP; bx++) {
              const at = (bz * size[1] + by) * size[0] + bx
              if (skip) {
                table[at] = INSIDE
                continue
              }
              const w = centre(bx * B, by * B, bz * B, B)
              if (Math.abs(w) > far8) {
                if (w < 0) table[at] = INSIDE
                continue
              }
              if ((stored + 1) * B3 > data.length) {
                const more = new Float32Array(data.length * 2)
                more.set(data)
                data = more
              }
              fillBlock(bx * B, by * B, bz * B, stored * B3)
              table[at] = stored++
              places.push(bx, by, bz)
            }
      }
    }
  return { origin, voxel, size, table, places: new Int32Array(places), data: data.slice(0, stored * B3) }

  function fillBlock(x0: number, y0: number, z0: number, base: number): void {
    for (let q = 0; q < 8; q++) fillCube(x0, y0, z0, (q & 1) * 4, ((q >> 1) & 1) * 4, (q >> 2) * 4, 4, base)
  }

  /**
   * Halves the cube until its whole neighbourhood is of one sign or two voxels are left. Where it is of one
   * sign, the value at its centre stands for all of it: no edge there crosses zero, so only the sign is read.
   */
  function fillCube(
    x0: number,
    y0: number,
    z0: number,
    sx: number,
    sy: number,
    sz: number,
    n: number,
    base: number,
  ): void {
    const w = centre(x0 + sx, y0 + sy, z0 + sz, n)
    if (Math.abs(w) > half(n)) {
      for (let z = sz; z < sz + n; z++)
        for (let y = sy; y < sy + n; y++) data.fill(w, base + (z * B + y) * B + sx, base + (z * B + y) * B + sx + n)
      return
    }
    if (n > 2) {
      const h = n / 2
      for (let q = 0; q < 8; q++)
        fillCube(x0, y0, z0, sx + (q & 1) * h, sy + ((q >> 1) & 1) * h, sz + (q >> 2) * h, h, base)
      return
    }
    for (let q = 0; q < 8; q++) {
      // Gray order: successive samples are one voxel apart, which the source exploits.
      const g = q ^ (q >> 1)
      const x = sx + (g & 1),
        y = sy + ((g >> 1) & 1),
        z = sz + (g >> 2)
      data[base + (z * B + y) * B + x] =
        source.sample(origin[0] + (x0 + x) * voxel, origin[1] + (y0 + y) * voxel, origin[2] + (z0 + z) * voxel) - iso
    }
  }
}

/** Value at a grid point; unstored blocks answer with their sign only (±1 voxel). */
export function fieldAt(f: SparseField, x: number, y: number, z: number): number {
  const bx = x >> 3,
    by = y >> 3,
    bz = z >> 3
  if (bx < 0 || by < 0 || bz < 0 || bx >= f.size[0] || by >= f.size[1] || bz >= f.size[2]) return f.voxel
  const b = f.table[(bz * f.size[1] + by) * f.size[0] + bx]!
  if (b < 0) return b === INSIDE ? -f.voxel : f.voxel
  return f.data[b * B3 + ((z & 7) * B + (y & 7)) * B + (x & 7)]!
}

/**
 * A sparse field asked between its grid points, by trilinear interpolation. Only for points in cells that the zero
 * passes or touches: elsewhere the field has but signs.
 */
export class FieldDistance implements DistanceSource {
  readonly lipschitz = Math.sqrt(3)
  private readonly c = new Float64Array(8)
  private fx = 0
  private fy = 0
  private fz = 0

  constructor(private readonly field: SparseField) {}

  sample(x: number, y: number, z: number): number {
    const { field: f, c } = this
    const gx = (x - f.origin[0]) / f.voxel,
      gy = (y - f.origin[1]) / f.voxel,
      gz = (z - f.origin[2]) / f.voxel
    const ix = Math.floor(gx),
      iy = Math.floor(gy),
      iz = Math.floor(gz)
    for (let k = 0; k < 8; k++) c[k] = fieldAt(f, ix + (k & 1), iy + ((k >> 1) & 1), iz + (k >> 2))
    const u = (this.fx = gx - ix),
      v = (this.fy = gy - iy),
      w = (this.fz = gz - iz)
    const low = mix(mix(c[0]!, c[1]!, u), mix(c[2]!, c[3]!, u), v),
      high = mix(mix(c[4]!, c[5]!, u), mix(c[6]!, c[7]!, u), v)
    return mix(low, high, w)
  }

  gradient(out: Float64Array): void {
    const { c, fx: u, fy: v, fz: w } = this
    const x = mix(mix(c[1]! - c[0]!, c[3]! - c[2]!, v), mix(c[5]! - c[4]!, c[7]! - c[6]!, v), w),
      y = mix(mix(c[2]! - c[0]!, c[3]! - c[1]!, u), mix(c[6]! - c[4]!, c[7]! - c[5]!, u), w),
      z = mix(mix(c[4]! - c[0]!, c[5]! - c[1]!, u), mix(c[6]! - c[2]!, c[7]! - c[3]!, u), v)
    const l = Math.hypot(x, y, z) || 1
    out[0] = x / l
    out[1] = y / l
    out[2] = z / l
  }
}

const mix = (a: number, b: number, t: number): number => a + (b - a) * t
