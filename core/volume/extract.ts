import { faceCross, lengthOf } from '../mesh/face'
import type { Mesh } from '../mesh/mesh'
import { silent, type Report } from '../answer'
import { cellSheets, EDGE_CORNERS, SHEETS, type CellSheets } from './cellTables'
import { B, B3, fieldAt, type SparseField } from './field'
import type { DistanceSource } from './source'

const G = B + 1

/**
 * The zero surface of a sparse field as a closed, oriented 2-manifold (every edge has exactly two faces), by
 * dual marching cubes: one vertex per sheet and cell, one quad per crossed grid edge.
 *
 * The one configuration in which that can pinch (an ambiguous face whose strands belong to one sheet in both
 * of its cells) is resolved as by Wenger 2013: both cells flip that face, which splits neither sheet.
 *
 * Vertices start at the mean of their sheet's edge crossings; see `projectOnto`.
 */
export function extractSurface(field: SparseField, report: Report = silent): Mesh {
  const blocks = field.places.length / 3
  const vertexOf = new Int32Array(blocks * B3).fill(-1)
  const flips = new Map<number, CellSheets>()
  const grid = new Float32Array(G * G * G)
  let positions = new Float32Array(3 << 16)
  let vertices = 0
  const corner = new Float64Array(8)

  for (let b = 0; b < blocks; b++) {
    if ((b & 255) === 0) report((0.6 * b) / blocks)
    const x0 = field.places[b * 3]! * B,
      y0 = field.places[b * 3 + 1]! * B,
      z0 = field.places[b * 3 + 2]! * B
    gather(field, b, x0, y0, z0, grid)
    for (let z = 0; z < B; z++)
      for (let y = 0; y < B; y++)
        for (let x = 0; x < B; x++) {
          const g = (z * G + y) * G + x
          const pattern = patternAt(grid, g)
          if (pattern === 0 || pattern === 255) continue
          let sheets = SHEETS[pattern]!
          if (sheets.pinched !== 0) {
            const mask = facesToFlip(field, x0 + x, y0 + y, z0 + z, sheets.pinched)
            if (mask !== 0) {
              sheets = cellSheets(pattern, mask)
              flips.set(b * B3 + (z * B + y) * B + x, sheets)
            }
          }
          vertexOf[b * B3 + (z * B + y) * B + x] = vertices
          if ((vertices + 4) * 3 > positions.length) {
            const more = new Float32Array(positions.length * 2)
            more.set(positions)
            positions = more
          }
          for (let c = 0; c < 8; c++) corner[c] = grid[g + (c & 1) + ((c >> 1) & 1) * G + (c >> 2) * G * G]!
          for (let s = 0; s < sheets.count; s++) {
            let sx = 0,
              sy = 0,
              sz = 0,
              n = 0
            for (let e = 0; e < 12; e++) {
              if (sheets.sheet[e] !== s) continue
              const [p, q] = EDGE_CORNERS[e]!
              // Kept off the grid points: a field that is zero right on one would put its neighbours' vertices in one place.
              const t = Math.min(0.97, Math.max(0.03, corner[p]! / (corner[p]! - corner[q]!)))
              sx += (p & 1) + t * ((q & 1) - (p & 1))
              sy += ((p >> 1) & 1) + t * (((q >> 1) & 1) - ((p >> 1) & 1))
              sz += (p >> 2) + t * ((q >> 2) - (p >> 2))
              n++
            }
            const o = vertices++ * 3
            positions[o] = field.origin[0] + (x0 + x + sx / n) * field.voxel
            positions[o + 1] = field.origin[1] + (y0 + y + sy / n) * field.voxel
            positions[o + 2] = field.origin[2] + (z0 + z + sz / n) * field.voxel
          }
        }
  }

  let triangles = new Uint32Array(6 << 16)
  let used = 0
  const quad = new Int32Array(4)
  const sheetVertex = (x: number, y: number, z: number, edge: number): number => {
    const at = ((z >> 3) * field.size[1] + (y >> 3)) * field.size[0] + (x >> 3)
    const block = x < 0 || y < 0 || z < 0 ? -1 : field.table[at]!
    const cell = block < 0 ? -1 : block * B3 + ((z & 7) * B + (y & 7)) * B + (x & 7)
    const first = cell < 0 ? -1 : vertexOf[cell]!
    if (first < 0) {
      const at = [x, y, z].map((c, k) => (field.origin[k]! + c * field.voxel).toFixed(1)).join(', ')
      throw new Error(`The distance source changes faster than its stated Lipschitz bound near (${at}).`)
    }
    const flipped = flips.get(cell)
    if (flipped) return first + flipped.sheet[edge]!
    return first + SHEETS[patternOf(field, x, y, z)]!.sheet[edge]!
  }
  for (let b = 0; b < blocks; b++) {
    if ((b & 255) === 0) report(0.6 + (0.4 * b) / blocks)
    const x0 = field.places[b * 3]! * B,
      y0 = field.places[b * 3 + 1]! * B,
      z0 = field.places[b * 3 + 2]! * B
    gather(field, b, x0, y0, z0, grid)
    for (let z = 0; z < B; z++)
      for (let y = 0; y < B; y++)
        for (let x = 0; x < B; x++) {
          const g = (z * G + y) * G + x
          const solid = grid[g]! < 0
          for (let axis = 0; axis < 3; axis++) {
            if (grid[g + (axis === 0 ? 1 : axis === 1 ? G : G * G)]! < 0 === solid) continue
            if (used + 6 > triangles.length) {
              const more = new Uint32Array(triangles.length * 2)
              more.set(triangles)
              triangles = more
            }
            // The four cells around the edge, counter-clockwise seen from its far end.
            for (let k = 0; k < 4; k++) {
              const du = k === 1 || k === 2 ? 0 : 1,
                dv = k >= 2 ? 0 : 1
              const c = [x0 + x, y0 + y, z0 + z] as [number, number, number]
              c[(axis + 1) % 3]! -= du
              c[(axis + 2) % 3]! -= dv
              quad[k] = sheetVertex(c[0], c[1], c[2], axis * 4 + du + 2 * dv)
            }
            if (!solid) {
              const s = quad[1]!
              quad[1] = quad[3]!
              quad[3] = s
            }
            used = pushQuad(positions, quad, triangles, used)
          }
        }
  }
  return { positions: positions.slice(0, vertices * 3), triangles: triangles.slice(0, used) }
}

