import { silent, type Report } from '../answer'
import type { Box } from '../mesh/mesh'
import type { Tree } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { beside, chooseBlocks, withNeighbours, type Grid } from './blockGrid'
import { B, B3, emptyField, INSIDE, OUTSIDE, type SparseField } from './field'
import { scatterPoints } from './scatterPoints'
import { propagate, Queue, toTangentPlanes, type NearestSeeds } from './propagate'

/**
 * Distances to a closed mesh on one side of its skin, on grid blocks up to a given depth: what `sampleField` does by a
 * search for each sample, at some tens of nanoseconds a sample however deep it lies.
 *
 * 1. The skin is strewn with points half a voxel apart; the corners of each point's grid cell take it as their seed.
 * 2. A grid edge that crosses the skin has a seeded end. So the unseeded grid points fall into connected sets wholly
 *    inside or outside, and each set asks the winding number once.
 * 3. Nearest points pass from neighbour to neighbour through the wanted side (see `propagate`).
 *
 * 4. The distance to a strewn point exceeds that to the skin by what lies sideways, which is taken off.
 *
 * What remains is of the order of voxel²/(4·distance) at edges and vanishes on a smooth skin.
 */
export interface Band extends NearestSeeds {
  readonly grid: Grid
  /** per slot: 0 seeded, within √3 voxels of the skin; 1 the side asked for; 2 the other */
  readonly side: Uint8Array
  /** mm; distances beyond are Infinity */
  readonly reach: number
}

/** Offsets nearer to the skin than this many voxels would lie among the seeds. */
export const BAND_FROM = 2

/**
 * @param depth mm, signed: the band reaches from the skin to this offset and two voxels on; |depth| ≥ 2 voxels
 * @throws RangeError when the offset is too near to the skin or the grid would be absurd
 */
export function skinBand(tree: Tree, box: Box, voxel: number, depth: number, report: Report = silent): Band {
  if (Math.abs(depth) < BAND_FROM * voxel) throw new RangeError('The offset is too near to the surface for this voxel.')
  const reach = Math.abs(depth) + 2 * voxel
  const field = emptyField(box, voxel)
  field.places = chooseBlocks(field, tree, depth < 0 ? -reach : 0, depth > 0 ? reach : 0)
  report(0.2)
  const grid = withNeighbours(field)
  const slots = (field.places.length / 3) * B3
  const distance = new Float32Array(slots).fill(Infinity)
  const { seedOf, points, normals } = scatterPoints(tree.mesh, grid, distance)
  report(0.4)
  const side = sides(grid, seedOf, tree, depth < 0)
  report(0.55)
  const blocked = side.map((s) => (s === 2 ? 1 : 0))
  const spread = { distance, seedOf, points, normals }
  propagate(grid, spread, reach, blocked)
  report(0.95)
  toTangentPlanes(grid, spread)
  return { grid, ...spread, side, reach }
}

function sides(grid: Grid, seedOf: Int32Array, tree: Tree, inner: boolean): Uint8Array {
  const { near, places, origin, voxel } = grid
  const side = new Uint8Array(seedOf.length)
  const open = new Queue()
  for (let first = 0; first < side.length; first++) {
    if (side[first] !== 0 || seedOf[first]! >= 0) continue
    const b = (first >> 9) * 3
    const inside = isInside(
      tree,
      origin[0] + (places[b]! * B + (first & 7)) * voxel,
      origin[1] + (places[b + 1]! * B + ((first >> 3) & 7)) * voxel,
      origin[2] + (places[b + 2]! * B + ((first >> 6) & 7)) * voxel,
    )
    const mark = inside === inner ? 1 : 2
    side[first] = mark
    open.push(first)
    while (open.length > 0) {
      const s = open.items[--open.length]!
      for (let k = 0; k < 6; k++) {
        const step = k & 1 ? 1 : -1
        const n = beside(near, s, k < 2 ? step : 0, k >> 1 === 1 ? step : 0, k > 3 ? step : 0)
        if (n < 0 || side[n] !== 0 || seedOf[n]! >= 0) continue
        side[n] = mark
        open.push(n)
      }
    }
  }
  return side
}

/**
 * The field whose zero is the offset by `depth` mm; its sign says inward or outward, as the band's. Seeded points count
 * as on the band's side of the skin: those that are not are two voxels from the zero, too far to move it.
 */
export function offsetField(band: Band, depth: number): SparseField {
  const { side, distance, reach } = band
  const away = Math.sign(depth)
  return fieldOf(band.grid, (s) => (side[s] === 2 ? 0 : away * Math.min(distance[s]!, reach)) - depth)
}

/**
 * Distances back from the offset at `deep` mm below the skin: `core` marks what lies deeper, the others hold their
 * distance to it, up to `reach`.
 *
 * The offset's own surface is never meshed. A grid point just inside it, stepped back along its own nearest-point
 * line, gives a point exactly on it and nowhere nearer to the skin; these points are the seeds of a second spread.
 */
