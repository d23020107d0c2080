/** Row-major 3 × 3 rotation or linear map. */
export type Matrix3 = readonly [number, number, number, number, number, number, number, number, number]
export type Vector3 = readonly [number, number, number]

export const identity3: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1]

/** Inner product. */
export const dot = (a: Vector3, b: Vector3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const cross = (a: Vector3, b: Vector3): Vector3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
export const minus = (a: Vector3, b: Vector3): Vector3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
/** The vector at length one; the zero vector stays as it is. */
export function unit(v: Vector3): Vector3 {
  const l = Math.hypot(...v) || 1
  return [v[0] / l, v[1] / l, v[2] / l]
}

export function determinant(m: Matrix3): number {
  return m[0] * (m[4] * m[8] - m[5] * m[7]) - m[1] * (m[3] * m[8] - m[5] * m[6]) + m[2] * (m[3] * m[7] - m[4] * m[6])
}

export function apply3(m: Matrix3, v: Vector3): [number, number, number] {
  return [
    m[0] * v[0] + m[1] * v[1] + m[2] * v[2],
    m[3] * v[0] + m[4] * v[1] + m[5] * v[2],
    m[6] * v[0] + m[7] * v[1] + m[8] * v[2],
  ]
}

/** Rotation from a unit quaternion (x, y, z, w); it is normalised first. */
export function fromQuaternion(q: readonly [number, number, number, number]): Matrix3 {
  const n = Math.hypot(...q) || 1
  const x = q[0] / n,
    y = q[1] / n,
    z = q[2] / n,
    w = q[3] / n
  return [
    1 - 2 * (y * y + z * z),
    2 * (x * y - z * w),
    2 * (x * z + y * w),
    2 * (x * y + z * w),
    1 - 2 * (x * x + z * z),
    2 * (y * z - x * w),
    2 * (x * z - y * w),
    2 * (y * z + x * w),
    1 - 2 * (x * x + y * y),
  ]
}

/** Quaternion (x, y, z, w) of the shortest rotation that takes unit vector `from` to unit vector `to`. */
export function quaternionBetween(from: Vector3, to: Vector3): [number, number, number, number] {
  const d = from[0] * to[0] + from[1] * to[1] + from[2] * to[2]
  if (d < -0.999999) {
    // Opposite vectors: any axis perpendicular to `from` will do.
    const axis: Vector3 = Math.abs(from[0]) > 0.8 ? [-from[2], 0, from[0]] : [0, from[2], -from[1]]
    const n = Math.hypot(...axis)
    return [axis[0] / n, axis[1] / n, axis[2] / n, 0]
  }
  const q: [number, number, number, number] = [
    from[1] * to[2] - from[2] * to[1],
    from[2] * to[0] - from[0] * to[2],
    from[0] * to[1] - from[1] * to[0],
    1 + d,
  ]
  const n = Math.hypot(...q)
  return [q[0] / n, q[1] / n, q[2] / n, q[3] / n]
}

export function multiplyQuaternions(
  a: readonly [number, number, number, number],
  b: readonly [number, number, number, number],
): [number, number, number, number] {
  return [
    a[3] * b[0] + a[0] * b[3] + a[1] * b[2] - a[2] * b[1],
    a[3] * b[1] - a[0] * b[2] + a[1] * b[3] + a[2] * b[0],
    a[3] * b[2] + a[0] * b[1] - a[1] * b[0] + a[2] * b[3],
    a[3] * b[3] - a[0] * b[0] - a[1] * b[1] - a[2] * b[2],
  ]
}

/** Two unit vectors that with `d` form a right-handed frame (Duff et al. 2017). */
export function frame(d: Vector3): [Vector3, Vector3] {
  const s = d[2] >= 0 ? 1 : -1
  const a = -1 / (s + d[2]),
    b = d[0] * d[1] * a
  return [
    [1 + s * d[0] * d[0] * a, s * b, -s * d[0]],
    [b, s + d[1] * d[1] * a, -d[1]],
  ]
}
