import type { Mesh } from './mesh'

/**
 * Splits every edge longer than `longest` mm until none is left or `most` faces are reached. The shape does not change;
 * neighbours split alike, so a closed mesh stays closed. For brushing and per-vertex maps on bodies that are modelled
 * with few, large faces.
 *
 * An edge is to become n = ⌈length / longest⌉ equal ones, and is split where ⌊n/2⌋ of them end: halving it each time
 * would give up to twice as many, and four times as many faces.
 */
export function refine(mesh: Mesh, longest: number, most: number): Mesh {
  const positions = Array.from(mesh.positions)
  let triangles = Array.from(mesh.triangles)
  const limit = longest * longest
  for (let round = 0; round < 12 && triangles.length / 3 < most; round++) {
    const middles = new Map<number, number>()
    const count = positions.length / 3
    const squared = (a: number, b: number): number => {
      const i = a * 3,
        j = b * 3
      return (
        (positions[i]! - positions[j]!) ** 2 +
        (positions[i + 1]! - positions[j + 1]!) ** 2 +
        (positions[i + 2]! - positions[j + 2]!) ** 2
      )
    }
    const split = (a: number, b: number): number => {
      const d = squared(a, b)
      if (d <= limit) return -1
      const key = Math.min(a, b) * 0x4000000 + Math.max(a, b)
      const there = middles.get(key)
      if (there !== undefined) return there
      const i = Math.min(a, b) * 3,
        j = Math.max(a, b) * 3
      const n = Math.ceil(Math.sqrt(d) / longest),
        t = Math.floor(n / 2) / n
      for (let k = 0; k < 3; k++) positions.push(positions[i + k]! + t * (positions[j + k]! - positions[i + k]!))
      middles.set(key, positions.length / 3 - 1)
      return positions.length / 3 - 1
    }
    const next: number[] = []
    for (let f = 0; f < triangles.length; f += 3) {
      let [a, b, c] = [triangles[f]!, triangles[f + 1]!, triangles[f + 2]!]
      let [x, y, z] = [split(a, b), split(b, c), split(c, a)]
      // Turn the face until its split edges come first.
      while ((x < 0 && (y >= 0 || z >= 0)) || (x >= 0 && y < 0 && z >= 0)) {
        ;[a, b, c] = [b, c, a]
        ;[x, y, z] = [y, z, x]
      }
      if (x < 0) next.push(a, b, c)
      else if (y < 0) next.push(a, x, c, x, b, c)
      else if (z < 0) next.push(x, b, y, ...(squared(a, y) <= squared(x, c) ? [a, x, y, a, y, c] : [a, x, c, x, y, c]))
      else next.push(a, x, z, x, b, y, z, y, c, x, y, z)
    }
    triangles = next
    if (positions.length / 3 === count) break
  }
  if (triangles.length === mesh.triangles.length) return mesh
  return { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }
}
