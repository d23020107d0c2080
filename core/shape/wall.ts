import type { Mesh } from '../mesh/mesh'
import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { treeOf } from '../mesh/tree'

export interface WallMeasure {
  /** mm */
  minimum: number
  percentile1: number
  mean: number
  samples: number
  /** where the minimum is, mm */
  thinnest: [number, number, number]
}

/**
 * Distance from the inner skin to the outer one, by exact closest points from area-weighted samples on the
 * inner faces (a low-discrepancy sequence, so repeatable) and from every inner vertex.
 */
export function measureWall(outer: Mesh, inner: Mesh, samples = 20_000): WallMeasure {
  const tree = treeOf(outer)
  const hit = closest()
  const { positions: p, triangles: t } = inner
  const { areas } = faceNormals(inner)
  const total = areas.reduce((a, b) => a + b, 0)
  const distances: number[] = []
  let minimum = Infinity,
    sum = 0
  let thinnest: [number, number, number] = [0, 0, 0]
  const probe = (x: number, y: number, z: number): void => {
    // Samples follow each other closely: the last one's closest point bounds the search for this one's.
    const bound = hit.face < 0 ? Infinity : Math.hypot(x - hit.x, y - hit.y, z - hit.z) * 1.00001 + 1e-5
    const d = closestPoint(tree, x, y, z, hit, bound)
    distances.push(d)
    sum += d
    if (d < minimum) {
      minimum = d
      thinnest = [x, y, z]
    }
  }
  const stride = Math.max(1, Math.ceil(p.length / 3 / samples))
  for (let v = 0; v < p.length; v += 3 * stride) probe(p[v]!, p[v + 1]!, p[v + 2]!)
  let due = 0,
    n = 0
  for (let f = 0; f < areas.length; f++) {
    due += (areas[f]! / total) * samples
    for (; due >= 1; due--) {
      n++
      // R2 sequence (Roberts 2018) folded into the triangle.
      let u = (n * 0.7548776662466927) % 1,
        v = (n * 0.5698402909980532) % 1
      if (u + v > 1) {
        u = 1 - u
        v = 1 - v
      }
      const a = t[f * 3]! * 3,
        b = t[f * 3 + 1]! * 3,
        c = t[f * 3 + 2]! * 3
      probe(
        p[a]! + u * (p[b]! - p[a]!) + v * (p[c]! - p[a]!),
        p[a + 1]! + u * (p[b + 1]! - p[a + 1]!) + v * (p[c + 1]! - p[a + 1]!),
        p[a + 2]! + u * (p[b + 2]! - p[a + 2]!) + v * (p[c + 2]! - p[a + 2]!),
      )
    }
  }
  distances.sort((a, b) => a - b)
  return {
    minimum,
    percentile1: distances[Math.floor(distances.length / 100)]!,
    mean: sum / distances.length,
    samples: distances.length,
    thinnest,
  }
}
