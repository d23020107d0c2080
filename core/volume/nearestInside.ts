/** How many half-spaces are looked at together. */
export const MAX_CANDIDATES = 10

/**
 * The point nearest to the origin in an intersection of half-spaces n·x ≥ b, by its Karush–Kuhn–Tucker conditions: in
 * space at most three of them hold it, so every set of up to three is tried, the smaller ones first. Exact, and
 * quick while they are few.
 *
 * @param normals 3 per half-space, unit
 * @param offsets one per half-space
 * @param count half-spaces in use, at most MAX_CANDIDATES
 * @param out overwritten by the point, 3
 * @returns false where they have no point in common that three of them hold
 */
export function nearestInside(normals: Float64Array, offsets: Float64Array, count: number, out: Float64Array): boolean {
  const slack = 1e-9
  const holds = (x: number, y: number, z: number): boolean => {
    for (let i = 0; i < count; i++)
      if (normals[i * 3]! * x + normals[i * 3 + 1]! * y + normals[i * 3 + 2]! * z < offsets[i]! - slack) return false
    out[0] = x
    out[1] = y
    out[2] = z
    return true
  }
  const dot = (i: number, j: number): number =>
    normals[i * 3]! * normals[j * 3]! +
    normals[i * 3 + 1]! * normals[j * 3 + 1]! +
    normals[i * 3 + 2]! * normals[j * 3 + 2]!
  if (holds(0, 0, 0)) return true
  for (let i = 0; i < count; i++) {
    const a = offsets[i]!
    if (a > 0 && holds(a * normals[i * 3]!, a * normals[i * 3 + 1]!, a * normals[i * 3 + 2]!)) return true
  }
  for (let i = 0; i < count; i++)
    for (let j = i + 1; j < count; j++) {
      const c = dot(i, j),
        det = 1 - c * c
      if (det < 1e-9) continue
      const s = (offsets[i]! - c * offsets[j]!) / det,
        t = (offsets[j]! - c * offsets[i]!) / det
      if (s < 0 || t < 0) continue
      const at = (k: number): number => s * normals[i * 3 + k]! + t * normals[j * 3 + k]!
      if (holds(at(0), at(1), at(2))) return true
    }
  for (let i = 0; i < count; i++)
    for (let j = i + 1; j < count; j++)
      for (let k = j + 1; k < count; k++) {
        // Multipliers of the three by Cramer's rule on their Gram matrix.
        const ij = dot(i, j),
          ik = dot(i, k),
          jk = dot(j, k)
        const det = 1 + 2 * ij * ik * jk - ij * ij - ik * ik - jk * jk
        if (det < 1e-9) continue
        const a = offsets[i]!,
          b = offsets[j]!,
          c = offsets[k]!
        const s = (a * (1 - jk * jk) + b * (ik * jk - ij) + c * (ij * jk - ik)) / det,
          t = (b * (1 - ik * ik) + a * (ik * jk - ij) + c * (ij * ik - jk)) / det,
          u = (c * (1 - ij * ij) + a * (ij * jk - ik) + b * (ij * ik - jk)) / det
        if (s < 0 || t < 0 || u < 0) continue
        const at = (m: number): number => s * normals[i * 3 + m]! + t * normals[j * 3 + m]! + u * normals[k * 3 + m]!
        if (holds(at(0), at(1), at(2))) return true
      }
  return false
}
