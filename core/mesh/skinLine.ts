import { closest, closestPoint } from './closest'
import { MinHeap } from '../math/heap'
import type { Mesh } from './mesh'
import { vertexNeighbours } from './smooth'
import type { Vector3 } from '../math/vectors'
import { treeOf } from './tree'

/** Points with which a path is first drawn straight; then again with twice as many, until there are enough. */
const FEWEST = 9
/** Rounds at each of those lengths: with few points the whole is drawn straight, with many its fine zigzag. */
const ROUNDS = 30
/** Points of a whole line. */
const MAX_SAMPLES = 600

/**
 * A line on the skin through pressed places, each stretch as straight as the skin allows: the shortest way along edges
 * (A*), then drawn taut by curve shortening from coarse to fine, each round a step toward the neighbours' middle and back onto
 * the skin. Its resting state is a geodesic (Gage 1990, for surfaces). The pressed places stay where they are.
 *
 * @param closed also from the last place back to the first
 * @returns points, in order; the places themselves where no way along the skin joins two of them
 */
export function skinLine(mesh: Mesh, places: readonly Vector3[], closed: boolean): Vector3[] {
  if (places.length < 2) return [...places]
  const tree = treeOf(mesh),
    hit = closest()
  const { starts, near } = vertexNeighbours(mesh.triangles, mesh.positions.length / 3)
  const onSkin = (p: Vector3): [number, number, number] => {
    closestPoint(tree, p[0], p[1], p[2], hit)
    return [hit.x, hit.y, hit.z]
  }
  const corner = (p: Vector3): number => {
    closestPoint(tree, p[0], p[1], p[2], hit)
    let best = mesh.triangles[hit.face * 3]!
    for (let k = 1; k < 3; k++) {
      const v = mesh.triangles[hit.face * 3 + k]!
      if (distance(mesh, v, p) < distance(mesh, best, p)) best = v
    }
    return best
  }
  const stretches = closed && places.length > 2 ? places.length : places.length - 1
  const each = Math.max(4, Math.floor(MAX_SAMPLES / stretches))
  const out: Vector3[] = []
  for (let i = 0; i < stretches; i++) {
    const a = places[i]!,
      b = places[(i + 1) % places.length]!
    const way = shortestWay(mesh, starts, near, corner(a), corner(b))
    let path = even([a, ...(way ?? []).map((v) => at(mesh, v)), b], way ? FEWEST : 2)
    while (way) {
      for (let round = 0; round < ROUNDS; round++)
        // Odd and even points in turn: each moves against neighbours that stand still.
        for (const odd of [1, 2])
          for (let k = odd; k + 1 < path.length; k += 2)
            path[k] = onSkin([0, 1, 2].map((c) => (path[k - 1]![c]! + path[k + 1]![c]!) / 2) as never)
      if (path.length >= each) break
      path = even(path, 2 * path.length - 1)
    }
    out.push(...even(path, path.length).slice(0, -1).map(onSkin))
  }
  return closed && places.length > 2 ? out : [...out, onSkin(places.at(-1)!)]
}

const at = ({ positions: p }: Mesh, v: number): [number, number, number] => [p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!]
const distance = ({ positions: p }: Mesh, v: number, to: Vector3): number =>
  Math.hypot(p[v * 3]! - to[0], p[v * 3 + 1]! - to[1], p[v * 3 + 2]! - to[2])

/** A* along edges; null when the two lie on different shells. */
function shortestWay(mesh: Mesh, starts: Uint32Array, near: Uint32Array, from: number, to: number): number[] | null {
  const n = mesh.positions.length / 3
  const cost = new Float64Array(n).fill(Infinity),
    before = new Int32Array(n).fill(-1)
  const goal = at(mesh, to)
  const heap = new MinHeap()
  cost[from] = 0
  heap.push(from, distance(mesh, from, goal))
  const done = new Uint8Array(n)
  while (heap.size > 0) {
    const v = heap.pop()
    if (done[v]) continue
    done[v] = 1
    if (v === to) break
    for (let k = starts[v]!; k < starts[v + 1]!; k++) {
      const w = near[k]!
      const c = cost[v]! + distance(mesh, w, at(mesh, v))
      if (c >= cost[w]!) continue
      cost[w] = c
      before[w] = v
      heap.push(w, c + distance(mesh, w, goal))
    }
  }
  if (!done[to]) return null
  const way: number[] = []
  for (let v = to; v >= 0; v = before[v]!) way.unshift(v)
  return way
}

/** The same path in points at even distances. */
function even(path: readonly Vector3[], count: number): Vector3[] {
  const lengths = path.slice(1).map((p, i) => Math.hypot(...[0, 1, 2].map((k) => p[k]! - path[i]![k]!)))
  const total = lengths.reduce((a, b) => a + b, 0)
  const out: Vector3[] = [path[0]!]
  let i = 0,
    passed = 0
  for (let s = 1; s < count - 1; s++) {
    const want = (total * s) / (count - 1)
    while (i < lengths.length - 1 && passed + lengths[i]! < want) passed += lengths[i++]!
    const t = lengths[i]! > 0 ? (want - passed) / lengths[i]! : 0
    out.push([0, 1, 2].map((k) => path[i]![k]! + t * (path[i + 1]![k]! - path[i]![k]!)) as never)
  }
  out.push(path.at(-1)!)
  return out
}
