import type { Mesh } from './mesh'

/**
 * Smoothing that does not shrink (Taubin 1995): each pass moves vertices toward the mean of their neighbours by λ and
 * then away from it by |μ| > λ, so that ripples go and the form keeps its volume. Topology and colours are kept.
 *
 * @param passes pairs of such moves; about 10 take off scanner noise
 * @param limit mm; no vertex ends farther than this from where it was
 */
export function smoothed(mesh: Mesh, passes: number, limit: number): Mesh {
  const { positions, triangles } = mesh
  const n = positions.length / 3
  const { starts, near } = vertexNeighbours(triangles, n)
  const p = new Float64Array(positions),
    move = new Float64Array(p.length)
  const LAMBDA = 0.5,
    MU = -0.53
  for (let pass = 0; pass < 2 * passes; pass++) {
    const by = pass & 1 ? MU : LAMBDA
    for (let v = 0; v < n; v++) {
      const from = starts[v]!,
        to = starts[v + 1]!
      let x = 0,
        y = 0,
        z = 0
      for (let i = from; i < to; i++) {
        const w = near[i]! * 3
        x += p[w]!
        y += p[w + 1]!
        z += p[w + 2]!
      }
      const k = to > from ? by / (to - from) : 0
      const own = to > from ? by : 0
      move[v * 3] = k * x - own * p[v * 3]!
      move[v * 3 + 1] = k * y - own * p[v * 3 + 1]!
      move[v * 3 + 2] = k * z - own * p[v * 3 + 2]!
    }
    for (let i = 0; i < p.length; i++) p[i]! += move[i]!
  }
  const out = new Float32Array(p.length)
  for (let v = 0; v < p.length; v += 3) {
    const dx = p[v]! - positions[v]!,
      dy = p[v + 1]! - positions[v + 1]!,
      dz = p[v + 2]! - positions[v + 2]!
    const d = Math.hypot(dx, dy, dz)
    const k = d > limit ? limit / d : 1
    out[v] = positions[v]! + k * dx
    out[v + 1] = positions[v + 1]! + k * dy
    out[v + 2] = positions[v + 2]! + k * dz
  }
  return { ...mesh, positions: out }
}

/** Vertices joined to each vertex by an edge, each once, as `near[starts[v] … starts[v + 1]]`. */
export function vertexNeighbours(triangles: Uint32Array, n: number): { starts: Uint32Array; near: Uint32Array } {
  const count = new Uint32Array(n + 1)
  for (const v of triangles) count[v + 1]! += 2
  for (let v = 0; v < n; v++) count[v + 1]! += count[v]!
  const fill = count.slice(0, n),
    all = new Uint32Array(triangles.length * 2)
  for (let i = 0; i < triangles.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const v = triangles[i + k]!
      all[fill[v]!++] = triangles[i + ((k + 1) % 3)]!
      all[fill[v]!++] = triangles[i + ((k + 2) % 3)]!
    }
  const starts = new Uint32Array(n + 1)
  let used = 0
  for (let v = 0; v < n; v++) {
    starts[v] = used
    const own = all.subarray(count[v]!, count[v + 1]!).sort()
    for (let i = 0; i < own.length; i++) if (i === 0 || own[i] !== own[i - 1]) all[used++] = own[i]!
  }
  starts[n] = used
  return { starts, near: all.slice(0, used) }
}
