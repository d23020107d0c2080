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

const LEAF = 6
const BINS = 12
/** Runs of the curve up to this many faces are cut along the curve; what lies above them is cut by cost. */
const CLUSTER = 512

/**
 * Builds in two storeys (HLBVH; Pantaleoni and Luebke 2010, Garanzha et al. 2011): the faces are sorted along a
 * Morton curve through their box centres and grouped into clusters by common prefix; inside a cluster the curve's
 * own bits are the hierarchy, above them the clusters are split by the surface-area heuristic (Wald 2007). The sort
 * is linear, so only some thousand clusters ever meet the costly sweep. O(n).
 */
export function buildTree(mesh: Mesh): Tree {
  const n = mesh.triangles.length / 3
  const faceBox = faceBoxes(mesh)
  const { order, codes } = alongCurve(faceBox)
  const box = inOrder(faceBox, order)
  const capacity = Math.max(1, 2 * n)
  const boxes = new Float32Array(capacity * 6)
  const right = new Uint32Array(capacity),
    first = new Uint32Array(capacity)
  const count = new Uint8Array(capacity)
  let nodes = 0

  /** Hierarchy of one run of the curve. */
  function alongBits(from: number, to: number): number {
    const node = nodes++,
      o = node * 6
    if (to - from <= LEAF) {
      first[node] = from
      count[node] = to - from
      span(box, from, to, boxes, o)
      return node
    }
    const middle = cutOfRun(codes, from, to)
    const l = alongBits(from, middle)
    const r = (right[node] = alongBits(middle, to))
    join(boxes, l * 6, r * 6, o)
    return node
  }
  const runs = clusters(codes)
  const clusterBox = new Float32Array(runs.length * 6)
  for (let c = 0; c < runs.length; c++) span(box, runs[c]![0], runs[c]![1], clusterBox, c * 6)
  const members = new Uint32Array(runs.keys())
  /** Hierarchy over clusters. */
  function byCost(from: number, to: number): number {
    if (to - from === 1) return alongBits(...runs[members[from]!]!)
    const node = nodes++
    const middle = cutByCost(clusterBox, runs, members, from, to)
    const l = byCost(from, middle)
    const r = (right[node] = byCost(middle, to))
    join(boxes, l * 6, r * 6, node * 6)
    return node
  }
  if (n > 0) byCost(0, runs.length)
  return {
    mesh,
    order,
    corners: cornersInOrder(mesh, order),
    nodes,
    boxes: boxes.slice(0, nodes * 6),
    right: right.slice(0, nodes),
    first: first.slice(0, nodes),
    count: count.slice(0, nodes),
  }
}

/** 6 per face: min xyz, max xyz. */
function faceBoxes({ positions: p, triangles: t }: Mesh): Float32Array {
  const n = t.length / 3
  const out = new Float32Array(n * 6)
  for (let f = 0, o = 0; o < n * 6; f += 3, o += 6) {
    const a = t[f]! * 3,
      b = t[f + 1]! * 3,
      c = t[f + 2]! * 3
    const ax = p[a]!,
      ay = p[a + 1]!,
      az = p[a + 2]!
    const bx = p[b]!,
      by = p[b + 1]!,
      bz = p[b + 2]!
    const cx = p[c]!,
      cy = p[c + 1]!,
      cz = p[c + 2]!
    out[o] = ax < bx ? (ax < cx ? ax : cx) : bx < cx ? bx : cx
    out[o + 1] = ay < by ? (ay < cy ? ay : cy) : by < cy ? by : cy
    out[o + 2] = az < bz ? (az < cz ? az : cz) : bz < cz ? bz : cz
    out[o + 3] = ax > bx ? (ax > cx ? ax : cx) : bx > cx ? bx : cx
    out[o + 4] = ay > by ? (ay > cy ? ay : cy) : by > cy ? by : cy
    out[o + 5] = az > bz ? (az > cz ? az : cz) : bz > cz ? bz : cz
  }
  return out
}

function cornersInOrder({ positions: p, triangles: t }: Mesh, order: Uint32Array): Float32Array {
  const corners = new Float32Array(order.length * 9)
  for (let i = 0, o = 0; i < order.length; i++) {
    const f = order[i]! * 3
    for (let k = 0; k < 3; k++, o += 3) {
      const v = t[f + k]! * 3
      corners[o] = p[v]!
      corners[o + 1] = p[v + 1]!
      corners[o + 2] = p[v + 2]!
    }
  }
  return corners
}

