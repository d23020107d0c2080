/**
 * Cross product of two sides of a face: along its normal, as long as twice its area.
 *
 * @param p coordinates, 3 per vertex
 * @param a offset of the first corner in `p` (three times its index), likewise b and c
 * @param out receives x, y, z
 */
export function faceCross(p: Float32Array, a: number, b: number, c: number, out: Float64Array): void {
  const x = p[a]!,
    y = p[a + 1]!,
    z = p[a + 2]!
  const ux = p[b]! - x,
    uy = p[b + 1]! - y,
    uz = p[b + 2]! - z
  const vx = p[c]! - x,
    vy = p[c + 1]! - y,
    vz = p[c + 2]! - z
  out[0] = uy * vz - uz * vy
  out[1] = uz * vx - ux * vz
  out[2] = ux * vy - uy * vx
}

export const lengthOf = (v: Float64Array): number => Math.sqrt(v[0]! * v[0]! + v[1]! * v[1]! + v[2]! * v[2]!)
