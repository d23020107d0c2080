import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import { COVERED } from '../shape/drillSkin'
import { brushAt, type Dab } from '../shape/dabs'
import { sphereDirections } from '../shape/directions'

/** How much a scar counts there, against 1 for plain skin that all can see. */
export const WEIGHT = { focal: 8, hidden: 0.1, covered: 0 }
const LOOKS = sphereDirections(48)

export interface Importance {
  /** per face: what a mm² of scar counts */
  weights: Float32Array
  /** per face: 1 where the brush said that nothing may touch */
  focal: Uint8Array
}

/**
 * What a scar costs on each face: much on focal areas, nothing where another part or the plate will cover it, little where
 * no eye reaches (the inside of a cavity, deep folds), 1 elsewhere (methods.md 4).
 *
 * @param others parts that will cover some of the skin when all is put together
 */
export function scarImportance(mesh: Mesh, focalDabs: readonly Dab[], others: readonly Mesh[] = []): Importance {
  const { positions: p, triangles: t } = mesh
  const { normals } = faceNormals(mesh)
  const tree = treeOf(mesh)
  const covers = others.map((m) => treeOf(m))
  const hit = closest()
  const weights = new Float32Array(t.length / 3),
    focal = new Uint8Array(t.length / 3)
  for (let f = 0; f < weights.length; f++) {
    const [x, y, z] = [0, 1, 2].map(
      (k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3,
    ) as [number, number, number]
    if (covers.some((c) => closestPoint(c, x, y, z, hit, COVERED) !== Infinity)) {
      weights[f] = WEIGHT.covered
      continue
    }
    const n = [normals[f * 3]!, normals[f * 3 + 1]!, normals[f * 3 + 2]!] as const
    let free = 0,
      asked = 0
    for (const d of LOOKS) {
      const c = d[0] * n[0] + d[1] * n[1] + d[2] * n[2]
      if (c < 0.1) continue
      asked += c
      if (!rayBlocked(tree, x + 0.02 * n[0], y + 0.02 * n[1], z + 0.02 * n[2], ...d)) free += c
    }
    // Half the sky is as good as all of it to an eye.
    const seen = asked > 0 ? Math.min(1, (2 * free) / asked) : 0
    focal[f] = seen > 0.2 && brushAt(focalDabs, x, y, z) > 0.5 ? 1 : 0
    weights[f] = focal[f] ? WEIGHT.focal : WEIGHT.hidden + (1 - WEIGHT.hidden) * seen
  }
  return { weights, focal }
}
