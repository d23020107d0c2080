import { B, B3, INSIDE, OUTSIDE, type SparseField } from './field'

/**
 * A field given at every point of a regular grid, as one of blocks. Beyond the grid it counts as empty; blocks that are of
 * one sign with all their neighbours are left out.
 *
 * @param values per point, x fastest; below 0 is solid
 * @param size points per axis
 * @param origin mm, of the first point
 */
export function denseField(
  values: Float32Array,
  size: readonly [number, number, number],
  origin: readonly [number, number, number],
  voxel: number,
): SparseField {
  // A margin of a cell all round, so that what reaches the grid's border is closed there.
  const [bx, by, bz] = size.map((n) => Math.ceil((n + 2) / B)) as [number, number, number]
  const count = bx * by * bz
  const has = new Uint8Array(count)
  const blockOf = (x: number, y: number, z: number): number =>
    (((z + 1) >> 3) * by + ((y + 1) >> 3)) * bx + ((x + 1) >> 3)
  for (let z = 0, i = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++, i++) has[blockOf(x, y, z)]! |= values[i]! < 0 ? 1 : 2
  const table = new Int32Array(count)
  const places: number[] = []
  for (let b = 0; b < count; b++) {
    const x = b % bx,
      y = Math.floor(b / bx) % by,
      z = Math.floor(b / (bx * by))
    // A block at the border has the empty outside for a neighbour.
    let around = x === 0 || y === 0 || z === 0 || x === bx - 1 || y === by - 1 || z === bz - 1 ? 2 : 0
    for (let k = Math.max(0, z - 1); k <= Math.min(bz - 1, z + 1); k++)
      for (let j = Math.max(0, y - 1); j <= Math.min(by - 1, y + 1); j++)
        for (let i = Math.max(0, x - 1); i <= Math.min(bx - 1, x + 1); i++) around |= has[(k * by + j) * bx + i]!
    if (around === 3) table[b] = places.push(x, y, z) / 3 - 1
    else table[b] = around === 1 ? INSIDE : OUTSIDE
  }
  const data = new Float32Array((places.length / 3) * B3).fill(voxel)
  for (let z = 0, i = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++, i++) {
        const b = table[blockOf(x, y, z)]!
        if (b >= 0) data[b * B3 + ((((z + 1) & 7) << 6) | (((y + 1) & 7) << 3) | ((x + 1) & 7))] = values[i]!
      }
  return {
    origin: [origin[0] - voxel, origin[1] - voxel, origin[2] - voxel],
    voxel,
    size: [bx, by, bz],
    table,
    places: new Int32Array(places),
    data,
  }
}
