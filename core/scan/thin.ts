import type { Mesh } from '../mesh/mesh'

/**
 * A cloud with one point left per cube of the given edge: the mean of those in it, with the mean of their normals and
 * colours. A million points at one place become one. Order of first appearance is kept.
 */
export function thinned(cloud: Mesh, cell: number): Mesh {
  const { positions: p, normals, colours } = cloud
  const n = p.length / 3
  const cells = new Map<string, number>()
  const of = new Uint32Array(n)
  for (let i = 0; i < n; i++) {
    const key = `${Math.floor(p[i * 3]! / cell)},${Math.floor(p[i * 3 + 1]! / cell)},${Math.floor(p[i * 3 + 2]! / cell)}`
    let at = cells.get(key)
    if (at === undefined) cells.set(key, (at = cells.size))
    of[i] = at
  }
  const m = cells.size
  const count = new Uint32Array(m)
  for (const c of of) count[c]!++
  const mean = (values: ArrayLike<number>): Float64Array => {
    const sum = new Float64Array(m * 3)
    for (let i = 0; i < n; i++) for (let k = 0; k < 3; k++) sum[of[i]! * 3 + k]! += values[i * 3 + k]!
    return sum.map((v, j) => v / count[(j / 3) | 0]!)
  }
  const unit = (v: Float64Array): Float32Array => {
    const out = new Float32Array(v.length)
    for (let i = 0; i < v.length; i += 3) {
      const l = Math.hypot(v[i]!, v[i + 1]!, v[i + 2]!) || 1
      for (let k = 0; k < 3; k++) out[i + k] = v[i + k]! / l
    }
    return out
  }
  return {
    positions: new Float32Array(mean(p)),
    triangles: new Uint32Array(0),
    ...(normals ? { normals: unit(mean(normals)) } : {}),
    ...(colours ? { colours: Uint8Array.from(mean(colours), Math.round) } : {}),
  }
}
