import { vertexNormals } from '../../mesh/measure'
import type { Contour } from '../../mesh/contours'
import type { Mesh } from '../../mesh/mesh'
import { borderLines, regionBorders, type Border } from '../surface/borders'

/** mm of an edge by what masks it. */
export interface MaskKinds {
  tape: number
  putty: number
  liquid: number
}

/**
 * Least radius, mm, to which each can be laid along an edge without pleats or gaps: starting values, judgement. What
 * turns tighter is painted with liquid mask.
 */
export const FOLLOWS = { tape: 10, putty: 3 } as const
/** mm to each side over which a turn is told: less is the mesh's own zigzag */
const ARM = 2.5

/**
 * What masks each edge between two regions, by how tightly it turns within the skin (geodesic curvature): tape bends
 * over whatever the skin does, but kinks when it has to turn in its own plane.
 *
 * @param labels region number per vertex
 */
export function edgeMasks(mesh: Mesh, labels: Uint8Array): { a: number; b: number; masks: MaskKinds }[] {
  const normals = vertexNormals(mesh)
  return borderLines(mesh, labels).map(({ a, b, lines }) => {
    const masks: MaskKinds = { tape: 0, putty: 0, liquid: 0 }
    for (const line of lines) weigh(line, normals, masks)
    return { a, b, masks }
  })
}

/** Edges that regions share, each with its length and what masks it. */
export function maskedBorders(mesh: Mesh, labels: Uint8Array): (Border & { masks: MaskKinds })[] {
  const kinds = edgeMasks(mesh, labels)
  return regionBorders(mesh, labels).map((b) => ({
    ...b,
    masks: kinds.find((k) => k.a === b.a && k.b === b.b)?.masks ?? { tape: 0, putty: 0, liquid: 0 },
  }))
}

function weigh({ points, edges, closed }: Contour, normals: Float32Array, masks: MaskKinds): void {
  const n = points.length / 3
  const far = (i: number, j: number): number =>
    Math.hypot(
      points[3 * i]! - points[3 * j]!,
      points[3 * i + 1]! - points[3 * j + 1]!,
      points[3 * i + 2]! - points[3 * j + 2]!,
    )
  /** The point an arm's length on, and mm to it; null past the end of an open line. */
  const along = (from: number, step: 1 | -1): { at: number; mm: number } | null => {
    let mm = 0,
      i = from
    while (mm < ARM) {
      let next = i + step
      if (closed) next = (next + n) % n
      if (next < 0 || next >= n || next === from) return mm > ARM / 2 ? { at: i, mm } : null
      mm += far(i, next)
      i = next
    }
    return { at: i, mm }
  }
  for (let i = 0; i < n; i++) {
    const before = closed ? (i + n - 1) % n : i - 1,
      after = closed ? (i + 1) % n : i + 1
    const own = ((before >= 0 ? far(before, i) : 0) + (after < n ? far(i, after) : 0)) / 2
    const p = along(i, -1),
      q = along(i, 1)
    // A ring or a scrap too short to be measured is a dot.
    if (!p || !q) {
      masks[closed ? 'liquid' : 'putty'] += own
      continue
    }
    const radius = turn(i, p.at, q.at, (p.mm + q.mm) / 2)
    masks[radius >= FOLLOWS.tape ? 'tape' : radius >= FOLLOWS.putty ? 'putty' : 'liquid'] += own
  }

  /** Radius of the circle within the tangent plane through the point and both ends of its arms. */
  function turn(i: number, before: number, after: number, arm: number): number {
    const a = 3 * edges[2 * i]!,
      b = 3 * edges[2 * i + 1]!
    const nx = normals[a]! + normals[b]!,
      ny = normals[a + 1]! + normals[b + 1]!,
      nz = normals[a + 2]! + normals[b + 2]!
    const l = nx * nx + ny * ny + nz * nz || 1
    const flat = (j: number, sign: number): [number, number, number] => {
      const d = [0, 1, 2].map((k) => sign * (points[3 * j + k]! - points[3 * i + k]!))
      const h = (d[0]! * nx + d[1]! * ny + d[2]! * nz) / l
      return [d[0]! - h * nx, d[1]! - h * ny, d[2]! - h * nz]
    }
    const u = flat(before, -1),
      v = flat(after, 1)
    const lu = Math.hypot(...u),
      lv = Math.hypot(...v)
    if (lu === 0 || lv === 0) return 0
    const cos = (u[0] * v[0] + u[1] * v[1] + u[2] * v[2]) / (lu * lv)
    const angle = Math.acos(Math.max(-1, Math.min(1, cos)))
    return angle > 1e-6 ? arm / angle : Infinity
  }
}
