import { MinHeap } from '../../math/heap'
import { vertexNormals } from '../../mesh/measure'
import type { Mesh } from '../../mesh/mesh'
import { vertexNeighbours } from '../../mesh/smooth'
import { UnionFind } from '../../math/unionFind'

export interface Patches {
  /** patch of each vertex */
  of: Uint32Array
  count: number
  /** patches that touch, and how strong the crease between them is, 0 to 1; weakest first */
  borders: { a: number; b: number; crease: number }[]
  /** vertices by patch */
  sizes: Uint32Array
}

/** How much farther a step across a sharp crease is than one on the flat. */
const CREASE_COSTS = 12
/** Rounds in which normals are evened out before folds are read from them: finer folds are texture. */
const EVENED = 2
/** Convex folds part regions too (a hem, the rim of a cap), but less often than concave ones. */
const CONVEX = 0.45
/** Rounds in which each patch begins again from its middle. */
const ROUNDS = 2

/**
 * Skin in small patches whose borders lie in creases: seeds spread evenly (farthest point first), grown all together
 * along the skin, slowly across folds (after Achanta et al. 2012, on a surface). Patches are what a fill takes at once.
 *
 * @param wanted how many, about
 */
export function creasePatches(mesh: Mesh, wanted: number): Patches {
  const n = mesh.positions.length / 3
  const graph = folds(mesh)
  let seeds = spread(mesh, graph, wanted)
  let of = grow(graph, seeds, n)
  for (let round = 0; round < ROUNDS; round++) {
    seeds = middles(mesh, of, seeds.length)
    of = grow(graph, seeds, n)
  }
  const sizes = new Uint32Array(seeds.length)
  for (const p of of) if (p < seeds.length) sizes[p]!++
  return { of, count: seeds.length, sizes, borders: bordersOf(graph, of) }
}

interface Graph {
  starts: Uint32Array
  near: Uint32Array
  /** mm of each edge */
  length: Float32Array
  /** fold across each edge, 0 to 1 */
  fold: Float32Array
}

/**
 * Folds of the skin: the angle between the normals at both ends of an edge over what the edge's own length makes of an
 * even bend, concave in full and convex in part.
 */
function folds(mesh: Mesh): Graph {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const { starts, near } = vertexNeighbours(t, n)
  let normals = vertexNormals(mesh)
  for (let round = 0; round < EVENED; round++) {
    const next = normals.slice()
    for (let v = 0; v < n; v++) {
      for (let e = starts[v]!; e < starts[v + 1]!; e++)
        for (let k = 0; k < 3; k++) next[3 * v + k]! += normals[3 * near[e]! + k]!
      const l = Math.hypot(next[3 * v]!, next[3 * v + 1]!, next[3 * v + 2]!) || 1
      for (let k = 0; k < 3; k++) next[3 * v + k]! /= l
    }
    normals = next
  }
  const length = new Float32Array(near.length),
    fold = new Float32Array(near.length)
  for (let v = 0; v < n; v++)
    for (let e = starts[v]!; e < starts[v + 1]!; e++) {
      const w = near[e]!
      const dx = p[3 * w]! - p[3 * v]!,
        dy = p[3 * w + 1]! - p[3 * v + 1]!,
        dz = p[3 * w + 2]! - p[3 * v + 2]!
      const l = (length[e] = Math.sqrt(dx * dx + dy * dy + dz * dz))
      const ax = normals[3 * v]!,
        ay = normals[3 * v + 1]!,
        az = normals[3 * v + 2]!
      const bx = normals[3 * w]!,
        by = normals[3 * w + 1]!,
        bz = normals[3 * w + 2]!
      // The end's normal leans toward the start where the skin is hollow between them.
      const bend = l > 0 ? ((bx - ax) * dx + (by - ay) * dy + (bz - az) * dz) / l : 0
      const turn = Math.sqrt((bx - ax) ** 2 + (by - ay) ** 2 + (bz - az) ** 2)
      fold[e] = Math.min(1, turn * (bend < 0 ? 1 : CONVEX))
    }
  return { starts, near, length, fold }
}

/** Farthest point first, by straight distance on a coarse sample: even enough, and quick. */
function spread(mesh: Mesh, { starts, near, length }: Graph, wanted: number): number[] {
  const n = mesh.positions.length / 3
  if (n === 0) return []
  const far = new Float64Array(n).fill(Infinity)
  const seeds: number[] = []
  const heap = new MinHeap()
  let next = 0
  while (seeds.length < Math.min(wanted, n)) {
    seeds.push(next)
    far[next] = 0
    heap.push(next, 0)
    while (heap.size > 0) {
      const v = heap.pop()
      for (let e = starts[v]!; e < starts[v + 1]!; e++) {
        const d = far[v]! + length[e]!
        if (d < far[near[e]!]!) {
          far[near[e]!] = d
          heap.push(near[e]!, d)
        }
      }
    }
    let best = -1
    for (let v = 0; v < n; v++)
      if (far[v]! > best) {
        best = far[v]!
        next = v
      }
    if (best <= 0) break
  }
  return seeds
}

