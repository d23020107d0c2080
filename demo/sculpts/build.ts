import { faceCount, keepFaces, type Box, type Mesh } from '../../core/mesh/mesh'
import { shells } from '../../core/mesh/topology'
import { simplify } from '../../core/mesh/simplify'
import { extractSurface, projectOnto } from '../../core/volume/extract'
import { sampleField } from '../../core/volume/field'
import type { Shape } from '../../core/volume/primitives'
import { FunctionDistance } from '../../core/volume/source'

/** Blends, reliefs and ellipsoid estimates change faster than a true distance; this bounds them with room. */
const LIPSCHITZ = 2

/** Meshes a shape at `voxel` mm; faces are kept at or under `most`, with at most 0.02 mm of deviation. */
export async function build(shape: Shape, box: Box, voxel: number, most = 400_000): Promise<Mesh> {
  const source = new FunctionDistance(shape, LIPSCHITZ)
  const mesh = extractSurface(sampleField(source, box, voxel, 0))
  projectOnto(mesh, source, 0, voxel)
  const whole = largestShell(mesh)
  return faceCount(whole) > most ? simplify(whole, most, 0.02) : whole
}

/** Reliefs can pinch off flecks and bubbles; a sculpt is what hangs together. */
function largestShell(mesh: Mesh): Mesh {
  const { shellOf, count } = shells(mesh)
  const faces = new Uint32Array(count)
  for (const s of shellOf) faces[s]!++
  const main = faces.indexOf(Math.max(...faces))
  return count === 1
    ? mesh
    : keepFaces(
        mesh,
        Uint8Array.from(shellOf, (s) => (s === main ? 1 : 0)),
      )
}
