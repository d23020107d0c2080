import type { Mesh } from '../mesh/mesh'
import type { Vector3 } from '../mesh/transform'

const MARGIN = 2.5

/** A plate of the given thickness under all feet: their convex hull grown by a margin, edge chamfered for a blade. */
export function raft(feet: readonly Vector3[], thickness: number): Mesh {
  const points: [number, number][] = feet.flatMap((f) =>
    Array.from(
      { length: 12 },
      (_, k) =>
        [f[0] + Math.cos((k * Math.PI) / 6) * MARGIN, f[1] + Math.sin((k * Math.PI) / 6) * MARGIN] as [number, number],
    ),
  )
  const outline = convexHull(points)
  const cx = outline.reduce((s, p) => s + p[0], 0) / outline.length,
    cy = outline.reduce((s, p) => s + p[1], 0) / outline.length
  const positions: number[] = []
  for (const [x, y] of outline) {
    const l = Math.hypot(x - cx, y - cy) || 1
    positions.push(x - ((x - cx) / l) * thickness, y - ((y - cy) / l) * thickness, 0, x, y, thickness)
  }
  const n = outline.length
  const triangles: number[] = []
  for (let i = 0; i < n; i++) {
    const a = 2 * i,
      b = 2 * ((i + 1) % n)
    triangles.push(a, b, b + 1, a, b + 1, a + 1)
    if (i > 0 && i < n - 1) triangles.push(0, b, a, 1, a + 1, b + 1)
  }
  return { positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }
}

/** Counter-clockwise convex hull (Andrew's monotone chain). */
export function convexHull(points: readonly [number, number][]): [number, number][] {
  const p = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1])
  const turn = (o: [number, number], a: [number, number], b: [number, number]): number =>
    (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0])
  const half = (list: [number, number][]): [number, number][] => {
    const chain: [number, number][] = []
    for (const q of list) {
      while (chain.length > 1 && turn(chain.at(-2)!, chain.at(-1)!, q) <= 0) chain.pop()
      chain.push(q)
    }
    return chain.slice(0, -1)
  }
  return [...half(p), ...half(p.reverse())]
}
