import { transferColours } from '../mesh/transferColours'
import { bounds, boxDiagonal, concatenate, isCloud, splitFaces, type Mesh } from '../mesh/mesh'
import { refine } from '../mesh/refine'
import { simplify } from '../mesh/simplify'
import { nearestNeighbours } from '../scan/neighbours'
import { cloudNormals } from '../scan/normals'
import { thinned } from '../scan/thin'

/**
 * A lighter copy for the screen. Supports stay as they are, and apart, so that they can be told from the body.
 *
 * @param faces how many the body has at most
 * @param bodyFaces faces before this index are the body, the rest its supports
 * @returns the copy, and how many of its first faces are the body
 */
export async function displayCopy(
  mesh: Mesh,
  faces: number,
  bodyFaces?: number,
): Promise<{ mesh: Mesh; bodyFaces: number }> {
  if (isCloud(mesh)) return { mesh: cloudForScreen(mesh), bodyFaces: 0 }
  const total = mesh.triangles.length / 3
  if (bodyFaces === undefined || bodyFaces >= total) {
    const lean = await fitForScreen(mesh, faces)
    return { mesh: lean, bodyFaces: lean.triangles.length / 3 }
  }
  const [body, rest] = splitFaces(mesh, bodyFaces)
  const lean = await fitForScreen(body, faces)
  return { mesh: concatenate([lean, rest]), bodyFaces: lean.triangles.length / 3 }
}

/** Not too many faces to draw, and none too large to brush or to map per vertex. */
async function fitForScreen(mesh: Mesh, faces: number): Promise<Mesh> {
  return transferColours(mesh, refine(await simplify(mesh, faces, 1), boxDiagonal(bounds(mesh)) / 80, faces))
}

/** Points that a screen can tell apart, with normals so that they can be lit. */
function cloudForScreen(cloud: Mesh): Mesh {
  const thin = thinned(cloud, Math.max(1e-6, boxDiagonal(bounds(cloud)) / 600))
  const { positions } = thin
  return thin.normals ? thin : { ...thin, normals: cloudNormals(positions, nearestNeighbours(positions, 10), 10) }
}
