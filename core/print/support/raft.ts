import { planeHull } from '../../mesh/planeHull'
import type { Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'

const MARGIN = 2.5
/** mm; feet nearer than this stand on one raft */
const TOGETHER = 12
type Point = [number, number]

/**
 * Plates of the given thickness under the feet, edges chamfered for a blade: one for each group of feet that stand near each
 * other. A plate is the convex hull of its feet grown by a margin; plates that would overlap become one.
 */
export function rafts(feet: readonly Vector3[], thickness: number): Mesh[] {
  let groups = neighbours(feet).map((g) => ({ feet: g, outline: outlineOf(g) }))
  for (let merged = true; merged;) {
    merged = false
    search: for (let i = 0; i < groups.length; i++)
      for (let j = i + 1; j < groups.length; j++) {
        if (apart(groups[i]!.outline, groups[j]!.outline)) continue
        const both = [...groups[i]!.feet, ...groups[j]!.feet]
        groups = groups.filter((_, k) => k !== i && k !== j)
        groups.push({ feet: both, outline: outlineOf(both) })
        merged = true
        break search
      }
  }
  return groups.map((g) => plate(g.outline, thickness))
}

/** Feet in groups, each foot within reach of another of its group. */
function neighbours(feet: readonly Vector3[]): Vector3[][] {
  const left = new Set(feet)
  const groups: Vector3[][] = []
  for (const first of feet) {
    if (!left.delete(first)) continue
    const group = [first]
    for (const f of group)
      for (const o of left)
        if (Math.hypot(o[0] - f[0], o[1] - f[1]) < TOGETHER) {
          left.delete(o)
          group.push(o)
        }
    groups.push(group)
  }
  return groups
}

const outlineOf = (feet: readonly Vector3[]): Point[] =>
  planeHull(
    feet.flatMap((f) =>
      Array.from({ length: 12 }, (_, k): Point => [
        f[0] + Math.cos((k * Math.PI) / 6) * MARGIN,
        f[1] + Math.sin((k * Math.PI) / 6) * MARGIN,
      ]),
    ),
  )

/** Whether a line parts two convex outlines: then one along an edge of either does. */
function apart(a: readonly Point[], b: readonly Point[]): boolean {
  const beyond = (own: readonly Point[], other: readonly Point[]): boolean =>
    own.some((p, i) => {
      const q = own[(i + 1) % own.length]!
      return other.every((o) => (q[0] - p[0]) * (o[1] - p[1]) - (q[1] - p[1]) * (o[0] - p[0]) < 0)
    })
  return beyond(a, b) || beyond(b, a)
}

function plate(outline: readonly Point[], thickness: number): Mesh {
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
