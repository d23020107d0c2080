import { faceCross, lengthOf } from '../mesh/face'
import { vertexNormals } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { apply3, fromQuaternion, type Vector3 } from '../math/vectors'
import type { Joint, Motion } from './skeleton'

const ROUNDS = 4

/** Signed volume between a face and a point. */
export function tetrahedron(p: Float32Array, a: number, b: number, c: number, o: Vector3): number {
  const x = (i: number, k: number): number => p[i * 3 + k]! - o[k]!
  return (
    (x(a, 0) * (x(b, 1) * x(c, 2) - x(b, 2) * x(c, 1)) +
      x(a, 1) * (x(b, 2) * x(c, 0) - x(b, 0) * x(c, 2)) +
      x(a, 2) * (x(b, 0) * x(c, 1) - x(b, 1) * x(c, 0))) /
    6
  )
}

/** Where a joint stands in the pose. */
export const jointAt = (joint: Joint, { turn, shift }: Motion): [number, number, number] =>
  apply3(fromQuaternion(turn), joint.position).map((v, k) => v + shift[k]!) as [number, number, number]

/**
 * Gives the skin about each joint the volume back that it had: moved along its normals, most in the middle of the joint
 * and not at all where it follows one bone alone.
 *
 * @param posed positions, 3 per vertex; changed in place
 */
export function filledOut(
  rest: Mesh,
  posed: Float32Array,
  joints: readonly Joint[],
  motions: readonly Motion[],
  weights: Float32Array,
): void {
  const m = joints.length
  const t = rest.triangles
  const n = rest.positions.length / 3
  const cross = new Float64Array(3)
  for (const [j, joint] of joints.entries()) {
    if (joint.parent < 0 || Math.abs(joint.turn[3]) > 0.99999) continue
    const share = Float32Array.from({ length: n }, (_, v) => 4 * weights[v * m + j]! * weights[v * m + joint.parent]!)
    const about: number[] = []
    let before = 0
    for (let f = 0; f < t.length; f += 3) {
      if (share[t[f]!]! + share[t[f + 1]!]! + share[t[f + 2]!]! < 0.03) continue
      about.push(f)
      before += tetrahedron(rest.positions, t[f]!, t[f + 1]!, t[f + 2]!, joint.position)
    }
    const at = jointAt(joint, motions[j]!)
    for (let round = 0; round < ROUNDS; round++) {
      const normals = vertexNormals({ positions: posed, triangles: t })
      let now = 0,
        swept = 0
      for (const f of about) {
        const [a, b, c] = [t[f]!, t[f + 1]!, t[f + 2]!]
        now += tetrahedron(posed, a, b, c, at)
        faceCross(posed, a * 3, b * 3, c * 3, cross)
        swept += (lengthOf(cross) / 2) * ((share[a]! + share[b]! + share[c]!) / 3)
      }
      if (!(swept > 1e-9)) break
      const by = (before - now) / swept
      for (let v = 0; v < n; v++)
        if (share[v]! > 1e-4) for (let k = 0; k < 3; k++) posed[v * 3 + k]! += by * share[v]! * normals[v * 3 + k]!
    }
  }
}
