import type { Mesh } from './mesh'

/**
 * Edge adjacency of a mesh that may be dirty.
 *
 * `twin[h]` for half-edge h = 3·face + corner (from corner to the next one) is the half-edge that runs the
 * other way along the same edge, when exactly two faces meet there in opposite directions; otherwise
 * `BOUNDARY` (one face), `NONMANIFOLD` (more than two) or `DISORIENTED` (two faces, same direction).
 */
export interface Topology {
  twin: Int32Array
  /** the other half-edge where exactly two faces meet, whichever way it runs; −1 elsewhere */
  mate: Int32Array
  openEdges: number
  nonManifoldEdges: number
  disorientedEdges: number
}
export const BOUNDARY = -1
export const NONMANIFOLD = -2
export const DISORIENTED = -3

export const edgeStart = (t: Uint32Array, h: number): number => t[h]!
export const edgeEnd = (t: Uint32Array, h: number): number => t[h % 3 === 2 ? h - 2 : h + 1]!

/** Pairs half-edges by bucketing on their lower vertex: linear time, no hashing, no objects. */
export function topology(mesh: Mesh): Topology {
  const t = mesh.triangles
  const vertices = mesh.positions.length / 3
  const start = new Uint32Array(vertices + 1)
  for (let h = 0; h < t.length; h++) start[Math.min(edgeStart(t, h), edgeEnd(t, h)) + 1]!++
  for (let v = 0; v < vertices; v++) start[v + 1]! += start[v]!
  const fill = start.slice()
  const bucket = new Uint32Array(t.length)
  // The higher vertex of each bucketed edge, shifted, and whether the half-edge starts there: compared side by side.
  const far = new Uint32Array(t.length)
  for (let h = 0; h < t.length; h++) {
    const a = edgeStart(t, h),
      b = edgeEnd(t, h)
    const i = a < b ? fill[a]!++ : fill[b]!++
    bucket[i] = h
    far[i] = a < b ? b * 2 : a * 2 + 1
  }
  const twin = new Int32Array(t.length).fill(BOUNDARY)
  const mates = new Int32Array(t.length).fill(-1)
  let openEdges = 0,
    nonManifoldEdges = 0,
    disorientedEdges = 0
  const done = new Uint8Array(t.length)
  for (let v = 0; v < vertices; v++) {
    const end = start[v + 1]!
    for (let i = start[v]!; i < end; i++) {
      if (done[i]) continue
      const other = far[i]! >>> 1
      let uses = 1,
        at = -1
      for (let j = i + 1; j < end; j++)
        if (far[j]! >>> 1 === other) {
          uses++
          at = j
        }
      if (uses === 1) {
        openEdges++
        continue
      }
      const h = bucket[i]!
      if (uses === 2) {
        const mate = bucket[at]!
        done[at] = 1
        mates[h] = mate
        mates[mate] = h
        const opposite = far[at] !== far[i]
        twin[h] = opposite ? mate : DISORIENTED
        twin[mate] = opposite ? h : DISORIENTED
        if (!opposite) disorientedEdges++
        continue
      }
      nonManifoldEdges++
      for (let j = i; j < end; j++)
        if (far[j]! >>> 1 === other) {
          twin[bucket[j]!] = NONMANIFOLD
          done[j] = 1
        }
    }
  }
  return { twin, mate: mates, openEdges, nonManifoldEdges, disorientedEdges }
}

/** Whether every edge has exactly two faces that run along it in opposite directions. */
export function isClosed(mesh: Mesh): boolean {
  const { openEdges, nonManifoldEdges, disorientedEdges } = topology(mesh)
  return openEdges + nonManifoldEdges + disorientedEdges === 0
}

/** Shell number of each face; faces that share a vertex belong together. */
export function shells(mesh: Mesh): { shellOf: Uint32Array; count: number } {
  const t = mesh.triangles
  const parent = new Int32Array(mesh.positions.length / 3)
  for (let i = 0; i < parent.length; i++) parent[i] = i
  const find = (v: number): number => {
    while (parent[v] !== v) {
      parent[v] = parent[parent[v]!]!
      v = parent[v]!
    }
    return v
  }
  for (let i = 0; i < t.length; i += 3) {
    const a = find(t[i]!),
      b = find(t[i + 1]!)
    if (a !== b) parent[b] = a
    const c = find(t[i + 2]!)
    if (a !== c) parent[c] = a
  }
  const label = new Int32Array(parent.length).fill(-1)
  const shellOf = new Uint32Array(t.length / 3)
  let count = 0
  for (let f = 0; f < shellOf.length; f++) {
    const root = find(t[f * 3]!)
    if (label[root] === -1) label[root] = count++
    shellOf[f] = label[root]!
  }
  return { shellOf, count }
}

/**
 * Closed chains of open half-edges, as vertex indices in the direction of the hole's rim (against the faces'
 * own direction is the direction in which a patch must run). Chains that branch are cut at the branch.
 */
export function boundaryLoops(mesh: Mesh, twin: Int32Array): number[][] {
  const t = mesh.triangles
  const next = new Map<number, number[]>()
  for (let h = 0; h < t.length; h++) {
    if (twin[h] !== BOUNDARY) continue
    const a = edgeStart(t, h)
    const list = next.get(a)
    if (list) list.push(edgeEnd(t, h))
    else next.set(a, [edgeEnd(t, h)])
  }
  const loops: number[][] = []
  for (const [first, ends] of next) {
    while (ends.length > 0) {
      const chain = [first]
      const at = new Map([[first, 0]])
      let v = ends.pop()!
      for (;;) {
        const seen = at.get(v)
        if (seen !== undefined) {
          // A branch vertex closes the part of the chain behind it; what led up to it stays in hand.
          loops.push(chain.splice(seen))
          if (chain.length === 0) break
          for (const w of [...at.keys()]) if (at.get(w)! >= seen) at.delete(w)
        }
        at.set(v, chain.length)
        chain.push(v)
        const onward: number | undefined = next.get(v)?.pop()
        if (onward === undefined) break
        v = onward
      }
    }
  }
  return loops.filter((l) => l.length >= 3)
}
