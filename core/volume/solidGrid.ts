import { bounds, type Box, type Mesh } from '../mesh/mesh'
import { rayAll } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import { Parabolas } from './parabolas'

/** Which cells of a regular grid lie in a solid; x runs fastest. Cell i spans from origin + i·voxel to the next. */
export interface SolidGrid {
  solid: Uint8Array
  size: readonly [number, number, number]
  origin: readonly [number, number, number]
  voxel: number
}

/** Cells on each side that stay free, so that the outside is connected. */
const MARGIN = 3

/** The union of some bodies: one ray up each column tells of all its cells by how often it has entered and left. */
export function solidGrid(meshes: readonly Mesh[], voxel: number): SolidGrid {
  const box: Box = { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] }
  for (const m of meshes) {
    const b = bounds(m)
    for (let k = 0; k < 3; k++) {
      box.min[k] = Math.min(box.min[k]!, b.min[k]!)
      box.max[k] = Math.max(box.max[k]!, b.max[k]!)
    }
  }
  const origin = box.min.map((v) => v - MARGIN * voxel) as [number, number, number]
  const size = [0, 1, 2].map((k) => Math.ceil((box.max[k]! - box.min[k]!) / voxel) + 2 * MARGIN) as [
    number,
    number,
    number,
  ]
  const [sx, sy, sz] = size
  const solid = new Uint8Array(sx * sy * sz)
  for (const mesh of meshes) {
    const tree = treeOf(mesh)
    for (let j = 0; j < sy; j++)
      for (let i = 0; i < sx; i++) {
        const hits = rayAll(tree, origin[0] + (i + 0.5) * voxel, origin[1] + (j + 0.5) * voxel, origin[2], 0, 0, 1)
        let wind = 0,
          next = 0
        for (let k = 0; k < sz && next <= hits.length; k++) {
          const z = (k + 0.5) * voxel
          while (next < hits.length && hits[next]!.t <= z) wind += hits[next++]!.leaving ? -1 : 1
          if (wind > 0) solid[(k * sy + j) * sx + i] = 1
        }
      }
  }
  return { solid, size, origin, voxel }
}

/** Gaps up to two cells wide between bodies are closed: grown by a cell all round, and shrunk again. */
export function closedGaps(grid: SolidGrid): SolidGrid {
  const [sx, sy] = grid.size
  const steps = [1, sx, sx * sy]
  const spread = (from: Uint8Array, value: 0 | 1): Uint8Array => {
    let now = from
    for (const s of steps) {
      const next = now.slice()
      for (let c = s; c + s < now.length; c++) if (now[c - s] === value || now[c + s] === value) next[c] = value
      now = next
    }
    return now
  }
  return { ...grid, solid: spread(spread(grid.solid, 1), 0) }
}

/**
 * mm from each solid cell's middle to the nearest empty cell's, by the exact distance transform, one axis after the other;
 * 0 in empty cells.
 */
export function depthInside({ solid, size, voxel }: SolidGrid): Float32Array {
  const [sx, sy, sz] = size
  const far = (sx + sy + sz) ** 2
  const out = new Float32Array(solid.length)
  for (let c = 0; c < out.length; c++) if (solid[c]) out[c] = far
  const lines = new Parabolas(Math.max(sx, sy, sz))
  for (let z = 0; z < sz; z++) for (let y = 0; y < sy; y++) lines.pass(out, sx, (z * sy + y) * sx, 1)
  for (let z = 0; z < sz; z++) for (let x = 0; x < sx; x++) lines.pass(out, sy, z * sy * sx + x, sx)
  for (let y = 0; y < sy; y++) for (let x = 0; x < sx; x++) lines.pass(out, sz, y * sx + x, sx * sy)
  for (let c = 0; c < out.length; c++) out[c] = Math.sqrt(out[c]!) * voxel
  return out
}
