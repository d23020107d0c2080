import { expose, transfer } from 'comlink'
import { balance } from '../../core/fit/balance'
import type { Mesh } from '../../core/mesh/mesh'
import type { Matrix3, Vector3 } from '../../core/math/vectors'
import { transformed } from '../../core/mesh/transform'
import { paintOver, type WeightDab } from '../../core/pose/paintOver'
import { leanCopy, spreadTo } from '../../core/pose/pose'
import { bonesOf, motionsOf, type Joint } from '../../core/pose/skeleton'
import { skinned } from '../../core/pose/skin'
import { boneWeights } from '../../core/pose/weights'

export interface Stand {
  /** how the posed sculpt is placed and sized */
  matrix: Matrix3
  shift: Vector3
  density: number
  infill: number
  /** the other parts as they stand */
  others: { mesh: Mesh; density: number; infill: number }[]
}

/** Bends the copy on screen while a joint is turned. Weights are found once per skeleton, on a lean copy of it. */
let mesh: Mesh | null = null
let weights: Float32Array | null = null
let bones = ''
let stand: Stand | null = null

const worker = {
  open(m: Mesh): void {
    mesh = m
    bones = ''
  },
  standOn(s: Stand | null): void {
    stand = s
  },
  async posed(joints: Joint[], paint: WeightDab[]): Promise<{ positions: Float32Array; tip: number | null } | null> {
    if (!mesh || joints.length < 2) return null
    const key = JSON.stringify([joints.map((j) => [j.parent, j.position]), paint])
    if (key !== bones || !weights) {
      const lean = await leanCopy(mesh)
      const few = paintOver(lean.positions, boneWeights(lean, bonesOf(joints), joints.length), joints.length, paint)
      weights = spreadTo(mesh, lean, few, joints.length, null).weights
      bones = key
    }
    const positions = skinned(mesh.positions, weights, motionsOf(joints))
    return transfer({ positions, tip: tipAngle({ ...mesh, positions }) }, [positions.buffer])
  },
}

/** Degrees until the whole tips over, by the copies on screen; null where that cannot be told. */
function tipAngle(posed: Mesh): number | null {
  if (!stand) return null
  const { matrix, shift, density, infill, others } = stand
  const r = balance([{ mesh: transformed(posed, matrix, shift), density, infill }, ...others], 15)
  return r.ok ? r.value.weakest.angle : null
}
export type PoseWorker = typeof worker
expose(worker)
