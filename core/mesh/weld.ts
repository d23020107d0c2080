import type { Mesh } from './mesh'

/**
 * Indexes a triangle soup by exact coordinates: vertices are equal when their Float32 values are (−0 counts
 * as 0). Order of first appearance is kept, so the same soup always gives the same mesh.
 *
 * Open addressing over a power-of-two table; the coordinates themselves are the key, read as bits.
 *
 * @param soup 9 floats per face
 */
export function weldExact(soup: Float32Array): Mesh {
  const count = soup.length / 3
  const bits = new Uint32Array(soup.buffer, soup.byteOffset, soup.length)
  let capacity = 1024
  while (capacity < count) capacity *= 2
  const mask = capacity - 1
  const slots = new Int32Array(capacity).fill(-1)
  const triangles = new Uint32Array(count)
  // Unique vertices are compacted in place at the front of a copy of the bits.
  const unique = new Uint32Array(soup.length)
  let used = 0
  for (let i = 0, j = 0; i < count; i++, j += 3) {
    let x = bits[j]!, y = bits[j + 1]!, z = bits[j + 2]!
    if (x === 0x80000000) x = 0
    if (y === 0x80000000) y = 0
    if (z === 0x80000000) z = 0
    let h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(z, 0xc2b2ae3d)
    h ^= h >>> 15
    h = Math.imul(h, 0x2c1b3c6d)
    let s = (h ^ (h >>> 13)) & mask
    for (;;) {
      const v = slots[s]!
      if (v === -1) {
        slots[s] = used
        unique[used * 3] = x
        unique[used * 3 + 1] = y
        unique[used * 3 + 2] = z
        triangles[i] = used++
        break
      }
      const w = v * 3
      if (unique[w] === x && unique[w + 1] === y && unique[w + 2] === z) { triangles[i] = v; break }
      s = (s + 1) & mask
    }
  }
  return { positions: new Float32Array(unique.buffer.slice(0, used * 12)), triangles }
}

/**
 * Merges vertices closer than `tolerance` (mm) to an earlier one, by a grid of that cell size; faces that
 * collapse are dropped. Returns the same mesh when nothing merges.
 */
export function weldTolerance(mesh: Mesh, tolerance: number): { mesh: Mesh; merged: number } {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const map = new Uint32Array(n)
  const cells = new Map<string, number[]>()
  const inv = 1 / tolerance, limit = tolerance * tolerance
  let merged = 0
  for (let v = 0; v < n; v++) {
    const x = p[v * 3]!, y = p[v * 3 + 1]!, z = p[v * 3 + 2]!
    const i = Math.floor(x * inv), j = Math.floor(y * inv), k = Math.floor(z * inv)
    let found = -1
    for (let a = -1; a <= 1 && found < 0; a++)
      for (let b = -1; b <= 1 && found < 0; b++)
        for (let c = -1; c <= 1 && found < 0; c++)
          for (const w of cells.get(`${i + a},${j + b},${k + c}`) ?? []) {
            const dx = p[w * 3]! - x, dy = p[w * 3 + 1]! - y, dz = p[w * 3 + 2]! - z
            if (dx * dx + dy * dy + dz * dz <= limit) { found = w; break }
          }
    if (found >= 0) { map[v] = found; merged++; continue }
    map[v] = v
    const key = `${i},${j},${k}`
    const cell = cells.get(key)
    if (cell) cell.push(v)
    else cells.set(key, [v])
  }
  if (merged === 0) return { mesh, merged }
  const compact = new Int32Array(n).fill(-1)
  const positions: number[] = []
  const triangles: number[] = []
  for (let i = 0; i < t.length; i += 3) {
    const a = map[t[i]!]!, b = map[t[i + 1]!]!, c = map[t[i + 2]!]!
    if (a === b || b === c || a === c) continue
    for (const v of [a, b, c]) {
      if (compact[v] === -1) { compact[v] = positions.length / 3; positions.push(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!) }
      triangles.push(compact[v]!)
    }
  }
  return { mesh: { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }, merged }
}
