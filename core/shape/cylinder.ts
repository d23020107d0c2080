import type { Mesh } from '../mesh/mesh'
import { frame, type Vector3 } from '../math/vectors'

/**
 * Closed solid of revolution along straight pieces: a ring of radius r at each point of the path. Rings lie
 * across the mean direction of the pieces that meet there. Radius 0 at an end makes a cone's tip.
 */
export function tube(path: readonly Vector3[], radii: readonly number[], sides = 16): Mesh {
  const positions: number[] = [],
    triangles: number[] = []
  const n = path.length
  const direction = (i: number): Vector3 => {
    const a = path[Math.max(0, i - 1)]!,
      b = path[Math.min(n - 1, i + 1)]!
    const d: Vector3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
    const l = Math.hypot(...d) || 1
    return [d[0] / l, d[1] / l, d[2] / l]
  }
  const rings: number[] = []
  let [u, v] = frame(direction(0))
  for (let i = 0; i < n; i++) {
    const d = direction(i)
    // Carry the first ring's axes along, so that the tube does not twist between rings.
    const k = u[0] * d[0] + u[1] * d[1] + u[2] * d[2]
    const w: Vector3 = [u[0] - k * d[0], u[1] - k * d[1], u[2] - k * d[2]]
    const l = Math.hypot(...w)
    if (l > 1e-3) u = [w[0] / l, w[1] / l, w[2] / l]
    else [u] = frame(d)
    v = [d[1] * u[2] - d[2] * u[1], d[2] * u[0] - d[0] * u[2], d[0] * u[1] - d[1] * u[0]]
    rings.push(positions.length / 3)
    for (let s = 0; s < sides; s++) {
      const c = Math.cos((2 * Math.PI * s) / sides) * radii[i]!,
        e = Math.sin((2 * Math.PI * s) / sides) * radii[i]!
      positions.push(
        path[i]![0] + u[0] * c + v[0] * e,
        path[i]![1] + u[1] * c + v[1] * e,
        path[i]![2] + u[2] * c + v[2] * e,
      )
    }
  }
  for (let i = 0; i + 1 < n; i++)
    for (let s = 0; s < sides; s++) {
      const a = rings[i]! + s,
        b = rings[i]! + ((s + 1) % sides),
        c = rings[i + 1]! + s,
        d = rings[i + 1]! + ((s + 1) % sides)
      triangles.push(a, b, d, a, d, c)
    }
  const bottom = positions.length / 3
  positions.push(...path[0]!, ...path[n - 1]!)
  for (let s = 0; s < sides; s++) {
    triangles.push(bottom, rings[0]! + ((s + 1) % sides), rings[0]! + s)
    triangles.push(bottom + 1, rings[n - 1]! + s, rings[n - 1]! + ((s + 1) % sides))
  }
  return { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }
}
