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
    let x = bits[j]!,
      y = bits[j + 1]!,
      z = bits[j + 2]!
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
      if (unique[w] === x && unique[w + 1] === y && unique[w + 2] === z) {
        triangles[i] = v
        break
      }
      s = (s + 1) & mask
    }
  }
  return { positions: new Float32Array(unique.buffer.slice(0, used * 12)), triangles }
}

/**
 * Merges vertices that stand at exactly the same place, as exporters split them along creases and texture seams. The
 * first one's colour stays. Returns the same mesh when there are none.
 */
export function weldIdentical(mesh: Mesh): Mesh {
  const { positions, triangles: firsts } = weldExact(mesh.positions)
  if (positions.length === mesh.positions.length) return mesh
  const colours = mesh.colours && new Uint8Array(positions.length)
  if (colours)
    for (let v = firsts.length - 1; v >= 0; v--) colours.set(mesh.colours!.subarray(v * 3, v * 3 + 3), firsts[v]! * 3)
  return { positions, triangles: mesh.triangles.map((v) => firsts[v]!), ...(colours ? { colours } : {}) }
}

/**
 * Merges vertices closer than `tolerance` (mm) to an earlier one, by a grid of that cell size; faces that
 * collapse are dropped. Returns the same mesh when nothing merges.
 */
export function weldTolerance(mesh: Mesh, tolerance: number): { mesh: Mesh; merged: number } {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const map = new Uint32Array(n)
  // Vertices by hashed cell, in chains; another cell's vertices in the same chain are told apart by distance.
  let capacity = 1024
  while (capacity < n) capacity *= 2
  const head = new Int32Array(capacity).fill(-1),
    chain = new Int32Array(n)
  const slot = (i: number, j: number, k: number): number => {
    const h = Math.imul(i, 0x9e3779b1) ^ Math.imul(j, 0x85ebca77) ^ Math.imul(k, 0xc2b2ae3d)
    return (h ^ (h >>> 15)) & (capacity - 1)
  }
  const inv = 1 / tolerance,
    limit = tolerance * tolerance
  let merged = 0
  for (let v = 0; v < n; v++) {
    const x = p[v * 3]!,
      y = p[v * 3 + 1]!,
      z = p[v * 3 + 2]!
    const i = Math.floor(x * inv),
      j = Math.floor(y * inv),
      k = Math.floor(z * inv)
    let found = v
    for (let c = 0; c < 27; c++)
      for (
        let w = head[slot(i + (c % 3) - 1, j + (((c / 3) | 0) % 3) - 1, k + ((c / 9) | 0) - 1)]!;
        w >= 0;
        w = chain[w]!
      ) {
        const dx = p[w * 3]! - x,
          dy = p[w * 3 + 1]! - y,
          dz = p[w * 3 + 2]! - z
        // The earliest of those within reach, so that the answer does not hang on the hash.
        if (w < found && dx * dx + dy * dy + dz * dz <= limit) found = w
      }
    map[v] = found
    if (found < v) {
      merged++
      continue
    }
    const s = slot(i, j, k)
    chain[v] = head[s]!
    head[s] = v
  }
  if (merged === 0) return { mesh, merged }
  const compact = new Int32Array(n).fill(-1)
  const positions: number[] = []
  const triangles: number[] = []
  for (let i = 0; i < t.length; i += 3) {
    const a = map[t[i]!]!,
      b = map[t[i + 1]!]!,
      c = map[t[i + 2]!]!
    if (a === b || b === c || a === c) continue
    for (const v of [a, b, c]) {
      if (compact[v] === -1) {
        compact[v] = positions.length / 3
        positions.push(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)
      }
      triangles.push(compact[v]!)
    }
  }
  return { mesh: { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }, merged }
}
