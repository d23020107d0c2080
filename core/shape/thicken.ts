import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { bounds, type Box, type Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { treeOf } from '../mesh/tree'
import { extractSurface, projectOnto } from '../volume/extract'
import { sampleField } from '../volume/field'
import { FunctionDistance, MeshDistance, type DistanceSource } from '../volume/source'
import { BrushField, brushSlope, type BrushSpot } from './brushSpots'
import { unite } from './solid'
import { message } from '../words/message'

export interface ThickenOptions {
  dabs: readonly BrushSpot[]
  /** mm by which the skin grows outward where the brush was strongest */
  by: number
  voxel: number
}
export interface ThickenReport {
  /** mm³ */
  added: number
}

/** Samples along the longest side of the place that is worked on. */
const MAX_ACROSS = 900

/**
 * Grows the skin outward along its distance field where a brush went, and leaves the rest as it is, face by face: the
 * field of the body less a smooth bump is meshed near the brush only and united with the body.
 */
export async function thicken(
  mesh: Mesh,
  { dabs, by, voxel }: ThickenOptions,
  report: Report = silent,
): Promise<Answer<{ mesh: Mesh; report: ThickenReport }>> {
  const body = bounds(mesh)
  const box: Box = { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] }
  for (const { point, radius } of dabs)
    for (let k = 0; k < 3; k++) {
      box.min[k] = Math.min(box.min[k]!, point[k]! - radius - by)
      box.max[k] = Math.max(box.max[k]!, point[k]! + radius + by)
    }
  for (let k = 0; k < 3; k++) {
    box.min[k] = Math.max(box.min[k]!, body.min[k]! - by - voxel)
    box.max[k] = Math.min(box.max[k]!, body.max[k]! + by + voxel)
    if (!(box.min[k]! < box.max[k]!)) return bad('brush-misses', message('problems.thicken.theBrushDidNotMeet'))
  }
  if (Math.max(...[0, 1, 2].map((k) => box.max[k]! - box.min[k]!)) / voxel > MAX_ACROSS)
    return bad('too-fine', message('problems.thicken.theVoxelIsTooSmall'))
  const source = padded(new MeshDistance(treeOf(mesh)), dabs, by, voxel)
  const pad = extractSurface(sampleField(source, box, voxel, 0, part(report, 0, 0.7)))
  if (pad.triangles.length === 0) return bad('brush-misses', message('problems.thicken.theBrushDidNotMeet'))
  projectOnto(pad, source, 0, voxel, part(report, 0.7, 0.85))
  const made = await unite([mesh, pad])
  if (!made.ok) return made
  return good({ mesh: made.value, report: { added: measure(made.value).volume - measure(mesh).volume } })
}

/** The body grown where the brush went; elsewhere and deep inside nothing, so that only a pad is meshed. */
function padded(body: DistanceSource, dabs: readonly BrushSpot[], by: number, voxel: number): DistanceSource {
  const brush = new BrushField(dabs)
  const value = (x: number, y: number, z: number): number => {
    const weight = brush.at(x, y, z)
    const d = body.sample(x, y, z)
    // Away from the brush the pad ends a hair under the skin, and it reaches only a little way into the body.
    return Math.max(d - by * weight + 0.02 * voxel * (1 - weight), voxel * (0.5 - 4 * weight), -d - 2 * voxel)
  }
  const steep = 1 + brushSlope(dabs, by)
  return new FunctionDistance(value, steep, voxel / 8)
}