/** Face boxes in the order of the curve. */
function inOrder(box: Float32Array, order: Uint32Array): Float32Array {
  const out = new Float32Array(box.length)
  for (let i = 0, o = 0; i < order.length; i++, o += 6) {
    const q = order[i]! * 6
    out[o] = box[q]!
    out[o + 1] = box[q + 1]!
    out[o + 2] = box[q + 2]!
    out[o + 3] = box[q + 3]!
    out[o + 4] = box[q + 4]!
    out[o + 5] = box[q + 5]!
  }
  return out
}

/** Faces and their 30-bit Morton codes (10 bits an axis over the range of box centres), ascending. */
function alongCurve(box: Float32Array): { order: Uint32Array; codes: Uint32Array } {
  const n = box.length / 6
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity]
  for (let o = 0; o < box.length; o += 6)
    for (let k = 0; k < 3; k++) {
      const c = box[o + k]! + box[o + 3 + k]!
      if (c < lo[k]!) lo[k] = c
      if (c > hi[k]!) hi[k] = c
    }
  const scale = lo.map((l, k) => (hi[k]! > l ? 1023.999 / (hi[k]! - l) : 0))
  const [x0, y0, z0] = lo as [number, number, number]
  const [sx, sy, sz] = scale as [number, number, number]
  let codes = new Uint32Array(n),
    other = new Uint32Array(n)
  let order = new Uint32Array(n),
    otherOrder = new Uint32Array(n)
  for (let f = 0, o = 0; f < n; f++, o += 6) {
    codes[f] =
      spread((box[o]! + box[o + 3]! - x0) * sx) |
      (spread((box[o + 1]! + box[o + 4]! - y0) * sy) << 1) |
      (spread((box[o + 2]! + box[o + 5]! - z0) * sz) << 2)
    order[f] = f
  }
  // Least significant digit first, 10 bits at a time; stable, so equal codes keep the file's order.
  const start = new Uint32Array(1024)
  for (let shift = 0; shift < 30; shift += 10) {
    start.fill(0)
    for (let i = 0; i < n; i++) start[(codes[i]! >>> shift) & 1023]!++
    for (let d = 0, sum = 0; d < 1024; d++) {
      const c = start[d]!
      start[d] = sum
      sum += c
    }
    for (let i = 0; i < n; i++) {
      const to = start[(codes[i]! >>> shift) & 1023]!++
      other[to] = codes[i]!
      otherOrder[to] = order[i]!
    }
    ;[codes, other] = [other, codes]
    ;[order, otherOrder] = [otherOrder, order]
  }
  return { order, codes }
}

/** Puts two zero bits between the ten lowest bits. */
function spread(v: number): number {
  let x = v & 1023
  x = (x | (x << 16)) & 0x030000ff
  x = (x | (x << 8)) & 0x0300f00f
  x = (x | (x << 4)) & 0x030c30c3
  return (x | (x << 2)) & 0x09249249
}

/** Where the highest bit that differs within the run turns from 0 to 1; the middle when none differs. */
function cutOfRun(codes: Uint32Array, from: number, to: number): number {
  const differ = codes[from]! ^ codes[to - 1]!
  if (differ === 0) return (from + to) >> 1
  const bit = 1 << (31 - Math.clz32(differ))
  let lo = from,
    hi = to - 1
  while (hi - lo > 1) {
    const m = (lo + hi) >> 1
    if (codes[m]! & bit) hi = m
    else lo = m
  }
  return hi
}

function clusters(codes: Uint32Array): [from: number, to: number][] {
  const out: [number, number][] = []
  const open: [number, number][] = [[0, codes.length]]
  for (let run = open.pop(); run; run = open.pop()) {
    const [from, to] = run
    if (to - from <= CLUSTER) {
      if (to > from) out.push(run)
      continue
    }
    const middle = cutOfRun(codes, from, to)
    open.push([middle, to], [from, middle])
  }
  return out
}

