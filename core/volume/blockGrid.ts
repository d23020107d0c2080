import { closest, closestPoint } from '../mesh/closest'
import type { Tree } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { B, INSIDE, type emptyField, type SparseField } from './field'

/**
 * Stored blocks of a sparse grid with each block's 27 neighbours at hand, itself in the middle (−1: not stored).
 * A slot is block · 512 + z · 64 + y · 8 + x.
 */
export interface Grid extends Omit<SparseField, 'data'> {
  readonly near: Int32Array
}

export function withNeighbours(field: Omit<SparseField, 'data'>): Grid {
  const { places, size, table } = field
  const blocks = places.length / 3
  const near = new Int32Array(blocks * 27).fill(-1)
  for (let b = 0; b < blocks; b++)
    for (let k = 0; k < 27; k++) {
      const x = places[b * 3]! + (k % 3) - 1,
        y = places[b * 3 + 1]! + (((k / 3) | 0) % 3) - 1,
        z = places[b * 3 + 2]! + ((k / 9) | 0) - 1
      if (x >= 0 && y >= 0 && z >= 0 && x < size[0] && y < size[1] && z < size[2])
        near[b * 27 + k] = Math.max(-1, table[(z * size[1] + y) * size[0] + x]!)
    }
  return { ...field, near }
}

/** Slot of the neighbour by (dx, dy, dz) ∈ {−1, 0, 1}³, or −1 when its block is not stored. */
export function beside(near: Int32Array, s: number, dx: number, dy: number, dz: number): number {
  const x = (s & 7) + dx,
    y = ((s >> 3) & 7) + dy,
    z = ((s >> 6) & 7) + dz
  const b = near[(s >> 9) * 27 + ((z >> 3) + 1) * 9 + ((y >> 3) + 1) * 3 + (x >> 3) + 1]!
  return b < 0 ? -1 : (b << 9) | ((z & 7) << 6) | ((y & 7) << 3) | (x & 7)
}

const R = ((B - 1) / 2) * Math.sqrt(3)

/**
 * Blocks with a point between two signed offsets of the skin (from ≤ 0 ≤ to, mm), as places; their number goes to the
 * table. A block that is not stored lies wholly inside or outside, and the table says which.
 */
export function chooseBlocks(field: ReturnType<typeof emptyField>, tree: Tree, from: number, to: number): Int32Array {
  const { size, table, voxel, origin } = field
  const lo = from - (R + 1) * voxel,
    hi = to + (R + 1) * voxel
  const places: number[] = []
  const hit = closest()
  // How far a search need look, and what is known of the distance at the last centre searched: `last` is a lower
  // bound of its magnitude, with its sign. The distance changes no faster than one walks.
  const range = Math.max(-lo, hi) + 1e-6
  let px = NaN,
    py = 0,
    pz = 0,
    last = 0
  for (let z = 0, at = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++, at++) {
        const cx = origin[0] + (x * B + (B - 1) / 2) * voxel,
          cy = origin[1] + (y * B + (B - 1) / 2) * voxel,
          cz = origin[2] + (z * B + (B - 1) / 2) * voxel
        const step = Math.hypot(cx - px, cy - py, cz - pz)
        if (last + step < lo || last - step > hi) {
          if (last < 0) table[at] = INSIDE
          continue
        }
        const d = Math.min(range, closestPoint(tree, cx, cy, cz, hit, range))
        last = (step < Math.abs(last) ? last < 0 : isInside(tree, cx, cy, cz)) ? -d : d
        px = cx
        py = cy
        pz = cz
        if (last <= lo || last >= hi) {
          if (last < 0) table[at] = INSIDE
          continue
        }
        table[at] = places.length / 3
        places.push(x, y, z)
      }
  return new Int32Array(places)
}