/** Cuts the quad along its shorter diagonal. */
function pushQuad(p: Float32Array, q: Int32Array, t: Uint32Array, at: number): number {
  const d = (i: number, j: number): number =>
    (p[i * 3]! - p[j * 3]!) ** 2 + (p[i * 3 + 1]! - p[j * 3 + 1]!) ** 2 + (p[i * 3 + 2]! - p[j * 3 + 2]!) ** 2
  const s = d(q[0]!, q[2]!) <= d(q[1]!, q[3]!) ? 0 : 1
  t[at] = q[s]!
  t[at + 1] = q[s + 1]!
  t[at + 2] = q[s + 2]!
  t[at + 3] = q[s]!
  t[at + 4] = q[s + 2]!
  t[at + 5] = q[(s + 3) % 4]!
  return at + 6
}

/** Copies a block and the first layer of its upper neighbours into a 9³ scratch grid. */
function gather(f: SparseField, b: number, x0: number, y0: number, z0: number, out: Float32Array): void {
  const base = b * B3
  for (let z = 0; z < B; z++)
    for (let y = 0; y < B; y++) {
      const row = (z * G + y) * G
      for (let x = 0; x < B; x++) out[row + x] = f.data[base + (z * B + y) * B + x]!
      out[row + B] = fieldAt(f, x0 + B, y0 + y, z0 + z)
    }
  for (let z = 0; z < B; z++) for (let x = 0; x < G; x++) out[(z * G + B) * G + x] = fieldAt(f, x0 + x, y0 + B, z0 + z)
  for (let y = 0; y < G; y++) for (let x = 0; x < G; x++) out[(B * G + y) * G + x] = fieldAt(f, x0 + x, y0 + y, z0 + B)
}

