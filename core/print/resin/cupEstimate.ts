import { bounds, boxSize, type Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { solidGrid } from '../../volume/solidGrid'
import { CavityFlow } from './cavityFlow'

/** Cells along the longest side. */
const CELLS = 70
/** mm */
const LEAST_VOXEL = 0.5

/**
 * About how large a suction cup closes in the printer with that way up. A void is a cup at a layer when every way from it
 * to the air leads through layers that are printed later, higher up: the same cells in which water would stay if the body
 * stood so on the plate.
 *
 * @returns mm², the largest area of such cells in one layer, by direction
 */
export function cupEstimate(mesh: Mesh): (up: Vector3) => number {
  const voxel = Math.max(LEAST_VOXEL, Math.max(...boxSize(bounds(mesh))) / CELLS)
  const flow = new CavityFlow(solidGrid([mesh], voxel))
  return (up) => flow.largestLayer(flow.settle([-up[0], -up[1], -up[2]], null).filled, up)
}
