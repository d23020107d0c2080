import { silent, type Report } from '../answer'
import { ClosestWalk } from '../mesh/closest'
import { faceNormals, vertexNormals } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { vertexNeighbours } from '../mesh/smooth'

/** What takes detail away, mm. */
export interface DetailLimits {
  layerHeight: number
  /** of a pixel */
  pitch: number
  /** primer and paint that will lie in it, and what sanding will take off it */
  film: number
}

/** mm, at the final size: what is finer than this is grain of the mesh, not detail. */
export const LEAST_RELIEF = 0.02
/** mm at the final size: relief is told from form at this radius. */
export const DETAIL_RADIUS = 1.2

/**
 * Relief of the surface about itself smoothed at a radius, from crest to hollow: twice a vertex' distance along its normal
 * from the mean of the skin round it, weighted by a Gaussian of that radius through repeated averaging (n passes of mean
 * edge e spread as far as one of √n·e).
 *
 * @param radius mm, of this mesh
 * @returns mm per vertex
 */
export function reliefOf(mesh: Mesh, radius: number, report: Report = silent): Float32Array {
  const p = mesh.positions
  const n = p.length / 3
  const { starts, near } = vertexNeighbours(mesh.triangles, n)
  let edges = 0,
    count = 0
  for (let v = 0; v < n; v += Math.max(1, n >> 12))
    for (let k = starts[v]!; k < starts[v + 1]!; k++) {
      const w = near[k]!
      edges += Math.hypot(p[v * 3]! - p[w * 3]!, p[v * 3 + 1]! - p[w * 3 + 1]!, p[v * 3 + 2]! - p[w * 3 + 2]!)
      count++
    }
  const edge = edges / Math.max(1, count)
  const passes = Math.min(400, Math.max(1, Math.round((radius / edge) ** 2)))
  let now = new Float32Array(p),
    next = new Float32Array(p.length)
  for (let pass = 0; pass < passes; pass++) {
    report(pass / passes)
    for (let v = 0; v < n; v++) {
      const from = starts[v]!,
        to = starts[v + 1]!
      let x = now[v * 3]!,
        y = now[v * 3 + 1]!,
        z = now[v * 3 + 2]!
      for (let k = from; k < to; k++) {
        const w = near[k]! * 3
        x += now[w]!
        y += now[w + 1]!
        z += now[w + 2]!
      }
      const s = 1 / (to - from + 1)
      next[v * 3] = x * s
      next[v * 3 + 1] = y * s
      next[v * 3 + 2] = z * s
    }
    ;[now, next] = [next, now]
  }
  const normals = vertexNormals(mesh)
  const off = new Float32Array(n)
  for (let v = 0; v < n; v++)
    off[v] =
      (p[v * 3]! - now[v * 3]!) * normals[v * 3]! +
      (p[v * 3 + 1]! - now[v * 3 + 1]!) * normals[v * 3 + 1]! +
      (p[v * 3 + 2]! - now[v * 3 + 2]!) * normals[v * 3 + 2]!
  // Averaging draws all round forms inward alike; only what differs from the skin round it is relief.
  let form = off
  for (let pass = 0; pass < passes; pass++) {
    const calmer = new Float32Array(n)
    for (let v = 0; v < n; v++) {
      let sum = form[v]!
      for (let k = starts[v]!; k < starts[v + 1]!; k++) sum += form[near[k]!]!
      calmer[v] = sum / (starts[v + 1]! - starts[v]! + 1)
    }
    form = calmer
  }
  return off.map((d, v) => 2 * Math.abs(d - form[v]!))
}

/** mm that relief must have to be seen on the print: the step of its slope, and what paint fills. */
const needed = (nz: number, { layerHeight, pitch, film }: DetailLimits): number =>
  Math.max(layerHeight * Math.abs(nz), pitch * Math.sqrt(Math.max(0, 1 - nz * nz))) + film

export interface DetailShare {
  factor: number
  /** share of the sculpt's relief, by area, that is deeper there than layers, pixels and paint take */
  survives: number
}

/**
 * How much of the sculpt's relief survives at each of some sizes (methods.md 9). What counts as relief is what would be
 * seen at the largest of them, so that the shares can be compared: a smaller print never keeps more.
 */
export function detailShares(
  mesh: Mesh,
  factors: readonly number[],
  limits: DetailLimits,
  report: Report = silent,
): DetailShare[] {
  const largest = Math.max(...factors)
  const relief = reliefOf(mesh, DETAIL_RADIUS / largest, report)
  const { areas, normals } = faceNormals(mesh)
  const t = mesh.triangles
  let detailed = 0
  const survives = new Float64Array(factors.length)
  for (let f = 0; f < areas.length; f++) {
    const r = (relief[t[f * 3]!]! + relief[t[f * 3 + 1]!]! + relief[t[f * 3 + 2]!]!) / 3
    if (largest * r < LEAST_RELIEF) continue
    detailed += areas[f]!
    const need = needed(normals[f * 3 + 2]!, limits)
    factors.forEach((k, i) => {
      if (k * r >= need) survives[i]! += areas[f]!
    })
  }
  return factors.map((factor, i) => ({ factor, survives: detailed > 0 ? survives[i]! / detailed : 1 }))
}

/**
 * On a copy of the sculpt for the screen: how many times deeper than needed the relief is, per vertex; under 1 it drowns.
 * NaN where there is none.
 *
 * @param full the mesh that has the relief
 */
export function detailMap(
  copy: Mesh,
  full: Mesh,
  factor: number,
  limits: DetailLimits,
  report: Report = silent,
): Float32Array {
  const relief = reliefOf(full, DETAIL_RADIUS / factor, (f) => report(0.7 * f))
  const normals = vertexNormals(full)
  const walk = new ClosestWalk(treeOf(full)),
    { hit } = walk
  const p = copy.positions
  return Float32Array.from({ length: p.length / 3 }, (_, v) => {
    if ((v & 1023) === 0) report(0.7 + (0.3 * v * 3) / p.length)
    walk.to(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)
    let most = 0,
      nz = 0
    for (let k = 0; k < 3; k++) {
      const w = full.triangles[hit.face * 3 + k]!
      if (relief[w]! < most) continue
      most = relief[w]!
      nz = normals[w * 3 + 2]!
    }
    const r = factor * most
    return r < LEAST_RELIEF ? NaN : r / needed(nz, limits)
  })
}
