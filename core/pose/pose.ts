import { bad, good, silent, type Answer, type Report } from '../answer'
import { weights as barycentric } from '../mesh/transferColours'
import { ClosestWalk } from '../mesh/closest'
import { bounds, boxDiagonal, type Mesh } from '../mesh/mesh'
import { simplify } from '../mesh/simplify'
import { treeOf } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { settled } from './arap'
import { paintOver, type WeightDab } from './paintOver'
import { poseQuality, type PoseReport } from './quality'
import { bonesOf, motionsOf, type Joint, type Motion } from './skeleton'
import { skinned } from './skin'
import { filledOut } from './volume'
import { boneWeights } from './weights'
import { message } from '../words/message'

export interface PoseOptions {
  joints: readonly Joint[]
  /** joint that the whole part follows rigidly (armour, helmet); null bends the skin */
  rigid: number | null
  /** let the skin near the joints settle after blending */
  settle: boolean
  /** where a brush said which joint the skin follows */
  paint?: readonly WeightDab[]
}
/** Faces of the copy on which weights are found and the skin settles. */
const LEAN = 16_000
/** A vertex that follows one joint by more than this is held while the rest settles. */
const ALONE = 0.985

/**
 * Bends the sculpt at its joints: heat weights, dual quaternions, and a settling of the skin near the joints, on a lean
 * copy; the full skin follows it by its own nearest places, detail and all.
 */
export async function pose(
  mesh: Mesh,
  { joints, rigid, settle, paint = [] }: PoseOptions,
  report: Report = silent,
): Promise<Answer<{ mesh: Mesh; report: PoseReport }>> {
  const problem = checkJoints(joints, rigid)
  if (problem) return problem
  const motions = motionsOf(joints)
  const m = joints.length
  if (rigid !== null) {
    const all = new Float32Array((mesh.positions.length / 3) * m)
    for (let v = rigid; v < all.length; v += m) all[v] = 1
    return good({
      mesh: { ...mesh, positions: skinned(mesh.positions, all, motions) },
      report: { flipped: 0, volumeChange: 0, joints: [] },
    })
  }
  const lean = await leanCopy(mesh)
  const astray = checkInside(lean, joints)
  if (astray) return astray
  report(0.1)
  const leanWeights = paintOver(lean.positions, boneWeights(lean, bonesOf(joints), m), m, paint)
  report(0.4)
  const moved = skinned(lean.positions, leanWeights, motions)
  const correction = settle ? correctionOf(lean, moved, leanWeights, joints, motions) : null
  report(0.6)
  const { weights, corrections } = spreadTo(mesh, lean, leanWeights, m, correction)
  report(0.85)
  const positions = skinned(mesh.positions, weights, motions)
  if (corrections) for (let i = 0; i < positions.length; i++) positions[i]! += corrections[i]!
  const posed: Mesh = { ...mesh, positions }
  return good({ mesh: posed, report: poseQuality(mesh, posed, joints, motions, weights) })
}

/** The copy on which weights are found. */
export const leanCopy = (mesh: Mesh): Promise<Mesh> => simplify(mesh, LEAN, boxDiagonal(bounds(mesh)) / 150)

function checkJoints(joints: readonly Joint[], rigid: number | null): ReturnType<typeof bad> | null {
  if (joints.length < 2) return bad('few-joints', message('problems.pose.aPoseNeedsAtLeast'))
  for (const [i, j] of joints.entries())
    if (j.parent >= i || j.parent < -1)
      return bad('joint-order', message('problems.pose.jointHangsOnOneThat', { name: j.name }))
  if (rigid !== null && !(rigid >= 0 && rigid < joints.length))
    return bad('joint-missing', message('problems.pose.theJointThatThisPart'))
  return null
}

/** The skeleton has to lie in the body, by its lean copy, whose tree is needed anyway. */
function checkInside(lean: Mesh, joints: readonly Joint[]): ReturnType<typeof bad> | null {
  const tree = treeOf(lean)
  const outside = joints.filter((j, i) => joints.some((c) => c.parent === i) && !isInside(tree, ...j.position))
  if (outside.length === joints.filter((_, i) => joints.some((c) => c.parent === i)).length)
    return bad(
      'skeleton-outside',
      message('problems.pose.theJointsLieOutsideThe', { outside: outside.slice(0, 3).map((j) => j.name) }),
    )
  return null
}

/** What settling adds to each vertex of the lean copy. */
function correctionOf(
  lean: Mesh,
  moved: Float32Array,
  weights: Float32Array,
  joints: readonly Joint[],
  motions: readonly Motion[],
): Float32Array {
  const m = joints.length
  const held = new Uint8Array(lean.positions.length / 3)
  for (let v = 0; v < held.length; v++) for (let j = 0; j < m; j++) if (weights[v * m + j]! > ALONE) held[v] = 1
  const after = settled(lean, moved, held)
  filledOut(lean, after, joints, motions, weights)
  return after.map((x, i) => x - moved[i]!)
}

/** Weights, and corrections, of the full skin from the nearest places of the lean one. */
export function spreadTo(
  mesh: Mesh,
  lean: Mesh,
  leanWeights: Float32Array,
  m: number,
  correction: Float32Array | null,
): { weights: Float32Array; corrections: Float32Array | null } {
  if (lean === mesh) return { weights: leanWeights, corrections: correction }
  const p = mesh.positions
  const n = p.length / 3
  const weights = new Float32Array(n * m),
    corrections = correction ? new Float32Array(p.length) : null
  const walk = new ClosestWalk(treeOf(lean)),
    { hit } = walk,
    w = new Float64Array(3)
  for (let v = 0; v < n; v++) {
    walk.to(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)
    const f = hit.face * 3
    const { triangles: t } = lean
    barycentric(lean.positions, t[f]! * 3, t[f + 1]! * 3, t[f + 2]! * 3, hit.x, hit.y, hit.z, w)
    for (let k = 0; k < 3; k++) {
      const c = t[f + k]!,
        wk = w[k]!
      for (let j = 0; j < m; j++) weights[v * m + j]! += wk * leanWeights[c * m + j]!
      if (corrections) for (let a = 0; a < 3; a++) corrections[v * 3 + a]! += wk * correction![c * 3 + a]!
    }
  }
  return { weights, corrections }
}