function patternAt(g: Float32Array, o: number): number {
  return (
    (g[o]! < 0 ? 1 : 0) |
    (g[o + 1]! < 0 ? 2 : 0) |
    (g[o + G]! < 0 ? 4 : 0) |
    (g[o + G + 1]! < 0 ? 8 : 0) |
    (g[o + G * G]! < 0 ? 16 : 0) |
    (g[o + G * G + 1]! < 0 ? 32 : 0) |
    (g[o + G * G + G]! < 0 ? 64 : 0) |
    (g[o + G * G + G + 1]! < 0 ? 128 : 0)
  )
}

function patternOf(f: SparseField, x: number, y: number, z: number): number {
  let pattern = 0
  for (let c = 0; c < 8; c++) if (fieldAt(f, x + (c & 1), y + ((c >> 1) & 1), z + (c >> 2)) < 0) pattern |= 1 << c
  return pattern
}

/** Of this cell's pinched faces, those that the neighbour across pinches too. Both cells decide alike. */
function facesToFlip(f: SparseField, x: number, y: number, z: number, pinched: number): number {
  let mask = 0
  for (let face = 0; face < 6; face++) {
    if (!((pinched >> face) & 1)) continue
    const step = face & 1 ? 1 : -1,
      axis = face >> 1
    const across = patternOf(f, x + (axis === 0 ? step : 0), y + (axis === 1 ? step : 0), z + (axis === 2 ? step : 0))
    if ((SHEETS[across]!.pinched >> (face ^ 1)) & 1) mask |= 1 << face
  }
  return mask
}

/**
 * Moves each vertex along the gradient onto `source = iso`, by at most half a voxel. In place. Where the field
 * has a crease, neighbours can overtake each other; faces that a move would fold get their corners back.
 */
export function projectOnto(
  mesh: Mesh,
  source: DistanceSource,
  iso: number,
  voxel: number,
  report: Report = silent,
): void {
  const p = mesh.positions
  const before = p.slice()
  const g = new Float64Array(3)
  for (let i = 0; i < p.length; i += 3) {
    if (i % 30000 === 0) report(i / p.length)
    const d = source.sample(p[i]!, p[i + 1]!, p[i + 2]!) - iso
    source.gradient(g)
    const move = Math.max(-voxel / 2, Math.min(voxel / 2, d))
    p[i] = p[i]! - move * g[0]!
    p[i + 1] = p[i + 1]! - move * g[1]!
    p[i + 2] = p[i + 2]! - move * g[2]!
  }
  // Giving corners back can fold a neighbour, so it is repeated; in the limit all is as before.
  for (let round = 0; round < 6 && unfold(mesh.triangles, before, p) > 0; round++);
}

const now = new Float64Array(3),
  then = new Float64Array(3)
/** Returns the corners of faces whose normal turned by more than about 75° or collapsed; how many faces those were. */
function unfold(t: Uint32Array, before: Float32Array, p: Float32Array): number {
  let folded = 0
  for (let f = 0; f < t.length; f += 3) {
    const a = t[f]! * 3,
      b = t[f + 1]! * 3,
      c = t[f + 2]! * 3
    faceCross(p, a, b, c, now)
    faceCross(before, a, b, c, then)
    const dot = now[0]! * then[0]! + now[1]! * then[1]! + now[2]! * then[2]!
    if (lengthOf(now) > 0.02 * lengthOf(then) && dot > 0.25 * lengthOf(now) * lengthOf(then)) continue
    folded++
    for (const i of [a, b, c]) {
      p[i] = before[i]!
      p[i + 1] = before[i + 1]!
      p[i + 2] = before[i + 2]!
    }
  }
  return folded
}
