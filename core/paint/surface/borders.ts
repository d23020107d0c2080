import { contours, type Contour } from '../../mesh/contours'
import type { Mesh } from '../../mesh/mesh'
import { vertexNeighbours } from '../../mesh/smooth'

export interface Border {
  a: number
  b: number
  /** mm */
  mm: number
}

/** Times that labels are averaged with their neighbours: takes the steps of the mesh out of an edge. */
const STEPS = 4

/**
 * How long the edges are that regions share. Labels stand on vertices, so an edge between them runs in the steps of
 * the mesh; each label is smoothed as a field first, and the edge is drawn where two fields are equal.
 *
 * @param labels region number per vertex
 * @returns each pair once, the lower number first
 */
export function regionBorders(mesh: Mesh, labels: Uint8Array): Border[] {
  const { positions: p, triangles: t } = mesh
  const ids = [...new Set(labels)].sort((a, b) => a - b)
  if (ids.length < 2) return []
  const n = labels.length
  const { starts, near } = vertexNeighbours(t, n)
  const fields = ids.map((id) => field(labels, id, starts, near))
  const owner = new Uint8Array(n)
  for (let v = 0; v < n; v++)
    for (let k = 1; k < ids.length; k++) if (fields[k]![v]! > fields[owner[v]!]![v]!) owner[v] = k
  const sums = new Map<number, number>()
  const add = (a: number, b: number, mm: number): void => {
    const key = Math.min(a, b) * 256 + Math.max(a, b)
    sums.set(key, (sums.get(key) ?? 0) + mm)
  }
  /** Where two fields are equal between two vertices. */
  const crossing = (v: number, w: number): [number, number, number] => {
    const a = fields[owner[v]!]!,
      b = fields[owner[w]!]!
    const d0 = a[v]! - b[v]!,
      d1 = a[w]! - b[w]!
    const s = d0 - d1 > 1e-9 ? Math.min(1, Math.max(0, d0 / (d0 - d1))) : 0.5
    return [0, 1, 2].map((k) => p[3 * v + k]! + s * (p[3 * w + k]! - p[3 * v + k]!)) as [number, number, number]
  }
  const far = (x: readonly number[], y: readonly number[]): number =>
    Math.hypot(x[0]! - y[0]!, x[1]! - y[1]!, x[2]! - y[2]!)
  for (let f = 0; f < t.length; f += 3) {
    const [i, j, k] = [t[f]!, t[f + 1]!, t[f + 2]!]
    const [x, y, z] = [owner[i]!, owner[j]!, owner[k]!]
    if (x === y && y === z) continue
    if (x !== y && y !== z && x !== z) {
      // Three regions meet: their edges run together in the middle.
      const middle = [0, 1, 2].map((c) => (p[3 * i + c]! + p[3 * j + c]! + p[3 * k + c]!) / 3)
      add(x, y, far(crossing(i, j), middle))
      add(y, z, far(crossing(j, k), middle))
      add(x, z, far(crossing(k, i), middle))
      continue
    }
    const odd = y === z ? [i, j, k] : x === z ? [j, k, i] : [k, i, j]
    add(owner[odd[0]!]!, owner[odd[1]!]!, far(crossing(odd[0]!, odd[1]!), crossing(odd[0]!, odd[2]!)))
  }
  return [...sums].map(([key, mm]) => ({ a: ids[Math.floor(key / 256)]!, b: ids[key % 256]!, mm }))
}

/** The lines along which two regions meet, each pair once, the lower number first. */
export function borderLines(mesh: Mesh, labels: Uint8Array): { a: number; b: number; lines: Contour[] }[] {
  const { triangles: t } = mesh
  const ids = [...new Set(labels)].sort((a, b) => a - b)
  const { starts, near } = vertexNeighbours(t, labels.length)
  const fields = ids.map((id) => field(labels, id, starts, near))
  const owner = new Uint8Array(labels.length)
  for (let v = 0; v < labels.length; v++)
    for (let k = 1; k < ids.length; k++) if (fields[k]![v]! > fields[owner[v]!]![v]!) owner[v] = k
  const out: { a: number; b: number; lines: Contour[] }[] = []
  for (let i = 0; i < ids.length; i++)
    for (let j = i + 1; j < ids.length; j++) {
      const faces = new Uint8Array(t.length / 3)
      let any = false
      for (let f = 0; f < faces.length; f++) {
        const own = [0, 1, 2].map((k) => owner[t[3 * f + k]!]!)
        if (own.every((o) => o === i || o === j) && own.some((o) => o !== own[0])) {
          faces[f] = 1
          any = true
        }
      }
      if (!any) continue
      const between = fields[i]!.map((v, k) => v - fields[j]![k]!)
      out.push({ a: ids[i]!, b: ids[j]!, lines: contours(mesh, between, 0, faces) })
    }
  return out
}

/**
 * How far inside a region each vertex is, as a field that is 0 on its edges: its own smoothed label less the greatest of
 * the others'.
 */
export function regionMargin(mesh: Mesh, labels: Uint8Array, region: number): Float32Array {
  const { starts, near } = vertexNeighbours(mesh.triangles, labels.length)
  const own = field(labels, region, starts, near)
  const others = [...new Set(labels)].filter((id) => id !== region).map((id) => field(labels, id, starts, near))
  return own.map((f, v) => f - others.reduce((most, o) => Math.max(most, o[v]!), 0))
}

function field(labels: Uint8Array, id: number, starts: Uint32Array, near: Uint32Array): Float32Array {
  let now = Float32Array.from(labels, (l) => (l === id ? 1 : 0))
  for (let step = 0; step < STEPS; step++) {
    const next = new Float32Array(now.length)
    for (let v = 0; v < now.length; v++) {
      let sum = 0
      const from = starts[v]!,
        to = starts[v + 1]!
      for (let i = from; i < to; i++) sum += now[near[i]!]!
      next[v] = to > from ? (now[v]! + sum / (to - from)) / 2 : now[v]!
    }
    now = next
  }
  return now
}
