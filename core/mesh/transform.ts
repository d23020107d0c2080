import { apply3, determinant, type Matrix3, type Vector3 } from '../math/vectors'
import { reversed, type Mesh } from './mesh'

/** x ↦ M·x + t for every vertex, computed in double precision. Mirroring maps (det < 0) flip the faces. */
export function transformed(mesh: Mesh, m: Matrix3, t: Vector3): Mesh {
  const p = mesh.positions
  const positions = new Float32Array(p.length)
  for (let i = 0; i < p.length; i += 3) {
    const x = p[i]!,
      y = p[i + 1]!,
      z = p[i + 2]!
    positions[i] = m[0] * x + m[1] * y + m[2] * z + t[0]
    positions[i + 1] = m[3] * x + m[4] * y + m[5] * z + t[1]
    positions[i + 2] = m[6] * x + m[7] * y + m[8] * z + t[2]
  }
  const { normals, ...rest } = mesh
  const moved = { ...rest, positions, ...(normals ? { normals: turnedNormals(normals, m) } : {}) }
  return determinant(m) < 0 ? reversed(moved) : moved
}

/** Grown by a factor along each axis about a point, mm. */
export const scaledMesh = (mesh: Mesh, f: Vector3, about: Vector3): Mesh =>
  transformed(
    mesh,
    [f[0], 0, 0, 0, f[1], 0, 0, 0, f[2]],
    [about[0] * (1 - f[0]), about[1] * (1 - f[1]), about[2] * (1 - f[2])],
  )

/** Unit normals under a linear map: by its cofactors, which is the inverse transpose up to scale. */
function turnedNormals(normals: Float32Array, m: Matrix3): Float32Array {
  const c: Matrix3 = [
    m[4] * m[8] - m[5] * m[7],
    m[5] * m[6] - m[3] * m[8],
    m[3] * m[7] - m[4] * m[6],
    m[2] * m[7] - m[1] * m[8],
    m[0] * m[8] - m[2] * m[6],
    m[1] * m[6] - m[0] * m[7],
    m[1] * m[5] - m[2] * m[4],
    m[2] * m[3] - m[0] * m[5],
    m[0] * m[4] - m[1] * m[3],
  ]
  const out = new Float32Array(normals.length)
  for (let i = 0; i < out.length; i += 3) {
    const n = apply3(c, [normals[i]!, normals[i + 1]!, normals[i + 2]!])
    const l = Math.hypot(...n) || 1
    for (let k = 0; k < 3; k++) out[i + k] = n[k]! / l
  }
  return out
}
