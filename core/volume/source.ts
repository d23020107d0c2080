import { ClosestWalk } from '../mesh/closest'
import { isInside } from '../mesh/winding'
import type { Tree } from '../mesh/tree'

/**
 * A signed distance that can be asked anywhere: negative inside, mm. `lipschitz` bounds how fast the value can
 * change per mm of travel; the sampler trusts it when it skips empty space.
 */
export interface DistanceSource {
  readonly lipschitz: number
  sample(x: number, y: number, z: number): number
  /** Unit direction in which the last sampled value grows fastest. */
  gradient(out: Float64Array): void
}

/**
 * True Euclidean distance to a mesh with the sign of its winding number, so open and overlapping meshes work.
 *
 * Successive samples are near each other, and the distance is 1-Lipschitz: the last answer bounds the next
 * search, and gives its sign whenever the step was shorter than the last distance.
 */
export class MeshDistance implements DistanceSource {
  readonly lipschitz = 1
  private readonly walk: ClosestWalk
  private px = NaN
  private py = NaN
  private pz = NaN
  private last = 0

  constructor(private readonly tree: Tree) {
    this.walk = new ClosestWalk(tree)
  }

  sample(x: number, y: number, z: number): number {
    const step = Math.hypot(x - this.px, y - this.py, z - this.pz)
    const before = Math.abs(this.last)
    const d = this.walk.to(x, y, z)
    const inside = step < before ? this.last < 0 : isInside(this.tree, x, y, z)
    this.px = x
    this.py = y
    this.pz = z
    return (this.last = inside ? -d : d)
  }

  gradient(out: Float64Array): void {
    const dx = this.px - this.walk.hit.x,
      dy = this.py - this.walk.hit.y,
      dz = this.pz - this.walk.hit.z
    const k = this.last === 0 ? 0 : 1 / this.last
    out[0] = dx * k
    out[1] = dy * k
    out[2] = dz * k
  }
}

/** Any function as a source; the gradient is taken by central differences of `step` mm. */
export class FunctionDistance implements DistanceSource {
  private x = 0
  private y = 0
  private z = 0

  constructor(
    private readonly f: (x: number, y: number, z: number) => number,
    readonly lipschitz: number,
    private readonly step = 0.01,
  ) {}

  sample(x: number, y: number, z: number): number {
    this.x = x
    this.y = y
    this.z = z
    return this.f(x, y, z)
  }

  gradient(out: Float64Array): void {
    const { x, y, z, step: h, f } = this
    const gx = f(x + h, y, z) - f(x - h, y, z),
      gy = f(x, y + h, z) - f(x, y - h, z),
      gz = f(x, y, z + h) - f(x, y, z - h)
    const l = Math.hypot(gx, gy, gz) || 1
    out[0] = gx / l
    out[1] = gy / l
    out[2] = gz / l
  }
}
