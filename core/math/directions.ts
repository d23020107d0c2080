import { frame, type Vector3 } from './vectors'

/** n unit vectors spread evenly over the sphere (Fibonacci lattice, Swinbank and Purser 2006). */
export function sphereDirections(n: number): Vector3[] {
  const golden = Math.PI * (3 - Math.sqrt(5))
  return Array.from({ length: n }, (_, i) => {
    const z = 1 - (2 * i + 1) / n
    const r = Math.sqrt(1 - z * z)
    return [r * Math.cos(golden * i), r * Math.sin(golden * i), z] as const
  })
}

/** Nine unit vectors in a cone about `axis`: the axis, four at half of its half angle (radians), four at its rim. */
export function coneDirections(axis: Vector3, halfAngle: number): Vector3[] {
  const [u, v] = frame(axis)
  return Array.from({ length: 9 }, (_, k) => {
    const a = k === 0 ? 0 : halfAngle * (k < 5 ? 0.5 : 1),
      r = (k * Math.PI) / 2 + (k < 5 ? 0 : Math.PI / 4)
    const c = Math.cos(a),
      x = Math.sin(a) * Math.cos(r),
      y = Math.sin(a) * Math.sin(r)
    return [
      axis[0] * c + u[0] * x + v[0] * y,
      axis[1] * c + u[1] * x + v[1] * y,
      axis[2] * c + u[2] * x + v[2] * y,
    ] as const
  })
}