export function backFrom(band: Band, deep: number, reach: number): NearestSeeds & { readonly core: Uint8Array } {
  const { grid, distance, seedOf, points, normals: skin, side } = band
  const { voxel, origin, places } = grid
  const seed2 = new Int32Array(distance.length).fill(-1),
    distance2 = new Float32Array(distance.length).fill(Infinity)
  const found: number[] = [],
    normals: number[] = []
  const core = new Uint8Array(distance.length)
  for (let s = 0; s < core.length; s++) {
    if (side[s] !== 1 || distance[s]! < deep) continue
    core[s] = 1
    const below = distance[s]! - deep
    if (below > 1.75 * voxel) continue
    const b = (s >> 9) * 3,
      q = seedOf[s]! * 3
    const x = origin[0] + (places[b]! * B + (s & 7)) * voxel,
      y = origin[1] + (places[b + 1]! * B + ((s >> 3) & 7)) * voxel,
      z = origin[2] + (places[b + 2]! * B + ((s >> 6) & 7)) * voxel
    // The distance grows along the skin's normal where the nearest point is on a face, along the line from it else.
    let nx = x - points[q]!,
      ny = y - points[q + 1]!,
      nz = z - points[q + 2]!
    const l = Math.sqrt(nx * nx + ny * ny + nz * nz)
    if (l > distance[s]! * 1.000001) {
      const away = nx * skin[q]! + ny * skin[q + 1]! + nz * skin[q + 2]! < 0 ? -1 : 1
      nx = away * skin[q]!
      ny = away * skin[q + 1]!
      nz = away * skin[q + 2]!
    } else {
      nx /= l
      ny /= l
      nz /= l
    }
    seed2[s] = found.length / 3
    distance2[s] = below
    found.push(x - below * nx, y - below * ny, z - below * nz)
    normals.push(nx, ny, nz)
  }
  const spread: NearestSeeds = {
    distance: distance2,
    seedOf: seed2,
    points: new Float32Array(found),
    normals: new Float32Array(normals),
  }
  propagate(grid, spread, reach, core)
  toTangentPlanes(grid, spread)
  return { ...spread, core }
}

/**
 * The field of the body eroded by `depth` and then opened by a ball: solid is what balls of radius `opening` reach
 * whose centres lie `depth` + `opening` or more below the skin. The band must reach that deep.
 */
export function openedField(band: Band, depth: number, opening: number): SparseField {
  const most = opening + 2 * band.grid.voxel
  const { core, distance } = backFrom(band, depth + opening, most)
  return fieldOf(
    band.grid,
    (s) => (core[s] === 1 ? -Math.min(distance[s]!, band.grid.voxel) : Math.min(distance[s]!, most)) - opening,
  )
}

/** Keeps the blocks in or beside which the value changes sign; of the others the table keeps the sign. */
function fieldOf(grid: Grid, value: (slot: number) => number): SparseField {
  const { near, places, size, origin, voxel } = grid
  const table = grid.table.slice()
  const blocks = places.length / 3
  const values = new Float32Array(blocks * B3)
  /** bit 0: has solid, bit 1: has empty */
  const has = new Uint8Array(blocks)
  for (let s = 0; s < values.length; s++) {
    values[s] = value(s)
    has[s >> 9]! |= values[s]! < 0 ? 1 : 2
  }
  const kept: number[] = []
  for (let b = 0; b < blocks; b++) {
    let around = 0
    for (let k = 0; k < 27; k++) {
      const n = near[b * 27 + k]!
      around |= n < 0 ? unstored(b, k) : has[n]!
    }
    const at = (places[b * 3 + 2]! * size[1] + places[b * 3 + 1]!) * size[0] + places[b * 3]!
    if (around === 3) {
      table[at] = kept.length
      kept.push(b)
    } else table[at] = has[b] === 1 ? INSIDE : OUTSIDE
  }
  const data = new Float32Array(kept.length * B3),
    keptPlaces = new Int32Array(kept.length * 3)
  for (let i = 0; i < kept.length; i++) {
    const b = kept[i]!
    data.set(values.subarray(b * B3, b * B3 + B3), i * B3)
    keptPlaces.set(places.subarray(b * 3, b * 3 + 3), i * 3)
  }
  return { origin, voxel, size, table, places: keptPlaces, data }

  function unstored(b: number, k: number): number {
    const x = places[b * 3]! + (k % 3) - 1,
      y = places[b * 3 + 1]! + (((k / 3) | 0) % 3) - 1,
      z = places[b * 3 + 2]! + ((k / 9) | 0) - 1
    if (x < 0 || y < 0 || z < 0 || x >= size[0] || y >= size[1] || z >= size[2]) return 2
    return grid.table[(z * size[1] + y) * size[0] + x] === INSIDE ? 1 : 2
  }
}
