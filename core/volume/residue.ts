import { bounds, type Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { part, silent, type Report } from '../answer'
import { backFrom, skinBand } from './band'
import { BallRoller } from './rollBall'

/** of the radius: less than this is the grid's own error on a smooth skin */
const TOUCHING = 0.02

/**
 * How far a ball that rolls over the skin stays off each vertex, mm: 0 where it touches, more in what is narrower
 * than the ball. From outside (radius > 0) that is the residue of closing the body, from inside (radius < 0) of
 * opening it: the distance from the vertex to the offset by the radius, less the radius.
 *
 * @param mesh closed
 * A grid finds where the ball lies; where it stays off, the ball itself is rolled the rest of the way.
 *
 * @param voxel mm, less than half the radius; on a smooth skin the answer is good to about a twentieth of it
 * @returns one value a vertex, 0 to |radius|
 */
export function ballResidue(mesh: Mesh, radius: number, voxel: number, report: Report = silent): Float32Array {
  const box = bounds(mesh),
    r = Math.abs(radius),
    grow = Math.max(0, radius)
  const around = {
    min: box.min.map((v) => v - grow) as [number, number, number],
    max: box.max.map((v) => v + grow) as [number, number, number],
  }
  const band = skinBand(treeOf(mesh), around, voxel, radius, part(report, 0, 0.7))
  const { distance, core, seedOf, points } = backFrom(band, r, 2 * r + 2 * voxel)
  report(0.8)
  const roller = new BallRoller(treeOf(mesh), r, radius < 0)
  const { positions: p } = mesh
  const { origin, table, size } = band.grid
  const out = new Float32Array(p.length / 3)
  for (let v = 0; v < out.length; v++) {
    if (v % 4096 === 0) report(0.8 + (0.2 * v) / out.length)
    const gx = (p[v * 3]! - origin[0]) / voxel,
      gy = (p[v * 3 + 1]! - origin[1]) / voxel,
      gz = (p[v * 3 + 2]! - origin[2]) / voxel
    const x = Math.floor(gx),
      y = Math.floor(gy),
      z = Math.floor(gz)
    let sum = 0,
      weight = 0,
      best = Infinity,
      from = -1
    for (let c = 0; c < 8; c++) {
      const ix = x + (c & 1),
        iy = y + ((c >> 1) & 1),
        iz = z + (c >> 2)
      const block = table[((iz >> 3) * size[1] + (iy >> 3)) * size[0] + (ix >> 3)]!
      if (block < 0) continue
      const s = (block << 9) | ((iz & 7) << 6) | ((iy & 7) << 3) | (ix & 7)
      if (core[s] === 1 || distance[s] === Infinity) continue
      const w = (1 - Math.abs(gx - ix)) * (1 - Math.abs(gy - iy)) * (1 - Math.abs(gz - iz))
      sum += w * distance[s]!
      weight += w
      if (distance[s]! < best) {
        best = distance[s]!
        from = seedOf[s]! * 3
      }
    }
    // What no ball comes near at all is as deep as it can be.
    let off = weight > 1e-6 ? Math.min(r, Math.max(0, sum / weight - r)) : r
    if (off > TOUCHING * r && from >= 0)
      off = Math.min(
        off,
        roller.reach([p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!], [points[from]!, points[from + 1]!, points[from + 2]!]) -
          r,
      )
    out[v] = Math.max(0, off)
  }
  return out
}
