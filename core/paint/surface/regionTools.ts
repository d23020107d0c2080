import { closest, closestPoint } from '../../mesh/closest'
import { MinHeap } from '../../math/heap'
import { bounds, type Mesh } from '../../mesh/mesh'
import { vertexNeighbours } from '../../mesh/smooth'
import { treeOf } from '../../mesh/tree'

/**
 * Vertices that come to a region, or leave it, when its edge is moved along the skin: by distance over the edges of
 * the mesh (Dijkstra 1959), which is at most a few hundredths longer than along the skin itself.
 *
 * @param by mm outward; below 0 the region shrinks, and what it leaves goes to the nearest other region
 * @returns new labels
 */
export function grown(mesh: Mesh, labels: Uint8Array, region: number, by: number): Uint8Array {
  const { positions: p, triangles } = mesh
  const n = labels.length
  const { starts, near } = vertexNeighbours(triangles, n)
  const distance = new Float64Array(n).fill(Infinity)
  const from = new Uint8Array(n)
  const heap = new MinHeap()
  const spreads = (v: number): boolean => (by > 0 ? labels[v] === region : labels[v] !== region)
  for (let v = 0; v < n; v++) {
    if (!spreads(v)) continue
    distance[v] = 0
    from[v] = labels[v]!
    for (let i = starts[v]!; i < starts[v + 1]!; i++)
      if (!spreads(near[i]!)) {
        heap.push(v, 0)
        break
      }
  }
  const most = Math.abs(by)
  const out = labels.slice()
  while (heap.size > 0) {
    const v = heap.pop()
    for (let i = starts[v]!; i < starts[v + 1]!; i++) {
      const w = near[i]!
      const d =
        distance[v]! + Math.hypot(p[3 * v]! - p[3 * w]!, p[3 * v + 1]! - p[3 * w + 1]!, p[3 * v + 2]! - p[3 * w + 2]!)
      if (d >= distance[w]! || d > most) continue
      distance[w] = d
      from[w] = from[v]!
      out[w] = from[w]!
      heap.push(w, d)
    }
  }
  return out
}

/** A plane through a point, by its unit normal. */
export interface Plane {
  point: readonly [number, number, number]
  normal: readonly [number, number, number]
}
const above = (p: Float32Array, v: number, { point: q, normal: m }: Plane): number =>
  (p[3 * v]! - q[0]) * m[0] + (p[3 * v + 1]! - q[1]) * m[1] + (p[3 * v + 2]! - q[2]) * m[2]

/** The part of a region above a plane becomes another region; the count is of vertices that changed. */
export function split(
  mesh: Mesh,
  labels: Uint8Array,
  region: number,
  plane: Plane,
  into: number,
): { labels: Uint8Array; changed: number } {
  let changed = 0
  const out = labels.map((l, v) => {
    if (l !== region || above(mesh.positions, v, plane) <= 0) return l
    changed++
    return into
  })
  return { labels: out, changed }
}

/** Share of the sculpt's height within which a mirrored place must find skin. */
const NEAR = 0.02

/**
 * Gives a region to what lies opposite of it across a plane. Sculpts are seldom even: of a place whose mirror image
 * finds no skin within 2 % of the height nothing is known, and it stays as it is.
 *
 * @returns new labels, and how many vertices of the other side found no skin opposite
 */
export function mirrored(
  mesh: Mesh,
  labels: Uint8Array,
  region: number,
  plane: Plane,
): { labels: Uint8Array; changed: number; lost: number } {
  const { positions: p, triangles: t } = mesh
  const box = bounds(mesh)
  const reach = NEAR * Math.max(...box.max.map((v, k) => v - box.min[k]!))
  const tree = treeOf(mesh)
  const hit = closest()
  const m = plane.normal
  const out = labels.slice()
  let changed = 0,
    lost = 0
  // The side that has most of the region is the one that is mirrored.
  let side = 0
  for (let v = 0; v < labels.length; v++) if (labels[v] === region) side += Math.sign(above(p, v, plane))
  for (let v = 0; v < labels.length; v++) {
    const h = above(p, v, plane)
    if (h * side >= 0) continue
    closestPoint(tree, p[3 * v]! - 2 * h * m[0], p[3 * v + 1]! - 2 * h * m[1], p[3 * v + 2]! - 2 * h * m[2], hit)
    if (hit.face < 0) continue
    const off = Math.hypot(
      hit.x - (p[3 * v]! - 2 * h * m[0]),
      hit.y - (p[3 * v + 1]! - 2 * h * m[1]),
      hit.z - (p[3 * v + 2]! - 2 * h * m[2]),
    )
    if (off > reach) {
      lost++
      continue
    }
    // Most corners of the face decide.
    let votes = 0
    for (let k = 0; k < 3; k++) if (labels[t[hit.face * 3 + k]!] === region) votes++
    if (votes >= 2 && out[v] !== region) {
      out[v] = region
      changed++
    }
  }
  return { labels: out, changed, lost }
}
