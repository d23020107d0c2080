import { bounds } from '../mesh/mesh'
import type { Tree } from '../mesh/tree'
import { chooseBlocks, withNeighbours } from './blockGrid'
import { B3, emptyField, INSIDE } from './field'
import { propagate } from './propagate'
import { scatterPoints } from './scatterPoints'

/** What a strewn and passed-on distance may exceed the true one by, in voxels (points lie half a voxel apart). */
const OVER = 0.4

/**
 * A coarse answer to "how far is the skin at least", at the price of one look-up: for routes that feel their way
 * through free space and need exact distances only where it gets narrow. Memory grows with the volume within reach
 * of the skin.
 */
export class Clearance {
  private readonly field: ReturnType<typeof emptyField>
  private readonly distance: Float32Array

  /**
   * @param voxel mm; answers are low by up to about 1.3 voxels
   * @param reach mm; the largest answer
   */
  constructor(
    tree: Tree,
    voxel: number,
    private readonly reach: number,
  ) {
    const box = bounds(tree.mesh)
    const pad = reach + voxel
    this.field = emptyField(
      {
        min: [box.min[0] - pad, box.min[1] - pad, box.min[2] - pad],
        max: [box.max[0] + pad, box.max[1] + pad, box.max[2] + pad],
      },
      voxel,
    )
    this.field.places = chooseBlocks(this.field, tree, 0, reach)
    const grid = withNeighbours(this.field)
    this.distance = new Float32Array((grid.places.length / 3) * B3).fill(Infinity)
    const points = scatterPoints(tree.mesh, grid, this.distance)
    propagate(grid, { distance: this.distance, ...points }, reach + 2 * voxel, new Uint8Array(this.distance.length))
  }

  /** mm; no more than the distance to the skin, and no more than the reach; 0 deep inside */
  atLeast(x: number, y: number, z: number): number {
    const { origin, voxel, size, table } = this.field
    const gx = (x - origin[0]) / voxel,
      gy = (y - origin[1]) / voxel,
      gz = (z - origin[2]) / voxel
    const ix = Math.round(gx),
      iy = Math.round(gy),
      iz = Math.round(gz)
    // The grid holds everything within reach of the body.
    if (ix < 0 || iy < 0 || iz < 0 || ix >= size[0] * 8 || iy >= size[1] * 8 || iz >= size[2] * 8) return this.reach
    const block = table[((iz >> 3) * size[1] + (iy >> 3)) * size[0] + (ix >> 3)]!
    if (block < 0) return block === INSIDE ? 0 : this.reach
    const aside = Math.hypot(gx - ix, gy - iy, gz - iz)
    const d = this.distance[(block << 9) | ((iz & 7) << 6) | ((iy & 7) << 3) | (ix & 7)]! - (aside + OVER) * voxel
    return d < 0 ? 0 : d > this.reach ? this.reach : d
  }
}
