import { MeshoptSimplifier } from 'meshoptimizer'
import { keepFaces, type Mesh } from './mesh'

/**
 * Fewer faces by quadric collapse (meshoptimizer), stopping at `target` faces or at `error` mm of deviation,
 * whichever comes first. Vertices of the result are vertices of the input.
 *
 * @param rim open edges stay as they are
 */
export async function simplify(mesh: Mesh, target: number, error: number, rim = false): Promise<Mesh> {
  if (mesh.triangles.length / 3 <= target) return mesh
  await MeshoptSimplifier.ready
  const scale = MeshoptSimplifier.getScale(mesh.positions, 3)
  const [triangles] = MeshoptSimplifier.simplify(
    mesh.triangles,
    mesh.positions,
    3,
    Math.max(12, Math.floor(target) * 3),
    Math.min(1, error / scale),
    rim ? ['LockBorder'] : [],
  )
  return keepFaces({ positions: mesh.positions, triangles }, new Uint8Array(triangles.length / 3).fill(1))
}
