import { part, silent, type Report } from '../answer'
import { closest, closestPoint, type Closest } from '../mesh/closest'
import { bounds, type Mesh } from '../mesh/mesh'
import { treeOf, type Tree } from '../mesh/tree'
import { windingNumber, windingOf, type Winding } from '../mesh/winding'
import { extractSurface, projectOnto } from './extract'
import { sampleWhereSignsMeet, type SignSource } from './signField'
import type { DistanceSource } from './source'

/**
 * The solid of a soup: where its generalised winding number is beyond one half either way (Jacobson et al. 2013), so
 * that overlapping shells become one, walls inside vanish and holes are spanned smoothly. A closed, oriented manifold,
 * on the given faces to well under half a voxel wherever there are faces.
 *
 * @param voxel mm; what is thinner than about two of them may be lost
 * @throws RangeError when the voxel is absurdly small for the body
 */
export function rebuild(mesh: Mesh, voxel: number, report: Report = silent): Mesh {
  const tree = treeOf(mesh)
  const source = new WindingDistance(tree, voxel)
  const field = sampleWhereSignsMeet(source, bounds(mesh), voxel, part(report, 0, 0.8))
  const surface = extractSurface(field, part(report, 0.8, 0.88))
  projectOnto(surface, source, 0, voxel, part(report, 0.88, 1))
  return surface
}

/**
 * A winding number this far from one half is on the same side anywhere within that share of the distance to the nearest
 * face: at distance d past a rim it changes by 1/(2πd) a millimetre, so by at most −ln(1 − 0.6)/(2π) = 0.15 on the way.
 */
const CLEAR = 0.4,
  STRIDE = 0.6

/**
 * Distance to the faces where these bound the solid, and what the winding number lacks to one half (in mm by the
 * voxel) where a hole does: both vanish together, so the zero is one surface. Negative inside.
 */
class WindingDistance implements DistanceSource, SignSource {
  readonly lipschitz = 1
  private readonly hit: Closest = closest()
  private readonly probe: Closest = closest()
  private readonly winding: Winding
  /** where the winding number was last computed, what it was beyond one half, and how far from there no face lies */
  private readonly anchor = { x: NaN, y: NaN, z: NaN, excess: 0, free: 0 }
  private x = 0
  private y = 0
  private z = 0
  private value = 0

  constructor(
    private readonly tree: Tree,
    private readonly voxel: number,
  ) {
    this.winding = windingOf(tree)
  }

  /** |w| − ½: positive inside */
  excess(x: number, y: number, z: number): number {
    return Math.abs(windingNumber(this.winding, x, y, z)) - 0.5
  }

  near(x: number, y: number, z: number, within: number): boolean {
    return closestPoint(this.tree, x, y, z, this.probe, within) !== Infinity
  }

  sample(x: number, y: number, z: number): number {
    this.x = x
    this.y = y
    this.z = z
    const { anchor: k } = this
    const sx = x - k.x,
      sy = y - k.y,
      sz = z - k.z
    const known = Math.abs(k.excess) > CLEAR && sx * sx + sy * sy + sz * sz < STRIDE * STRIDE * k.free * k.free
    const e = known ? k.excess : this.excess(x, y, z)
    const most = Math.max(4 * this.voxel * Math.abs(e), 1e-6)
    const d = Math.min(most, closestPoint(this.tree, x, y, z, this.hit, most))
    if (!known) {
      k.x = x
      k.y = y
      k.z = z
      k.excess = e
      k.free = d
    }
    return (this.value = e > 0 ? -d : d)
  }

  gradient(out: Float64Array): void {
    const { x, y, z, hit } = this
    let gx: number, gy: number, gz: number
    if (hit.face >= 0) {
      const side = this.value < 0 ? -1 : 1
      gx = side * (x - hit.x)
      gy = side * (y - hit.y)
      gz = side * (z - hit.z)
    } else {
      const h = this.voxel / 4
      gx = this.excess(x - h, y, z) - this.excess(x + h, y, z)
      gy = this.excess(x, y - h, z) - this.excess(x, y + h, z)
      gz = this.excess(x, y, z - h) - this.excess(x, y, z + h)
    }
    const l = Math.hypot(gx, gy, gz) || 1
    out[0] = gx / l
    out[1] = gy / l
    out[2] = gz / l
  }
}
