import type { Mesh } from '../mesh/mesh'
import { vertexNeighbours } from '../mesh/smooth'

/** Edge weights of a mesh, and the area that each vertex stands for. */
export interface Laplacian {
  readonly starts: Uint32Array
  /** neighbours of each vertex */
  readonly near: Uint32Array
  /** ½(cot α + cot β) of each of those edges, not less than a little: slivers must not pull backward */
  readonly weights: Float64Array
  /** mm², a third of the faces round each vertex */
  readonly areas: Float64Array
}

const LEAST = 1e-3

/** Cotangent weights (Pinkall and Polthier 1993). */
export function laplacian({ positions: p, triangles: t }: Mesh): Laplacian {
  const n = p.length / 3
  const { starts, near } = vertexNeighbours(t, n)
  const weights = new Float64Array(near.length),
    areas = new Float64Array(n)
  const slot = (i: number, j: number): number => {
    for (let k = starts[i]!; k < starts[i + 1]!; k++) if (near[k] === j) return k
    return -1
  }
  for (let f = 0; f < t.length; f += 3)
    for (let k = 0; k < 3; k++) {
      const i = t[f + k]!,
        j = t[f + ((k + 1) % 3)]!,
        o = t[f + ((k + 2) % 3)]!
      const ux = p[i * 3]! - p[o * 3]!,
        uy = p[i * 3 + 1]! - p[o * 3 + 1]!,
        uz = p[i * 3 + 2]! - p[o * 3 + 2]!
      const vx = p[j * 3]! - p[o * 3]!,
        vy = p[j * 3 + 1]! - p[o * 3 + 1]!,
        vz = p[j * 3 + 2]! - p[o * 3 + 2]!
      const cross = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx)
      const half = cross > 1e-12 ? (ux * vx + uy * vy + uz * vz) / (2 * cross) : 0
      weights[slot(i, j)]! += half
      weights[slot(j, i)]! += half
      areas[i]! += cross / 6
    }
  for (let k = 0; k < weights.length; k++) weights[k] = Math.max(LEAST, Math.min(1 / LEAST, weights[k]!))
  return { starts, near, weights, areas }
}
