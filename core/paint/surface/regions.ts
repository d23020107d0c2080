import { closest, closestPoint } from '../../mesh/closest'
import { faceNormals } from '../../mesh/measure'
import { bounds, type Mesh } from '../../mesh/mesh'
import { treeOf } from '../../mesh/tree'

/** Area of each label that occurs, mm²: a third of every face goes to each of its corners' labels. */
export function regionAreas(mesh: Mesh, labels: Uint8Array): Record<number, number> {
  const sums = new Float64Array(256)
  const { areas } = faceNormals(mesh)
  for (let i = 0; i < mesh.triangles.length; i++) sums[labels[mesh.triangles[i]!]!]! += areas[Math.floor(i / 3)]! / 3
  return Object.fromEntries([...sums.entries()].filter(([, area]) => area > 0))
}

export interface RegionView {
  /** mm */
  middle: [number, number, number]
  /** mm: all of the region lies within it */
  radius: number
  /** unit, from where most of it is seen, a little from above */
  toward: [number, number, number]
}

/** From where to look at a region; null when no vertex has its label. Half of the weight is the front's. */
export function regionView(mesh: Mesh, normals: Float32Array, labels: Uint8Array, region: number): RegionView | null {
  const p = mesh.positions
  const sum = [0, 0, 0],
    low = [Infinity, Infinity, Infinity],
    high = [-Infinity, -Infinity, -Infinity]
  let count = 0
  for (let v = 0; v < labels.length; v++) {
    if (labels[v] !== region) continue
    count++
    for (let k = 0; k < 3; k++) {
      sum[k]! += normals[3 * v + k]!
      low[k] = Math.min(low[k]!, p[3 * v + k]!)
      high[k] = Math.max(high[k]!, p[3 * v + k]!)
    }
  }
  if (count === 0) return null
  const d = [0.25, -0.6, 0.2].map((f, k) => f + sum[k]! / count)
  const l = Math.hypot(...d) || 1
  const at = (k: number): number => (low[k]! + high[k]!) / 2
  return {
    middle: [at(0), at(1), at(2)],
    radius: Math.hypot(...[0, 1, 2].map((k) => (high[k]! - low[k]!) / 2)),
    toward: [d[0]! / l, d[1]! / l, d[2]! / l],
  }
}

/** Sets the label of every vertex within `radius` mm of the point whose skin faces the same side; returns how many changed. */
export function brushLabels(
  mesh: Mesh,
  normals: Float32Array,
  labels: Uint8Array,
  point: readonly [number, number, number],
  normal: readonly [number, number, number],
  radius: number,
  label: number,
): number {
  const p = mesh.positions
  let changed = 0
  for (let v = 0; v < labels.length; v++) {
    const dx = p[v * 3]! - point[0],
      dy = p[v * 3 + 1]! - point[1],
      dz = p[v * 3 + 2]! - point[2]
    if (dx * dx + dy * dy + dz * dz > radius * radius || labels[v] === label) continue
    // The far side of a thin cape lies within the brush too, but faces away.
    if (normals[v * 3]! * normal[0] + normals[v * 3 + 1]! * normal[1] + normals[v * 3 + 2]! * normal[2] < -0.2) continue
    labels[v] = label
    changed++
  }
  return changed
}

export interface TransferredLabels {
  labels: Uint8Array
  /** how the copies were laid over each other: as they stand, or one box onto the other */
  by: 'place' | 'box'
  /** share of the vertices that found no old skin near: what a cut or a join has laid bare */
  fresh: number
}

/** Share of the size within which skin counts as the same, and vertices by which the two ways are compared. */
const SAME = 0.012,
  SAMPLE = 600

/**
 * Carries labels from one copy of a sculpt to another (resized, repaired, cut, simplified again): each vertex takes the
 * label of the nearest old skin. Copies are compared as they stand, which a cut leaves in place, and with their boxes laid
 * over each other, which follows a change of size; the way in which the skins lie closer is taken.
 */
export function transferLabels(from: Mesh, labels: Uint8Array, to: Mesh): TransferredLabels {
  const a = bounds(from),
    b = bounds(to)
  const scale = [0, 1, 2].map((k) => (a.max[k]! - a.min[k]!) / Math.max(1e-9, b.max[k]! - b.min[k]!))
  const tree = treeOf(from)
  const hit = closest()
  const p = to.positions,
    t = from.triangles,
    n = p.length / 3
  const ask = (v: number, boxed: boolean): void => {
    const q = [0, 1, 2].map((k) => (boxed ? a.min[k]! + (p[v * 3 + k]! - b.min[k]!) * scale[k]! : p[v * 3 + k]!))
    closestPoint(tree, q[0]!, q[1]!, q[2]!, hit)
  }
  const off = (boxed: boolean): number => {
    const list: number[] = []
    for (let v = 0; v < n; v += Math.max(1, Math.floor(n / SAMPLE))) {
      ask(v, boxed)
      list.push(hit.face < 0 ? Infinity : hit.distance)
    }
    // What a cut has laid bare is far in either way: the middle one tells.
    return list.sort((x, y) => x - y)[Math.floor(list.length / 2)] ?? Infinity
  }
  const boxed = n > 0 && off(true) < off(false)
  const reach = SAME * Math.max(...a.max.map((v, k) => v - a.min[k]!))
  let fresh = 0
  const out = Uint8Array.from({ length: n }, (_, v) => {
    ask(v, boxed)
    if (hit.face < 0) return 0
    if (hit.distance > reach) fresh++
    // The nearest corner of the face decides, so that a label's edge stays where it was.
    let best = Infinity,
      label = 0
    for (let k = 0; k < 3; k++) {
      const w = t[hit.face * 3 + k]!
      const d =
        (from.positions[w * 3]! - hit.x) ** 2 +
        (from.positions[w * 3 + 1]! - hit.y) ** 2 +
        (from.positions[w * 3 + 2]! - hit.z) ** 2
      if (d < best) {
        best = d
        label = labels[w]!
      }
    }
    return label
  })
  return { labels: out, by: boxed ? 'box' : 'place', fresh: n > 0 ? fresh / n : 0 }
}