/** Box around the records from … to. */
function span(box: Float32Array, from: number, to: number, out: Float32Array, at: number): void {
  const e = to * 6
  for (let k = 0; k < 3; k++) {
    let lo = Infinity,
      hi = -Infinity
    for (let o = from * 6 + k; o < e; o += 6) {
      if (box[o]! < lo) lo = box[o]!
      if (box[o + 3]! > hi) hi = box[o + 3]!
    }
    out[at + k] = lo
    out[at + 3 + k] = hi
  }
}

/** Box around boxes l and r; one array, offsets. */
function join(b: Float32Array, l: number, r: number, at: number): void {
  for (let k = 0; k < 3; k++) {
    b[at + k] = b[l + k]! < b[r + k]! ? b[l + k]! : b[r + k]!
    b[at + 3 + k] = b[l + 3 + k]! > b[r + 3 + k]! ? b[l + 3 + k]! : b[r + 3 + k]!
  }
}

const binCount = new Uint32Array(BINS),
  binBox = new Float32Array(BINS * 6),
  sweepBox = new Float32Array(6),
  leftPrice = new Float64Array(BINS)

/** Parts the clusters from … to along the longest side of their centres' box at least cost area × faces; where. */
function cutByCost(
  box: Float32Array,
  runs: readonly [number, number][],
  members: Uint32Array,
  from: number,
  to: number,
): number {
  let axis = 0,
    start = 0,
    extent = 0
  for (let k = 0; k < 3; k++) {
    let lo = Infinity,
      hi = -Infinity
    for (let i = from; i < to; i++) {
      const o = members[i]! * 6
      const c = box[o + k]! + box[o + 3 + k]!
      if (c < lo) lo = c
      if (c > hi) hi = c
    }
    if (hi - lo > extent) {
      axis = k
      start = lo
      extent = hi - lo
    }
  }
  if (extent === 0) return (from + to) >> 1
  const binOf = (c: number): number =>
    (((box[c * 6 + axis]! + box[c * 6 + 3 + axis]! - start) * (BINS * 0.999999)) / extent) | 0
  binCount.fill(0)
  empty(binBox)
  for (let i = from; i < to; i++) {
    const c = members[i]!,
      b = binOf(c)
    binCount[b]! += runs[c]![1] - runs[c]![0]
    grow(binBox, b * 6, box, c * 6)
  }
  empty(sweepBox)
  for (let b = 0, faces = 0; b < BINS - 1; b++) {
    grow(sweepBox, 0, binBox, b * 6)
    faces += binCount[b]!
    leftPrice[b] = faces * halfArea(sweepBox)
  }
  empty(sweepBox)
  let cost = Infinity,
    best = 0
  for (let b = BINS - 1, faces = 0; b > 0; b--) {
    grow(sweepBox, 0, binBox, b * 6)
    faces += binCount[b]!
    const price = leftPrice[b - 1]! + faces * halfArea(sweepBox)
    if (price < cost) {
      cost = price
      best = b - 1
    }
  }
  let i = from
  for (let j = to - 1; i <= j;) {
    const c = members[i]!
    if (binOf(c) <= best) i++
    else {
      members[i] = members[j]!
      members[j--] = c
    }
  }
  // The first and the last bin are never empty, so neither side is.
  return i
}

function empty(boxes: Float32Array): void {
  for (let o = 0; o < boxes.length; o += 6) {
    boxes.fill(Infinity, o, o + 3)
    boxes.fill(-Infinity, o + 3, o + 6)
  }
}

function grow(b: Float32Array, at: number, by: Float32Array, from: number): void {
  for (let k = 0; k < 3; k++) {
    if (by[from + k]! < b[at + k]!) b[at + k] = by[from + k]!
    if (by[from + 3 + k]! > b[at + 3 + k]!) b[at + 3 + k] = by[from + 3 + k]!
  }
}

function halfArea(b: Float32Array): number {
  const x = b[3]! - b[0]!,
    y = b[4]! - b[1]!,
    z = b[5]! - b[2]!
  return x * y + y * z + z * x
}

const trees = new WeakMap<Mesh, Tree>()
/** The tree of a mesh, built at first use and kept as long as the mesh is. */
export function treeOf(mesh: Mesh): Tree {
  let tree = trees.get(mesh)
  if (!tree) trees.set(mesh, (tree = buildTree(mesh)))
  return tree
}
