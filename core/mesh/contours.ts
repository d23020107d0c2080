import type { Mesh } from './mesh'

export interface Contour {
  /** mm, 3 per point */
  points: Float32Array
  /** both vertices of the edge that each point lies on */
  edges: Uint32Array
  closed: boolean
}

/**
 * Lines on the skin along which a field has one value, by linear interpolation in each face. A value at a vertex counts
 * as above the level when it equals it, so that no line passes through a vertex and every crossing is of one edge.
 *
 * @param field one value per vertex
 * @param faces only these faces are looked at (1); all unless given
 */
export function contours(mesh: Mesh, field: ArrayLike<number>, level: number, faces?: Uint8Array): Contour[] {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const at: number[] = [],
    on: number[] = []
  const numberOf = new Map<number, number>()
  /** both neighbours along the line, per crossing; −1 where there is none yet */
  const beside: number[] = []
  const crossing = (a: number, b: number): number => {
    const [i, j] = a < b ? [a, b] : [b, a]
    const key = i * n + j
    const there = numberOf.get(key)
    if (there !== undefined) return there
    const u = (level - field[i]!) / (field[j]! - field[i]!)
    for (let k = 0; k < 3; k++) at.push(p[3 * i + k]! + u * (p[3 * j + k]! - p[3 * i + k]!))
    on.push(i, j)
    numberOf.set(key, numberOf.size)
    beside.push(-1, -1)
    return numberOf.size - 1
  }
  const join = (a: number, b: number): void => {
    if (beside[2 * a]! < 0) beside[2 * a] = b
    else beside[2 * a + 1] = b
  }
  for (let f = 0; f < t.length; f += 3) {
    if (faces && faces[f / 3] !== 1) continue
    let above = 0
    for (let k = 0; k < 3; k++) if (field[t[f + k]!]! >= level) above |= 1 << k
    if (above === 0 || above === 7) continue
    // The corner that is alone on its side: its two edges are crossed.
    const alone = above === 1 || above === 6 ? 0 : above === 2 || above === 5 ? 1 : 2
    const c = t[f + alone]!,
      a = crossing(c, t[f + ((alone + 1) % 3)]!),
      b = crossing(c, t[f + ((alone + 2) % 3)]!)
    join(a, b)
    join(b, a)
  }
  return chained(beside).map(({ order, closed }) => {
    const points = new Float32Array(order.length * 3),
      edges = new Uint32Array(order.length * 2)
    order.forEach((i, k) => {
      points.set(at.slice(3 * i, 3 * i + 3), 3 * k)
      edges.set(on.slice(2 * i, 2 * i + 2), 2 * k)
    })
    return { points, edges, closed }
  })
}

/** Chains of links, open ones from their ends first. */
function chained(beside: readonly number[]): { order: number[]; closed: boolean }[] {
  const n = beside.length / 2
  const seen = new Uint8Array(n)
  const out: { order: number[]; closed: boolean }[] = []
  const walk = (start: number): void => {
    const order: number[] = []
    let now = start,
      closed = false
    for (;;) {
      seen[now] = 1
      order.push(now)
      const next = [beside[2 * now]!, beside[2 * now + 1]!].find((b) => b >= 0 && seen[b] === 0)
      if (next === undefined) {
        closed = order.length > 2 && (beside[2 * now] === start || beside[2 * now + 1] === start)
        break
      }
      now = next
    }
    if (order.length > 1) out.push({ order, closed })
  }
  for (let i = 0; i < n; i++) if (seen[i] === 0 && (beside[2 * i]! < 0 || beside[2 * i + 1]! < 0)) walk(i)
  for (let i = 0; i < n; i++) if (seen[i] === 0) walk(i)
  return out
}

/** mm */
export function contourLength({ points, closed }: Pick<Contour, 'points' | 'closed'>): number {
  let sum = 0
  const n = points.length / 3
  for (let i = closed ? 0 : 1; i < n; i++) {
    const a = 3 * ((i + n - 1) % n),
      b = 3 * i
    sum += Math.hypot(points[b]! - points[a]!, points[b + 1]! - points[a + 1]!, points[b + 2]! - points[a + 2]!)
  }
  return sum
}
