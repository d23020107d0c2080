/**
 * Unit normals of a cloud: the direction in which each point's neighbourhood spreads least (plane fit), turned alike
 * along the minimum spanning tree of the neighbourhood graph, whose edges cost what the normals differ (Hoppe et al.
 * 1992). Each connected piece begins at its highest point, where outward is up.
 *
 * @param near k neighbours per point, see `nearestNeighbours`
 */
export function cloudNormals(positions: Float32Array, near: Uint32Array, k: number): Float32Array {
  const n = positions.length / 3
  const normals = new Float32Array(n * 3)
  for (let i = 0; i < n; i++) planeNormal(positions, i, near, k, normals)
  orientAlike(positions, near, k, normals)
  return normals
}

function planeNormal(p: Float32Array, i: number, near: Uint32Array, k: number, out: Float32Array): void {
  let mx = p[i * 3]!,
    my = p[i * 3 + 1]!,
    mz = p[i * 3 + 2]!
  for (let q = 0; q < k; q++) {
    const j = near[i * k + q]! * 3
    mx += p[j]!
    my += p[j + 1]!
    mz += p[j + 2]!
  }
  mx /= k + 1
  my /= k + 1
  mz /= k + 1
  let xx = 0,
    xy = 0,
    xz = 0,
    yy = 0,
    yz = 0,
    zz = 0
  for (let q = -1; q < k; q++) {
    const j = (q < 0 ? i : near[i * k + q]!) * 3
    const x = p[j]! - mx,
      y = p[j + 1]! - my,
      z = p[j + 2]! - mz
    xx += x * x
    xy += x * y
    xz += x * z
    yy += y * y
    yz += y * z
    zz += z * z
  }
  leastEigenvector(xx, xy, xz, yy, yz, zz, out, i * 3)
}

/** Of a symmetric 3 × 3 matrix; eigenvalues by the trigonometric solution, the vector by the largest cross product. */
function leastEigenvector(
  xx: number,
  xy: number,
  xz: number,
  yy: number,
  yz: number,
  zz: number,
  out: Float32Array,
  o: number,
): void {
  const q = (xx + yy + zz) / 3
  const p2 = (xx - q) ** 2 + (yy - q) ** 2 + (zz - q) ** 2 + 2 * (xy * xy + xz * xz + yz * yz)
  const p = Math.sqrt(p2 / 6)
  out[o] = 0
  out[o + 1] = 0
  out[o + 2] = 1
  if (!(p > 0)) return
  const a = (xx - q) / p,
    b = (yy - q) / p,
    c = (zz - q) / p,
    d = xy / p,
    e = xz / p,
    f = yz / p
  const half = (a * (b * c - f * f) - d * (d * c - f * e) + e * (d * f - b * e)) / 2
  const phi = Math.acos(Math.min(1, Math.max(-1, half))) / 3
  const least = q + 2 * p * Math.cos(phi + (2 * Math.PI) / 3)
  const r0 = [xx - least, xy, xz],
    r1 = [xy, yy - least, yz],
    r2 = [xz, yz, zz - least]
  let best = 0
  for (const [u, v] of [
    [r0, r1],
    [r0, r2],
    [r1, r2],
  ] as const) {
    const x = u[1]! * v[2]! - u[2]! * v[1]!,
      y = u[2]! * v[0]! - u[0]! * v[2]!,
      z = u[0]! * v[1]! - u[1]! * v[0]!
    const l = Math.hypot(x, y, z)
    if (l <= best) continue
    best = l
    out[o] = x / l
    out[o + 1] = y / l
    out[o + 2] = z / l
  }
}

function orientAlike(p: Float32Array, near: Uint32Array, k: number, normals: Float32Array): void {
  const n = p.length / 3
  const done = new Uint8Array(n)
  const highestFirst = Uint32Array.from({ length: n }, (_, i) => i).sort((a, b) => p[b * 3 + 2]! - p[a * 3 + 2]!)
  // Neighbourhood is not mutual: a point in a sparse place has dense ones as neighbours that do not know it.
  const { starts, known } = mutual(near, k, n)
  const heap = new EdgeHeap()
  const turn = (i: number): void => {
    for (let a = 0; a < 3; a++) normals[i * 3 + a] = -normals[i * 3 + a]!
  }
  const dot = (i: number, j: number): number =>
    normals[i * 3]! * normals[j * 3]! +
    normals[i * 3 + 1]! * normals[j * 3 + 1]! +
    normals[i * 3 + 2]! * normals[j * 3 + 2]!
  const push = (i: number): void => {
    for (let at = starts[i]!; at < starts[i + 1]!; at++) {
      const j = known[at]!
      if (!done[j]) heap.push(1 - Math.abs(dot(i, j)), i, j)
    }
  }
  for (const seed of highestFirst) {
    if (done[seed]) continue
    done[seed] = 1
    if (normals[seed * 3 + 2]! < 0) turn(seed)
    push(seed)
    for (let edge = heap.pop(); edge; edge = heap.pop()) {
      const [from, to] = edge
      if (done[to]) continue
      done[to] = 1
      if (dot(from, to) < 0) turn(to)
      push(to)
    }
  }
}

function mutual(near: Uint32Array, k: number, n: number): { starts: Uint32Array; known: Uint32Array } {
  const starts = new Uint32Array(n + 1)
  for (let i = 0; i < n; i++)
    for (let q = 0; q < k; q++) {
      starts[i + 1]!++
      starts[near[i * k + q]! + 1]!++
    }
  for (let i = 0; i < n; i++) starts[i + 1]! += starts[i]!
  const fill = starts.slice(0, n),
    known = new Uint32Array(2 * n * k)
  for (let i = 0; i < n; i++)
    for (let q = 0; q < k; q++) {
      const j = near[i * k + q]!
      known[fill[i]!++] = j
      known[fill[j]!++] = i
    }
  return { starts, known }
}

/** Binary heap of edges, cheapest first. */
class EdgeHeap {
  private cost = new Float32Array(1024)
  private from = new Uint32Array(1024)
  private to = new Uint32Array(1024)
  private length = 0

  push(cost: number, from: number, to: number): void {
    if (this.length === this.cost.length) {
      const more = <T extends Float32Array | Uint32Array>(a: T, b: T): T => {
        b.set(a)
        return b
      }
      this.cost = more(this.cost, new Float32Array(this.length * 2))
      this.from = more(this.from, new Uint32Array(this.length * 2))
      this.to = more(this.to, new Uint32Array(this.length * 2))
    }
    let i = this.length++
    const c = Math.fround(cost)
    while (i > 0) {
      const up = (i - 1) >> 1
      if (this.cost[up]! <= c) break
      this.move(up, i)
      i = up
    }
    this.set(i, c, from, to)
  }
  pop(): [number, number] | null {
    if (this.length === 0) return null
    const result: [number, number] = [this.from[0]!, this.to[0]!]
    const last = --this.length
    const c = this.cost[last]!,
      f = this.from[last]!,
      t = this.to[last]!
    let i = 0
    for (;;) {
      let child = 2 * i + 1
      if (child >= last) break
      if (child + 1 < last && this.cost[child + 1]! < this.cost[child]!) child++
      if (this.cost[child]! >= c) break
      this.move(child, i)
      i = child
    }
    this.set(i, c, f, t)
    return result
  }
  private move(from: number, to: number): void {
    this.set(to, this.cost[from]!, this.from[from]!, this.to[from]!)
  }
  private set(i: number, cost: number, from: number, to: number): void {
    this.cost[i] = cost
    this.from[i] = from
    this.to[i] = to
  }
}
