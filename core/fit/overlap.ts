import { good, type Answer } from '../answer'
import { faceNormals, measure } from '../mesh/measure'
import { bounds, concatenate, type Mesh } from '../mesh/mesh'
import { selfIntersections } from '../mesh/selfIntersect'
import { buildTree, treeOf } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { common } from '../shape/solid'

/** Places on each body that are asked whether they lie in the other. */
const ASKED = 400
/** mm under the skin at which they lie, so that flush faces are no overlap and a part laid onto its copy is one */
const UNDER = 0.005

/**
 * mm³ that two closed bodies both claim. Where no face of the one passes through a face of the other and neither lies in
 * the other it is nothing, which takes no boolean to know.
 *
 * @param nearA faces of the first near the second, and the other way round
 */
export async function overlapOf(a: Mesh, b: Mesh, nearA: Mesh, nearB: Mesh): Promise<Answer<number>> {
  if (!crossing(nearA, nearB) && !reachesInto(a, b) && !reachesInto(b, a)) return good(0)
  const shared = await common([a, b])
  return shared.ok ? good(measure(shared.value).volume) : shared
}

function crossing(a: Mesh, b: Mesh): boolean {
  const faces = a.triangles.length / 3
  if (faces === 0 || b.triangles.length === 0) return false
  const tree = buildTree(concatenate([a, b]))
  return selfIntersections(tree, 1, (f, g) => f < faces !== g < faces).pairs.length > 0
}

function reachesInto(mesh: Mesh, other: Mesh): boolean {
  const { min, max } = bounds(other)
  const { positions: p, triangles: t } = mesh
  const { normals } = faceNormals(mesh)
  const step = Math.max(1, Math.floor(t.length / 3 / ASKED))
  for (let f = 0; f < t.length / 3; f += step) {
    const at = (k: number): number =>
      (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3 - UNDER * normals[f * 3 + k]!
    const x = at(0),
      y = at(1),
      z = at(2)
    if (x < min[0] || y < min[1] || z < min[2] || x > max[0] || y > max[1] || z > max[2]) continue
    if (isInside(treeOf(other), x, y, z)) return true
  }
  return false
}
