import type { Mesh } from '../mesh/mesh'
import { transformed } from '../mesh/transform'

/** Column-major 4 × 4, as glTF writes it. */
export type Matrix4 = readonly number[]
export const identity4: Matrix4 = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]

/** a · b: b is applied first. */
export function product4(a: Matrix4, b: Matrix4): Matrix4 {
  const out = new Array<number>(16).fill(0)
  for (let c = 0; c < 4; c++)
    for (let r = 0; r < 4; r++) for (let k = 0; k < 4; k++) out[c * 4 + r]! += a[k * 4 + r]! * b[c * 4 + k]!
  return out
}

/** The mesh under an affine map; the very same mesh when the map is the identity. Mirroring maps flip the faces. */
export function placed(mesh: Mesh, m: Matrix4): Mesh {
  if (m.every((v, i) => v === identity4[i])) return mesh
  const at = (r: number, c: number): number => m[c * 4 + r]!
  return transformed(
    mesh,
    [at(0, 0), at(0, 1), at(0, 2), at(1, 0), at(1, 1), at(1, 2), at(2, 0), at(2, 1), at(2, 2)],
    [at(0, 3), at(1, 3), at(2, 3)],
  )
}
