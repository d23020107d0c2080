import { bounds, type Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { part, silent, type Report } from '../answer'
import { backFrom, skinBand } from './band'

/**
 * How far a ball that rolls over the skin stays off each vertex, mm: 0 where it touches, more in what is narrower
 * than the ball. From outside (radius > 0) that is the residue of closing the body, from inside (radius < 0) of
 * opening it: the distance from the vertex to the offset by the radius, less the radius.
 *
 * @param mesh closed
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
  const { distance, core } = backFrom(band, r, 2 * r + 2 * voxel)
  report(0.95)
  const { positions: p } = mesh
  const { origin, table, size } = band.grid
  const out = new Float32Array(p.length / 3)
  for (let v = 0; v < out.length; v++) {
    const gx = (p[v * 3]! - origin[0]) / voxel,
      gy = (p[v * 3 + 1]! - origin[1]) / voxel,
      gz = (p[v * 3 + 2]! - origin[2]) / voxel
    const x = Math.floor(gx),
      y = Math.floor(gy),
      z = Math.floor(gz)
    let sum = 0,
      weight = 0
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
    }
    // What no ball comes near at all is as deep as it can be.
    out[v] = weight > 1e-6 ? Math.min(r, Math.max(0, sum / weight - r)) : r
  }
  return out
}