function grow({ starts, near, length, fold }: Graph, seeds: readonly number[], n: number): Uint32Array {
  const of = new Uint32Array(n).fill(0xffffffff),
    far = new Float64Array(n).fill(Infinity)
  const heap = new MinHeap()
  seeds.forEach((v, i) => {
    of[v] = i
    far[v] = 0
    heap.push(v, 0)
  })
  const done = new Uint8Array(n)
  while (heap.size > 0) {
    const v = heap.pop()
    if (done[v] === 1) continue
    done[v] = 1
    for (let e = starts[v]!; e < starts[v + 1]!; e++) {
      const w = near[e]!
      const d = far[v]! + length[e]! * (1 + CREASE_COSTS * fold[e]!)
      if (d >= far[w]!) continue
      far[w] = d
      of[w] = of[v]!
      heap.push(w, d)
    }
  }
  return of
}

/** The vertex of each patch that is nearest to its mean. */
function middles(mesh: Mesh, of: Uint32Array, count: number): number[] {
  const p = mesh.positions
  const sum = new Float64Array(3 * count),
    weight = new Float64Array(count)
  for (let v = 0; v < of.length; v++) {
    const i = of[v]!
    if (i >= count) continue
    weight[i]!++
    for (let k = 0; k < 3; k++) sum[3 * i + k]! += p[3 * v + k]!
  }
  const best = new Float64Array(count).fill(Infinity)
  const at = new Array<number>(count).fill(-1)
  for (let v = 0; v < of.length; v++) {
    const i = of[v]!
    if (i >= count) continue
    let d = 0
    for (let k = 0; k < 3; k++) d += (p[3 * v + k]! - sum[3 * i + k]! / weight[i]!) ** 2
    if (d < best[i]!) {
      best[i] = d
      at[i] = v
    }
  }
  return at.filter((v) => v >= 0)
}

function bordersOf({ starts, near, fold }: Graph, of: Uint32Array): Patches['borders'] {
  const sums = new Map<number, { sum: number; count: number }>()
  const n = of.length,
    m = 2 ** 24
  for (let v = 0; v < n; v++)
    for (let e = starts[v]!; e < starts[v + 1]!; e++) {
      const a = of[v]!,
        b = of[near[e]!]!
      if (a >= b) continue
      const key = a * m + b
      const s = sums.get(key)
      if (s) {
        s.sum += fold[e]!
        s.count++
      } else sums.set(key, { sum: fold[e]!, count: 1 })
    }
  return [...sums]
    .map(([key, s]) => ({ a: Math.floor(key / m), b: key % m, crease: s.sum / s.count }))
    .sort((x, y) => x.crease - y.crease)
}

export interface PatchTree extends Patches {
  /** pairs (stays, goes) in the order in which pieces become one, by their least patch */
  merges: Uint32Array
}

/** The greatest share of the pieces that become one before creases between them are weighed again. */
const AT_ONCE = 1 / 24

/**
 * The order in which patches become larger pieces: of pieces that touch, those with the weakest mean crease between them,
 * small ones first. Any number of pieces is a cut through this order, and coarser ones are made of finer ones.
 */
export function patchTree(patches: Patches): PatchTree {
  const sets = new UnionFind()
  const size = [...patches.sizes]
  for (let i = 0; i < patches.count; i++) sets.add()
  const whole = size.reduce((a, b) => a + b, 0)
  const merges: number[] = []
  for (let left = patches.count; left > 1;) {
    const between = new Map<number, { sum: number; count: number; a: number; b: number }>()
    for (const { a, b, crease } of patches.borders) {
      const r = sets.root(a),
        s = sets.root(b)
      if (r === s) continue
      const key = Math.min(r, s) * patches.count + Math.max(r, s)
      const there = between.get(key)
      if (there) {
        there.sum += crease
        there.count++
      } else between.set(key, { sum: crease, count: 1, a: r, b: s })
    }
    // A crumb gives way before a large piece does.
    const weakest = [...between.values()]
      .map((x) => ({ ...x, cost: (x.sum / x.count) * Math.sqrt(Math.min(size[x.a]!, size[x.b]!) / whole) }))
      .sort((x, y) => x.cost - y.cost)
    if (weakest.length === 0) break
    let go = Math.max(1, Math.floor(left * AT_ONCE))
    for (const { a, b } of weakest) {
      if (go === 0) break
      const both = size[sets.root(a)]! + size[sets.root(b)]!
      const joined = sets.join(a, b)
      if (!joined) continue
      size[joined.keep] = both
      merges.push(joined.keep, joined.gone)
      left--
      go--
    }
  }
  return { ...patches, merges: new Uint32Array(merges) }
}

/** Piece of each patch when there are so many pieces, by the least patch in it; what never touches stays apart. */
export function piecesAt(tree: PatchTree, pieces: number): Uint32Array {
  const sets = new UnionFind()
  for (let i = 0; i < tree.count; i++) sets.add()
  const merges = Math.max(0, Math.min(tree.merges.length / 2, tree.count - pieces))
  for (let i = 0; i < merges; i++) sets.join(tree.merges[2 * i]!, tree.merges[2 * i + 1]!)
  return Uint32Array.from({ length: tree.count }, (_, i) => sets.root(i))
}

/** The skin parted into about so many regions, as a beginning: region of each vertex, counted from 0 by size. */
export function proposed(tree: PatchTree, regions: number): Uint8Array {
  const piece = piecesAt(tree, Math.max(1, Math.min(255, regions)))
  const size = new Map<number, number>()
  piece.forEach((p, i) => size.set(p, (size.get(p) ?? 0) + tree.sizes[i]!))
  const order = [...size].sort((a, b) => b[1] - a[1]).map(([p]) => p)
  const number = new Map(order.map((p, i) => [p, Math.min(255, i)]))
  return Uint8Array.from(tree.of, (p) => (p < tree.count ? number.get(piece[p]!)! : 0))
}
