import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { bounds, type Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'

/** Area of each label that occurs, mm²: a third of every face goes to each of its corners' labels. */
export function regionAreas(mesh: Mesh, labels: Uint8Array): Record<number, number> {
  const sums = new Float64Array(256)
  const { areas } = faceNormals(mesh)
  for (let i = 0; i < mesh.triangles.length; i++) sums[labels[mesh.triangles[i]!]!]! += areas[Math.floor(i / 3)]! / 3
  return Object.fromEntries([...sums.entries()].filter(([, area]) => area > 0))
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

/**
 * Carries labels from one copy of a sculpt to another (resized, repaired, simplified anew): each vertex takes the
 * label of the nearest old skin after both bounding boxes are laid over each other.
 */
export function carryLabels(from: Mesh, labels: Uint8Array, to: Mesh): Uint8Array {
  const a = bounds(from),
    b = bounds(to)
  const scale = [0, 1, 2].map((k) => (a.max[k]! - a.min[k]!) / Math.max(1e-9, b.max[k]! - b.min[k]!))
  const tree = treeOf(from)
  const hit = closest()
  const p = to.positions,
    t = from.triangles
  return Uint8Array.from({ length: p.length / 3 }, (_, v) => {
    const q = [0, 1, 2].map((k) => a.min[k]! + (p[v * 3 + k]! - b.min[k]!) * scale[k]!)
    closestPoint(tree, q[0]!, q[1]!, q[2]!, hit)
    if (hit.face < 0) return 0
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
}
