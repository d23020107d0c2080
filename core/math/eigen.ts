import type { Vector3 } from './vectors'

/**
 * Eigenvalues, rising, and unit eigenvectors of a symmetric 3 × 3 matrix (xx, xy, xz, yy, yz, zz), by Jacobi rotations
 * (Golub and Van Loan, 8.5): a handful of sweeps to full precision, whatever the spread of the values.
 */
export function symmetricEigen(m: readonly [number, number, number, number, number, number]): {
  values: [number, number, number]
  vectors: [Vector3, Vector3, Vector3]
} {
  const a = [
    [m[0], m[1], m[2]],
    [m[1], m[3], m[4]],
    [m[2], m[4], m[5]],
  ]
  const v = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ]
  const scale = Math.max(...a.flat().map(Math.abs)) || 1
  for (let sweep = 0; sweep < 20; sweep++) {
    if (Math.abs(a[0]![1]!) + Math.abs(a[0]![2]!) + Math.abs(a[1]![2]!) < 1e-15 * scale) break
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      const apq = a[p]![q]!
      if (apq === 0) continue
      const theta = (a[q]![q]! - a[p]![p]!) / (2 * apq)
      const t = (theta >= 0 ? 1 : -1) / (Math.abs(theta) + Math.hypot(theta, 1))
      const c = 1 / Math.hypot(t, 1),
        s = t * c
      for (let k = 0; k < 3; k++) {
        const kp = a[k]![p]!,
          kq = a[k]![q]!
        a[k]![p] = c * kp - s * kq
        a[k]![q] = s * kp + c * kq
      }
      for (let k = 0; k < 3; k++) {
        const pk = a[p]![k]!,
          qk = a[q]![k]!
        a[p]![k] = c * pk - s * qk
        a[q]![k] = s * pk + c * qk
        const vp = v[k]![p]!,
          vq = v[k]![q]!
        v[k]![p] = c * vp - s * vq
        v[k]![q] = s * vp + c * vq
      }
    }
  }
  const order = [0, 1, 2].sort((i, j) => a[i]![i]! - a[j]![j]!)
  return {
    values: order.map((i) => a[i]![i]!) as [number, number, number],
    vectors: order.map((i) => [v[0]![i]!, v[1]![i]!, v[2]![i]!] as const) as unknown as [Vector3, Vector3, Vector3],
  }
}
