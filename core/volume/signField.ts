import { type Report } from '../answer'
import type { Box } from '../mesh/mesh'
import { B, B3, emptyField, INSIDE, type SparseField } from './field'

/** A solid that is told by its inside rather than by a skin: winding numbers of soups and of scanned points. */
export interface SignSource {
  /** positive inside, about ±½ far from the skin */
  excess(x: number, y: number, z: number): number
  /** negative inside, mm or like mm near the zero */
  sample(x: number, y: number, z: number): number
  /** whether data lies within that distance, mm */
  near(x: number, y: number, z: number, within: number): boolean
}

/**
 * An excess this far from zero changes no sign before data comes near: past a rim at distance d it changes by 1/(2πd)
 * a millimetre, so from the middle of a cube of eight samples that data does not touch by at most ln(7.8 / 1.7) / (2π).
 */
const SURE = 0.25

/**
 * Blocks near the data, and from there every block into which a change of sign leads, across holes too. Within a block
 * cubes are halved only while data is near or the sign is undecided.
 *
 * @throws RangeError when the grid would be absurd (callers check voxel against size first)
 */
export function sampleWhereSignsMeet(source: SignSource, box: Box, voxel: number, report: Report): SparseField {
  const grid = emptyField(box, voxel)
  const { size, table, origin } = grid
  const places: number[] = []
  let data = new Float32Array(256 * B3)

  function fillCube(b: number, sx: number, sy: number, sz: number, n: number): void {
    const x0 = origin[0] + (places[b * 3]! * B + sx) * voxel,
      y0 = origin[1] + (places[b * 3 + 1]! * B + sy) * voxel,
      z0 = origin[2] + (places[b * 3 + 2]! * B + sz) * voxel
    const mid = ((n - 1) / 2) * voxel
    if (!source.near(x0 + mid, y0 + mid, z0 + mid, (mid + voxel) * Math.sqrt(3))) {
      const e = source.excess(x0 + mid, y0 + mid, z0 + mid)
      if (Math.abs(e) > SURE) {
        for (let z = sz; z < sz + n; z++)
          for (let y = sy; y < sy + n; y++) {
            const row = b * B3 + (z * B + y) * B
            data.fill(e > 0 ? -voxel : voxel, row + sx, row + sx + n)
          }
        return
      }
    }
    if (n > 2) {
      const h = n / 2
      for (let q = 0; q < 8; q++) fillCube(b, sx + (q & 1) * h, sy + ((q >> 1) & 1) * h, sz + (q >> 2) * h, h)
      return
    }
    for (let q = 0; q < 8; q++) {
      const x = q & 1,
        y = (q >> 1) & 1,
        z = q >> 2
      data[b * B3 + ((sz + z) * B + sy + y) * B + sx + x] = source.sample(
        x0 + x * voxel,
        y0 + y * voxel,
        z0 + z * voxel,
      )
    }
  }

  const at = (x: number, y: number, z: number): number =>
    x < 0 || y < 0 || z < 0 || x >= size[0] || y >= size[1] || z >= size[2] ? -1 : (z * size[1] + y) * size[0] + x
  const add = (x: number, y: number, z: number): void => {
    table[at(x, y, z)] = places.length / 3
    places.push(x, y, z)
  }
  const half = ((B - 1) / 2) * voxel
  for (let z = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++) {
        const cx = origin[0] + x * B * voxel + half,
          cy = origin[1] + y * B * voxel + half,
          cz = origin[2] + z * B * voxel + half
        if (source.near(cx, cy, cz, (half + voxel) * Math.sqrt(3))) add(x, y, z)
        else if (source.excess(cx, cy, cz) > 0) table[at(x, y, z)] = INSIDE
      }
  // Blocks without data whose neighbour is on the other side: the skin across a hole passes between them.
  for (let z = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++) {
        const here = table[at(x, y, z)]!
        if (here >= 0) continue
        for (const [i, j, k] of [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ] as const) {
          const n = at(x + i, y + j, z + k)
          if (n < 0 || table[n]! >= 0 || table[n] === here) continue
          if (table[at(x, y, z)]! < 0) add(x, y, z)
          add(x + i, y + j, z + k)
        }
      }
  for (let b = 0; b < places.length / 3; b++) {
    if ((b & 63) === 0) report(Math.min(1, b / (places.length / 3)))
    if ((b + 1) * B3 > data.length) {
      const more = new Float32Array(data.length * 2)
      more.set(data)
      data = more
    }
    for (let q = 0; q < 8; q++) fillCube(b, (q & 1) * 4, ((q >> 1) & 1) * 4, (q >> 2) * 4, 4)
    for (let k = 0; k < 27; k++) {
      const i = (k % 3) - 1,
        j = (((k / 3) | 0) % 3) - 1,
        l = ((k / 9) | 0) - 1
      const x = places[b * 3]! + i,
        y = places[b * 3 + 1]! + j,
        z = places[b * 3 + 2]! + l
      const n = at(x, y, z)
      if (n < 0 || table[n]! >= 0) continue
      if (touches(data, b, i, j, l, table[n] !== INSIDE)) add(x, y, z)
    }
  }
  return { ...grid, places: new Int32Array(places), data: data.slice(0, (places.length / 3) * B3) }
}

/** Whether the layer of block `b` toward the neighbour (i, j, l) has a sample that is inside (or, else, outside). */
function touches(data: Float32Array, b: number, i: number, j: number, l: number, inside: boolean): boolean {
  const range = (d: number): [number, number] => (d < 0 ? [0, 1] : d > 0 ? [B - 1, B] : [0, B])
  const [x0, x1] = range(i),
    [y0, y1] = range(j),
    [z0, z1] = range(l)
  for (let z = z0; z < z1; z++)
    for (let y = y0; y < y1; y++)
      for (let x = x0; x < x1; x++) if (data[b * B3 + (z * B + y) * B + x]! < 0 === inside) return true
  return false
}
