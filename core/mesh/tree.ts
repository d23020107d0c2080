import type { Mesh } from './mesh'

/**
 * Bounding-volume hierarchy over the faces of a mesh, in flat arrays.
 *
 * Nodes stand in depth-first order: the left child of inner node i is i + 1, `right[i]` is the other. A leaf
 * has `count[i]` > 0 faces, from `first[i]` on in `order`. Corner coordinates are copied in leaf order, so a
 * query walks memory forward instead of hopping through the vertex table.
 *
 * Promise: every face lies inside the box of each node above it, exactly (boxes are not rounded).
 */
export interface Tree {
  readonly mesh: Mesh
  /** 6 per node: min xyz, max xyz */
  readonly boxes: Float32Array
  readonly right: Uint32Array
  readonly first: Uint32Array
  readonly count: Uint8Array
  /** face index by leaf position */
  readonly order: Uint32Array
  /** 9 per leaf position */
  readonly corners: Float32Array
  readonly nodes: number
}

const LEAF = 4
const BINS = 12

/** Builds by binned surface-area heuristic (Wald 2007) on face-box centres. O(n log n). */
export function buildTree(mesh: Mesh): Tree {
  const { positions: p, triangles: t } = mesh
  const n = t.length / 3
  const lo = new Float32Array(n * 3), hi = new Float32Array(n * 3)
  for (let f = 0; f < n; f++) {
    const a = t[f * 3]! * 3, b = t[f * 3 + 1]! * 3, c = t[f * 3 + 2]! * 3
    for (let k = 0; k < 3; k++) {
      const x = p[a + k]!, y = p[b + k]!, z = p[c + k]!
      lo[f * 3 + k] = x < y ? (x < z ? x : z) : y < z ? y : z
      hi[f * 3 + k] = x > y ? (x > z ? x : z) : y > z ? y : z
    }
  }
  const order = new Uint32Array(n)
  for (let f = 0; f < n; f++) order[f] = f
  const capacity = Math.max(1, 2 * n)
  const boxes = new Float32Array(capacity * 6)
  const right = new Uint32Array(capacity), first = new Uint32Array(capacity)
  const count = new Uint8Array(capacity)
  const binCount = new Int32Array(BINS)
  const binLo = new Float32Array(BINS * 3), binHi = new Float32Array(BINS * 3)
  const areaLeft = new Float64Array(BINS), countLeft = new Int32Array(BINS)
  let nodes = 0

  function split(from: number, to: number): number {
    const node = nodes++
    let x0 = Infinity, y0 = Infinity, z0 = Infinity, x1 = -Infinity, y1 = -Infinity, z1 = -Infinity
    let cx0 = Infinity, cy0 = Infinity, cz0 = Infinity, cx1 = -Infinity, cy1 = -Infinity, cz1 = -Infinity
    for (let i = from; i < to; i++) {
      const f = order[i]! * 3
      const ax = lo[f]!, ay = lo[f + 1]!, az = lo[f + 2]!, bx = hi[f]!, by = hi[f + 1]!, bz = hi[f + 2]!
      if (ax < x0) x0 = ax
      if (ay < y0) y0 = ay
      if (az < z0) z0 = az
      if (bx > x1) x1 = bx
      if (by > y1) y1 = by
      if (bz > z1) z1 = bz
      const mx = ax + bx, my = ay + by, mz = az + bz
      if (mx < cx0) cx0 = mx
      if (my < cy0) cy0 = my
      if (mz < cz0) cz0 = mz
      if (mx > cx1) cx1 = mx
      if (my > cy1) cy1 = my
      if (mz > cz1) cz1 = mz
    }
    const o = node * 6
    boxes[o] = x0; boxes[o + 1] = y0; boxes[o + 2] = z0; boxes[o + 3] = x1; boxes[o + 4] = y1; boxes[o + 5] = z1
    const size = to - from
    if (size <= LEAF) { first[node] = from; count[node] = size; return node }

    const ex = cx1 - cx0, ey = cy1 - cy0, ez = cz1 - cz0
    const axis = ex >= ey && ex >= ez ? 0 : ey >= ez ? 1 : 2
    const start = axis === 0 ? cx0 : axis === 1 ? cy0 : cz0
    const extent = axis === 0 ? ex : axis === 1 ? ey : ez
    let middle = (from + to) >> 1
    if (extent > 0) {
      const scale = (BINS * 0.999999) / extent
      binCount.fill(0)
      binLo.fill(Infinity)
      binHi.fill(-Infinity)
      for (let i = from; i < to; i++) {
        const f = order[i]! * 3
        const b = ((lo[f + axis]! + hi[f + axis]! - start) * scale) | 0
        binCount[b]!++
        const q = b * 3
        for (let k = 0; k < 3; k++) {
          if (lo[f + k]! < binLo[q + k]!) binLo[q + k] = lo[f + k]!
          if (hi[f + k]! > binHi[q + k]!) binHi[q + k] = hi[f + k]!
        }
      }
      const best = bestSplit()
      if (best >= 0) {
        let i = from, j = to - 1
        while (i <= j) {
          const f = order[i]! * 3
          const b = ((lo[f + axis]! + hi[f + axis]! - start) * scale) | 0
          if (b <= best) i++
          else { const s = order[i]!; order[i] = order[j]!; order[j] = s; j-- }
        }
        if (i > from && i < to) middle = i
      }
    }
    split(from, middle)
    right[node] = split(middle, to)
    return node
  }

  /** Bin after which to cut at least cost area × count, or −1 when all faces share one bin. */
  function bestSplit(): number {
    let ax = Infinity, ay = Infinity, az = Infinity, bx = -Infinity, by = -Infinity, bz = -Infinity, c = 0
    for (let b = 0; b < BINS; b++) {
      ax = Math.min(ax, binLo[b * 3]!); ay = Math.min(ay, binLo[b * 3 + 1]!); az = Math.min(az, binLo[b * 3 + 2]!)
      bx = Math.max(bx, binHi[b * 3]!); by = Math.max(by, binHi[b * 3 + 1]!); bz = Math.max(bz, binHi[b * 3 + 2]!)
      c += binCount[b]!
      countLeft[b] = c
      areaLeft[b] = c === 0 ? 0 : halfArea(bx - ax, by - ay, bz - az)
    }
    ax = ay = az = Infinity
    bx = by = bz = -Infinity
    let right = 0, cost = Infinity, best = -1
    for (let b = BINS - 1; b > 0; b--) {
      ax = Math.min(ax, binLo[b * 3]!); ay = Math.min(ay, binLo[b * 3 + 1]!); az = Math.min(az, binLo[b * 3 + 2]!)
      bx = Math.max(bx, binHi[b * 3]!); by = Math.max(by, binHi[b * 3 + 1]!); bz = Math.max(bz, binHi[b * 3 + 2]!)
      right += binCount[b]!
      const left = countLeft[b - 1]!
      if (right === 0 || left === 0) continue
      const price = areaLeft[b - 1]! * left + halfArea(bx - ax, by - ay, bz - az) * right
      if (price < cost) { cost = price; best = b - 1 }
    }
    return best
  }

  if (n > 0) split(0, n)
  const corners = new Float32Array(n * 9)
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < 3; k++) {
      const v = t[order[i]! * 3 + k]! * 3
      corners[i * 9 + k * 3] = p[v]!
      corners[i * 9 + k * 3 + 1] = p[v + 1]!
      corners[i * 9 + k * 3 + 2] = p[v + 2]!
    }
  }
  return {
    mesh, order, corners, nodes,
    boxes: boxes.slice(0, nodes * 6), right: right.slice(0, nodes), first: first.slice(0, nodes), count: count.slice(0, nodes),
  }
}

const halfArea = (x: number, y: number, z: number): number => x * y + y * z + z * x

const trees = new WeakMap<Mesh, Tree>()
/** The tree of a mesh, built at first use and kept as long as the mesh is. */
export function treeOf(mesh: Mesh): Tree {
  let tree = trees.get(mesh)
  if (!tree) trees.set(mesh, (tree = buildTree(mesh)))
  return tree
}
