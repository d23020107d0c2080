import type { Vector3 } from '../mesh/transform'

/** n unit vectors spread evenly over the sphere (Fibonacci lattice, Swinbank and Purser 2006). */
export function sphereDirections(n: number): Vector3[] {
  const golden = Math.PI * (3 - Math.sqrt(5))
  return Array.from({ length: n }, (_, i) => {
    const z = 1 - (2 * i + 1) / n
    const r = Math.sqrt(1 - z * z)
    return [r * Math.cos(golden * i), r * Math.sin(golden * i), z] as const
  })
}
