import type { Mesh } from './mesh/mesh'
import type { SupportOptions } from './print/support/support'
import { tube } from './shape/cylinder'
import { extractSurface, projectOnto } from './volume/extract'
import { sampleField } from './volume/field'
import { sphere, union } from './volume/primitives'
import { FunctionDistance } from './volume/source'

/** Bodies with known measures, for tests and benchmarks. */
export function boxBody(w: number, d: number, h: number, x = 0, y = 0, z = 0): Mesh {
  const positions = new Float32Array(24)
  for (let i = 0; i < 8; i++) positions.set([x + (i & 1 ? w : 0), y + (i & 2 ? d : 0), z + (i & 4 ? h : 0)], i * 3)
  return {
    positions,
    triangles: new Uint32Array([
      0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7, 5,
    ]),
  }
}

/** Sphere by subdividing an octahedron n times; corners lie on the sphere. */
export function sphereBody(radius: number, n: number, centre: readonly [number, number, number] = [0, 0, 0]): Mesh {
  let p = [
    [1, 0, 0],
    [-1, 0, 0],
    [0, 1, 0],
    [0, -1, 0],
    [0, 0, 1],
    [0, 0, -1],
  ]
  let t = [
    [0, 2, 4],
    [2, 1, 4],
    [1, 3, 4],
    [3, 0, 4],
    [2, 0, 5],
    [1, 2, 5],
    [3, 1, 5],
    [0, 3, 5],
  ]
  for (let k = 0; k < n; k++) {
    const middles = new Map<string, number>(),
      next: number[][] = []
    const middle = (a: number, b: number): number => {
      const key = a < b ? `${a},${b}` : `${b},${a}`
      const there = middles.get(key)
      if (there !== undefined) return there
      const m = [0, 1, 2].map((i) => p[a]![i]! + p[b]![i]!),
        l = Math.hypot(...m)
      p.push(m.map((v) => v / l))
      middles.set(key, p.length - 1)
      return p.length - 1
    }
    for (const [a, b, c] of t as [number, number, number][]) {
      const ab = middle(a, b),
        bc = middle(b, c),
        ca = middle(c, a)
      next.push([a, ab, ca], [ab, b, bc], [ca, bc, c], [ab, bc, ca])
    }
    t = next
  }
  p = p.map((v) => v.map((c, i) => c * radius + centre[i]!))
  return { positions: new Float32Array(p.flat()), triangles: new Uint32Array(t.flat()) }
}

/** A sheet of quads over (0..1)², laid into space; what lies in one place is not joined. */
export function sheetBody(nu: number, nv: number, at: (u: number, v: number) => [number, number, number]): Mesh {
  const positions: number[] = [],
    triangles: number[] = []
  for (let j = 0; j <= nv; j++) for (let i = 0; i <= nu; i++) positions.push(...at(i / nu, j / nv))
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const a = j * (nu + 1) + i
      triangles.push(a, a + 1, a + nu + 2, a, a + nu + 2, a + nu + 1)
    }
  return { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }
}

export const cylinderBody = (radius: number, height: number, sides = 96): Mesh =>
  tube(
    [
      [0, 0, 0],
      [0, 0, height],
    ],
    [radius, radius],
    sides,
  )

/**
 * A closed body of balls melted together along a chain, each overlapping the next: round, concave between balls,
 * overhanging somewhere whichever way it stands. The same seed gives the same body.
 */
export function chainBody(seed: number, balls = 6, voxel = 0.8): Mesh {
  let state = seed >>> 0 || 1
  const random = (): number => {
    // xorshift32 (Marsaglia 2003)
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    return (state >>> 0) / 4294967296
  }
  const places: { at: [number, number, number]; r: number }[] = []
  let at: [number, number, number] = [0, 0, 0],
    r = 5
  for (let i = 0; i < balls; i++) {
    places.push({ at, r })
    const next = 3 + 4 * random(),
      z = 2 * random() - 1,
      a = 2 * Math.PI * random(),
      s = Math.sqrt(1 - z * z),
      step = 0.8 * (r + next)
    at = [at[0] + step * s * Math.cos(a), at[1] + step * s * Math.sin(a), at[2] + step * z]
    r = next
  }
  const shape = union(1.5, ...places.map((p) => sphere(p.at, p.r)))
  const box = {
    min: [0, 1, 2].map((k) => Math.min(...places.map((p) => p.at[k]! - p.r)) - 1) as [number, number, number],
    max: [0, 1, 2].map((k) => Math.max(...places.map((p) => p.at[k]! + p.r)) + 1) as [number, number, number],
  }
  const source = new FunctionDistance(shape, 1)
  const mesh = extractSurface(sampleField(source, box, voxel, 0))
  projectOnto(mesh, source, 0, voxel)
  return mesh
}

/** How tests have bodies supported, unless they say otherwise. */
export const supportWish: SupportOptions = {
  limit: 40,
  spacing: 3,
  clearance: 0.6,
  lift: 5,
  peelPressure: 12_000,
  greenStrength: 4.5e6,
  automatic: true,
  edits: [],
}
