import type { Mesh } from './mesh/mesh'

type Point = [number, number, number]
/**
 * Calls `visit` with places spread over faces: corners, along every edge, and inside, no farther apart than `spacing` mm.
 * A long thin body has vertices at its ends alone; the places between are looked at too.
 *
 * @param from first face, and `to` the one after the last
 */
export function overFaces(
  { positions: p, triangles: t }: Mesh,
  spacing: number,
  visit: (x: number, y: number, z: number) => void,
  from = 0,
  to = t.length / 3,
): void {
  const corner = (i: number): Point => [p[3 * t[i]!]!, p[3 * t[i]! + 1]!, p[3 * t[i]! + 2]!]
  for (let f = from; f < to; f++) {
    const [a, b, c] = [corner(3 * f), corner(3 * f + 1), corner(3 * f + 2)]
    const longest = Math.max(apart(a, b), apart(b, c), apart(c, a))
    const n = Math.max(1, Math.ceil(longest / spacing))
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n - i; j++) {
        const u = i / n,
          v = j / n,
          w = 1 - u - v
        visit(u * a[0] + v * b[0] + w * c[0], u * a[1] + v * b[1] + w * c[1], u * a[2] + v * b[2] + w * c[2])
      }
  }
}
const apart = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
