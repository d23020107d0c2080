import { bad, good, type Answer } from '../answer'
import { isCloud, keepFaces, type Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'
import { message } from '../words/message'

export interface TrimOptions {
  /** what lies on the side of each plane to which its normal points is kept */
  planes: readonly { point: Vector3; normal: Vector3 }[]
  /** mm; only what lies inside is kept */
  box: { min: Vector3; max: Vector3 } | null
}

/**
 * Takes away scanned points, or faces of a ragged mesh, that lie beyond the planes or outside the box. A mesh is left
 * open there: faces go whole, by their middle. Solids are cut instead, see `cut`.
 */
export function trim(mesh: Mesh, { planes, box }: TrimOptions): Answer<{ mesh: Mesh; removed: number }> {
  const inside = (x: number, y: number, z: number): boolean => {
    for (const { point: p, normal: n } of planes)
      if ((x - p[0]) * n[0] + (y - p[1]) * n[1] + (z - p[2]) * n[2] < 0) return false
    return (
      !box ||
      (x >= box.min[0] && y >= box.min[1] && z >= box.min[2] && x <= box.max[0] && y <= box.max[1] && z <= box.max[2])
    )
  }
  const { positions: p, triangles: t } = mesh
  if (isCloud(mesh)) {
    const kept: number[] = []
    for (let v = 0; v < p.length; v += 3) if (inside(p[v]!, p[v + 1]!, p[v + 2]!)) kept.push(v)
    if (kept.length === 0) return nothing()
    const pick = <T extends Float32Array | Uint8Array>(from: T, into: T): T => {
      kept.forEach((v, i) => into.set(from.subarray(v, v + 3), i * 3))
      return into
    }
    return good({
      mesh: {
        positions: pick(p, new Float32Array(kept.length * 3)),
        triangles: t,
        ...(mesh.normals ? { normals: pick(mesh.normals, new Float32Array(kept.length * 3)) } : {}),
        ...(mesh.colours ? { colours: pick(mesh.colours, new Uint8Array(kept.length * 3)) } : {}),
      },
      removed: p.length / 3 - kept.length,
    })
  }
  const keep = new Uint8Array(t.length / 3)
  let removed = 0
  for (let f = 0; f < keep.length; f++) {
    const middle = (k: number): number =>
      (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3
    keep[f] = inside(middle(0), middle(1), middle(2)) ? 1 : 0
    removed += 1 - keep[f]!
  }
  if (removed === keep.length) return nothing()
  return good({ mesh: removed === 0 ? mesh : keepFaces(mesh, keep), removed })
}

const nothing = (): ReturnType<typeof bad> => bad('nothing-left', message('problems.trim.nothingOfTheScanIs'))
