import { MinHeap } from '../../math/heap'
import type { Mesh } from '../../mesh/mesh'
import { edgeEnd, edgeStart, topology } from '../../mesh/topology'
import { UnionFind } from '../../math/unionFind'

export interface CutOpen {
  mesh: Mesh
  /** vertex of the mesh before, per vertex */
  from: Uint32Array
}

/**
 * The mesh with some of its edges opened: what meets only along them, or only at a corner, gets vertices of its own.
 *
 * @param cut 1 per half-edge to be opened, on both of its sides
 */
export function cutAlong(mesh: Mesh, cut: Uint8Array, twin = topology(mesh).twin): CutOpen {
  const t = mesh.triangles
  const next = (h: number): number => (h % 3 === 2 ? h - 2 : h + 1)
  // A corner is the half-edge that leaves it; across an edge that stays, the corners of both faces are one.
  const sets = setsOf(t.length)
  for (let h = 0; h < t.length; h++) {
    const g = twin[h]!
    if (g < 0 || g < h || cut[h] === 1) continue
    sets.join(h, next(g))
    sets.join(next(h), g)
  }
  const numberOf = new Map<number, number>()
  const from: number[] = []
  const triangles = new Uint32Array(t.length)
  for (let h = 0; h < t.length; h++) {
    const root = sets.root(h)
    let v = numberOf.get(root)
    if (v === undefined) {
      numberOf.set(root, (v = from.length))
      from.push(t[h]!)
    }
    triangles[h] = v
  }
  const positions = new Float32Array(from.length * 3)
  from.forEach((v, i) => positions.set(mesh.positions.subarray(3 * v, 3 * v + 3), 3 * i))
  return { mesh: { positions, triangles }, from: new Uint32Array(from) }
}

function setsOf(count: number): UnionFind {
  const sets = new UnionFind()
  for (let i = 0; i < count; i++) sets.add()
  return sets
}

export interface Paths {
  /** mm along edges to the nearest root; Infinity where there is no way */
  far: Float64Array
  /** half-edge by which one goes on toward the root, starting or ending here; −1 at a root */
  by: Int32Array
}

/** Shortest ways along edges from every vertex to the roots (Dijkstra 1959). */
export function pathsTo(mesh: Mesh, roots: Iterable<number>): Paths {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const starts = new Uint32Array(n + 1)
  for (let h = 0; h < t.length; h++) {
    starts[edgeStart(t, h) + 1]!++
    starts[edgeEnd(t, h) + 1]!++
  }
  for (let v = 0; v < n; v++) starts[v + 1]! += starts[v]!
  const fill = starts.slice(),
    edges = new Uint32Array(starts[n]!)
  for (let h = 0; h < t.length; h++) {
    edges[fill[edgeStart(t, h)]!++] = h
    edges[fill[edgeEnd(t, h)]!++] = h
  }
  const far = new Float64Array(n).fill(Infinity),
    by = new Int32Array(n).fill(-1)
  const heap = new MinHeap()
  for (const v of roots) {
    far[v] = 0
    heap.push(v, 0)
  }
  while (heap.size > 0) {
    const v = heap.pop()
    for (let e = starts[v]!; e < starts[v + 1]!; e++) {
      const h = edges[e]!
      const w = edgeStart(t, h) === v ? edgeEnd(t, h) : edgeStart(t, h)
      const d = far[v]! + edgeLength(p, v, w)
      if (d >= far[w]!) continue
      far[w] = d
      by[w] = h
      heap.push(w, d)
    }
  }
  return { far, by }
}
const edgeLength = (p: Float32Array, v: number, w: number): number =>
  Math.hypot(p[3 * v]! - p[3 * w]!, p[3 * v + 1]! - p[3 * w + 1]!, p[3 * v + 2]! - p[3 * w + 2]!)

/** Marks the edges of the way from a vertex to its root. */
export function markPath(mesh: Mesh, twin: Int32Array, paths: Paths, v: number, cut: Uint8Array): void {
  const t = mesh.triangles
  for (let h = paths.by[v]!; h >= 0; h = paths.by[v]!) {
    cut[h] = 1
    if (twin[h]! >= 0) cut[twin[h]!] = 1
    v = edgeStart(t, h) === v ? edgeEnd(t, h) : edgeStart(t, h)
  }
}

export const openVertices = (mesh: Mesh, twin: Int32Array): Set<number> => {
  const out = new Set<number>()
  for (let h = 0; h < twin.length; h++)
    if (twin[h]! < 0) out.add(edgeStart(mesh.triangles, h)).add(edgeEnd(mesh.triangles, h))
  return out
}

/**
 * Edges to be opened so that a connected skin becomes a disc: the shortest that go from edge to edge, or round what is
 * round. A tree of shortest ways to the rim and a tree of faces across the other edges leave over one edge for each
 * hole and two for each handle; each is opened with its ways to the rim (after Erickson and Whittlesey 2005). What is
 * closed and has no handle is slit from one end to the other.
 */
export function discCuts(mesh: Mesh): Uint8Array {
  const t = mesh.triangles
  const { twin } = topology(mesh)
  const cut = new Uint8Array(t.length)
  const rim = openVertices(mesh, twin)
  let roots: Iterable<number> = rim
  if (rim.size === 0) roots = [farthest(pathsTo(mesh, [t[0]!]).far)]
  const paths = pathsTo(mesh, roots)
  const inTree = new Uint8Array(t.length)
  for (const h of paths.by)
    if (h >= 0) {
      inTree[h] = 1
      if (twin[h]! >= 0) inTree[twin[h]!] = 1
    }
  const across: number[] = []
  for (let h = 0; h < t.length; h++) if (twin[h]! > h && inTree[h] === 0) across.push(h)
  const round = (h: number): number =>
    paths.far[edgeStart(t, h)]! + paths.far[edgeEnd(t, h)]! + edgeLength(mesh.positions, edgeStart(t, h), edgeEnd(t, h))
  across.sort((a, b) => round(b) - round(a))
  const faces = setsOf(t.length / 3)
  let left = 0
  for (const h of across) {
    const a = Math.floor(h / 3),
      b = Math.floor(twin[h]! / 3)
    if (faces.join(a, b)) continue
    left++
    cut[h] = cut[twin[h]!] = 1
    markPath(mesh, twin, paths, edgeStart(t, h), cut)
    markPath(mesh, twin, paths, edgeEnd(t, h), cut)
  }
  if (rim.size === 0 && left === 0) markPath(mesh, twin, paths, farthest(paths.far), cut)
  return cut
}

export function farthest(far: Float64Array): number {
  let best = -1,
    at = 0
  for (let v = 0; v < far.length; v++)
    if (far[v]! > best && far[v]! < Infinity) {
      best = far[v]!
      at = v
    }
  return at
}
