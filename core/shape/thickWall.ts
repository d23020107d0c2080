import type { Box, Mesh } from '../mesh/mesh'
import { bounds } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { extractSurface, projectOnto } from '../volume/extract'
import { sampleField } from '../volume/field'
import { FunctionDistance, MeshDistance } from '../volume/source'
import { brushAt, brushSlope, type BrushSpot } from './brushSpots'

export interface ThickerWall {
  dabs: readonly BrushSpot[]
  /** mm of wall more where the brush was strongest */
  by: number
}

/** Below this strength of the brush nothing is added, so that the pad ends on the plain wall. */
const LEAST = 0.125

/**
 * What a cavity must give up where the wall is to be thicker: the body from half the plain wall down to the thicker one,
 * near the brush only. Its inner side leaves the plain wall smoothly. Empty when the brush met nothing.
 *
 * @param wall mm, everywhere else
 */
export function thickWallPad(mesh: Mesh, { dabs, by }: ThickerWall, wall: number, voxel: number): Mesh {
  const empty: Mesh = { positions: new Float32Array(), triangles: new Uint32Array() }
  if (dabs.length === 0 || by <= 0) return empty
  const body = bounds(mesh)
  const box: Box = { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] }
  for (const { point, radius } of dabs)
    for (let k = 0; k < 3; k++) {
      box.min[k] = Math.min(box.min[k]!, point[k]! - radius)
      box.max[k] = Math.max(box.max[k]!, point[k]! + radius)
    }
  for (let k = 0; k < 3; k++) {
    box.min[k] = Math.max(box.min[k]!, body.min[k]!)
    box.max[k] = Math.min(box.max[k]!, body.max[k]!)
    if (!(box.min[k]! < box.max[k]!)) return empty
  }
  const skin = new MeshDistance(treeOf(mesh))
  const value = (x: number, y: number, z: number): number => {
    const w = brushAt(dabs, x, y, z)
    const more = Math.max(0, (w - LEAST) / (1 - LEAST))
    const depth = -skin.sample(x, y, z)
    return Math.max(
      depth - wall - by * more + 0.05 * voxel * (1 - more),
      wall / 2 - depth,
      (voxel * (LEAST - w)) / LEAST,
    )
  }
  const slope = 1 + brushSlope(dabs, Math.max(by / (1 - LEAST), voxel / LEAST))
  const source = new FunctionDistance(value, slope, voxel / 8)
  const pad = extractSurface(sampleField(source, box, voxel, 0))
  if (pad.triangles.length > 0) projectOnto(pad, source, 0, voxel)
  return pad
}
