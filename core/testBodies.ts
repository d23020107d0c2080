import type { Mesh } from './mesh/mesh'
import { tube } from './shape/cylinder'

/** Bodies with known measures, for tests and benchmarks. */
export function boxBody(w: number, d: number, h: number, x = 0, y = 0, z = 0): Mesh {
  const positions = new Float32Array(24)
  for (let i = 0; i < 8; i++) positions.set([x + (i & 1 ? w : 0), y + (i & 2 ? d : 0), z + (i & 4 ? h : 0)], i * 3)
  return { positions, triangles: new Uint32Array([0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7, 5]) }
}

/** Sphere by subdividing an octahedron n times; corners lie on the sphere. */
export function sphereBody(radius: number, n: number, centre: readonly [number, number, number] = [0, 0, 0]): Mesh {
  let p = [[1, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]]
  let t = [[0, 2, 4], [2, 1, 4], [1, 3, 4], [3, 0, 4], [2, 0, 5], [1, 2, 5], [3, 1, 5], [0, 3, 5]]
  for (let k = 0; k < n; k++) {
    const middles = new Map<string, number>(), next: number[][] = []
    const middle = (a: number, b: number): number => {
      const key = a < b ? `${a},${b}` : `${b},${a}`
      const there = middles.get(key)
      if (there !== undefined) return there
      const m = [0, 1, 2].map((i) => p[a]![i]! + p[b]![i]!), l = Math.hypot(...m)
      p.push(m.map((v) => v / l))
      middles.set(key, p.length - 1)
      return p.length - 1
    }
    for (const [a, b, c] of t as [number, number, number][]) {
      const ab = middle(a, b), bc = middle(b, c), ca = middle(c, a)
      next.push([a, ab, ca], [ab, b, bc], [ca, bc, c], [ab, bc, ca])
    }
    t = next
  }
  p = p.map((v) => v.map((c, i) => c * radius + centre[i]!))
  return { positions: new Float32Array(p.flat()), triangles: new Uint32Array(t.flat()) }
}

export const cylinderBody = (radius: number, height: number, sides = 96): Mesh => tube([[0, 0, 0], [0, 0, height]], [radius, radius], sides)
