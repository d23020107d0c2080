import type { Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import { vertexNormals } from '../mesh/measure'
import type { Vector3 } from '../math/vectors'
import { laplacian } from './laplacian'
import type { Bone } from './skeleton'
import { Factor } from '../math/sparseFactor'
import type { Sparse } from '../math/sparse'

/**
 * How strongly a bone heats the skin nearest to it: Baran and Popović's c. With 1 the blend at a joint is about as long as
 * the limb is thick; their 0.22 makes it twice that, and an elbow of it bulges.
 */
const HEAT = 1
/** Share of that for skin which its nearest bone does not see: only so that nothing is left without a bone. */
const UNSEEN = 1e-4

/**
 * How much of each vertex follows each joint: heat equilibrium on the skin (Baran and Popović 2007), where each vertex is
 * heated by the nearest bone that it sees through the body. Weights of a vertex sum to 1.
 *
 * @param joints number of joints; joints without bones get no weight
 * @returns `joints` weights per vertex
 */
export function boneWeights(mesh: Mesh, bones: readonly Bone[], joints: number): Float32Array {
  const p = mesh.positions
  const n = p.length / 3
  const { starts, near, weights, areas } = laplacian(mesh)
  const tree = treeOf(mesh)
  const normals = vertexNormals(mesh)
  const heat = new Float64Array(n),
    source = new Int32Array(n)
  const order = bones.map((_, i) => i)
  const reach = new Float64Array(bones.length)
  const foot: Vector3[] = []
  for (let v = 0; v < n; v++) {
    const x = p[v * 3]!,
      y = p[v * 3 + 1]!,
      z = p[v * 3 + 2]!
    for (const [i, b] of bones.entries()) {
      foot[i] = nearestOn(b, x, y, z)
      reach[i] = Math.hypot(x - foot[i]![0], y - foot[i]![1], z - foot[i]![2])
    }
    order.sort((a, b) => reach[a]! - reach[b]!)
    const nearest = order[0]!
    // A hair under the skin, so that the ray does not begin on it.
    const e = Math.min(0.02, reach[nearest]! * 0.02)
    const ox = x - normals[v * 3]! * e,
      oy = y - normals[v * 3 + 1]! * e,
      oz = z - normals[v * 3 + 2]! * e
    let seen = -1
    for (const i of order) {
      // Only bones about as near as the nearest: another limb behind it is not this skin's.
      if (reach[i]! > 1.3 * reach[nearest]! + 1e-6) break
      const [dx, dy, dz] = [foot[i]![0] - ox, foot[i]![1] - oy, foot[i]![2] - oz]
      const l = Math.hypot(dx, dy, dz) || 1
      if (!rayBlocked(tree, ox, oy, oz, dx / l, dy / l, dz / l, e, l - e)) {
        seen = i
        break
      }
    }
    const by = seen < 0 ? nearest : seen
    source[v] = bones[by]!.joint
    heat[v] = ((seen < 0 ? UNSEEN : 1) * HEAT * areas[v]!) / Math.max(1e-6, reach[by]! ** 2)
  }
  const matrix: Sparse = {
    diagonal: Float64Array.from(heat, (h, v) => {
      let sum = h
      for (let k = starts[v]!; k < starts[v + 1]!; k++) sum += weights[k]!
      return sum
    }),
    starts,
    columns: near,
    values: weights.map((w) => -w),
  }
  const factor = new Factor(matrix)
  const out = new Float32Array(n * joints)
  for (const joint of new Set(bones.map((b) => b.joint))) {
    const right = Float64Array.from(heat, (h, v) => (source[v] === joint ? h : 0))
    const w = Float64Array.from(source, (s) => (s === joint ? 1 : 0))
    factor.solve(right, w)
    for (let v = 0; v < n; v++) out[v * joints + joint] = Math.max(0, w[v]!)
  }
  for (let v = 0; v < n; v++) {
    let sum = 0
    for (let j = 0; j < joints; j++) sum += out[v * joints + j]!
    for (let j = 0; j < joints; j++)
      out[v * joints + j] = sum > 1e-9 ? out[v * joints + j]! / sum : source[v] === j ? 1 : 0
  }
  return out
}

function nearestOn({ from: a, to: b }: Bone, x: number, y: number, z: number): Vector3 {
  const ex = b[0] - a[0],
    ey = b[1] - a[1],
    ez = b[2] - a[2]
  const l2 = ex * ex + ey * ey + ez * ez
  const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * ex + (y - a[1]) * ey + (z - a[2]) * ez) / l2)) : 0
  return [a[0] + ex * t, a[1] + ey * t, a[2] + ez * t]
}
