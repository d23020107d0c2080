import type { Motion } from './skeleton'

/**
 * Moves vertices by blended dual quaternions (Kavan et al. 2008): a weighted mean of screw motions, which does not
 * collapse at a twist as a mean of matrices does.
 *
 * @param positions 3 per vertex
 * @param weights `motions.length` per vertex, summing to 1
 */
export function skinned(positions: Float32Array, weights: Float32Array, motions: readonly Motion[]): Float32Array {
  const m = motions.length
  const dual = new Float64Array(m * 8)
  motions.forEach(({ turn: [x, y, z, w], shift: [tx, ty, tz] }, j) => {
    // Dual part ½·t·q.
    dual.set(
      [
        x,
        y,
        z,
        w,
        0.5 * (tx * w + ty * z - tz * y),
        0.5 * (-tx * z + ty * w + tz * x),
        0.5 * (tx * y - ty * x + tz * w),
        -0.5 * (tx * x + ty * y + tz * z),
      ],
      j * 8,
    )
  })
  const out = new Float32Array(positions.length)
  const b = new Float64Array(8)
  for (let v = 0; v < positions.length / 3; v++) {
    let most = 0
    for (let j = 1; j < m; j++) if (weights[v * m + j]! > weights[v * m + most]!) most = j
    b.fill(0)
    for (let j = 0; j < m; j++) {
      let w = weights[v * m + j]!
      if (w < 1e-5) continue
      // q and −q are the same turn; the blend goes the short way from the strongest.
      let dot = 0
      for (let k = 0; k < 4; k++) dot += dual[j * 8 + k]! * dual[most * 8 + k]!
      if (dot < 0) w = -w
      for (let k = 0; k < 8; k++) b[k]! += w * dual[j * 8 + k]!
    }
    const l = 1 / (Math.hypot(b[0]!, b[1]!, b[2]!, b[3]!) || 1)
    for (let k = 0; k < 8; k++) b[k]! *= l
    const [x, y, z, w, dx, dy, dz, dw] = b as unknown as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const px = positions[v * 3]!,
      py = positions[v * 3 + 1]!,
      pz = positions[v * 3 + 2]!
    const cx = y * pz - z * py + w * px,
      cy = z * px - x * pz + w * py,
      cz = x * py - y * px + w * pz
    out[v * 3] = px + 2 * (y * cz - z * cy) + 2 * (w * dx - dw * x + y * dz - z * dy)
    out[v * 3 + 1] = py + 2 * (z * cx - x * cz) + 2 * (w * dy - dw * y + z * dx - x * dz)
    out[v * 3 + 2] = pz + 2 * (x * cy - y * cx) + 2 * (w * dz - dw * z + x * dy - y * dx)
  }
  return out
}
