import { closest, closestPoint } from '../../mesh/closest'
import { faceNormals } from '../../mesh/measure'
import type { Mesh } from '../../mesh/mesh'
import { rayBlocked } from '../../mesh/ray'
import type { Vector3 } from '../../math/vectors'
import { treeOf, type Tree } from '../../mesh/tree'
import { COVERED } from '../../shape/drillSkin'
import { brushAt, type BrushSpot } from '../../shape/brushSpots'
import { sphereDirections } from '../../math/directions'

/** How much a scar counts there, against 1 for plain skin that all can see. */
export const WEIGHT = { focal: 8, hidden: 0.1, covered: 0 }
const LOOKS = sphereDirections(48)

export interface Importance {
  /** per face: what a mm² of scar counts */
  weights: Float32Array
  /** per face: 1 where the brush said that nothing may touch */
  focal: Uint8Array
}

/** What a scar counts at a place on the skin. */
export class ScarWeigher {
  private readonly hit = closest()

  /**
   * @param covered skin that another part will hide, as dabs
   * @param others parts that will hide some of it
   */
  constructor(
    private readonly tree: Tree,
    private readonly focal: readonly BrushSpot[],
    private readonly covered: readonly BrushSpot[] = [],
    private readonly others: readonly Tree[] = [],
  ) {}

  /** @param normal outward, unit */
  at([x, y, z]: Vector3, [nx, ny, nz]: Vector3): { weight: number; focal: boolean } {
    if (
      this.others.some((o) => closestPoint(o, x, y, z, this.hit, COVERED) !== Infinity) ||
      (this.covered.length > 0 && brushAt(this.covered, x, y, z) > 0.5)
    )
      return { weight: WEIGHT.covered, focal: false }
    let free = 0,
      asked = 0
    for (const d of LOOKS) {
      const c = d[0] * nx + d[1] * ny + d[2] * nz
      if (c < 0.1) continue
      asked += c
      if (!rayBlocked(this.tree, x + 0.02 * nx, y + 0.02 * ny, z + 0.02 * nz, ...d)) free += c
    }
    // Half the sky is as good as all of it to an eye.
    const seen = asked > 0 ? Math.min(1, (2 * free) / asked) : 0
    const focal = seen > 0.2 && brushAt(this.focal, x, y, z) > 0.5
    return { weight: focal ? WEIGHT.focal : WEIGHT.hidden + (1 - WEIGHT.hidden) * seen, focal }
  }
}

/**
 * What a scar costs on each face: much on focal areas, nothing where another part or the plate will cover it, little where
 * no eye reaches (the inside of a cavity, deep folds), 1 elsewhere (methods.md 4).
 *
 * @param others parts that will cover some of the skin when all is put together
 */
export function scarImportance(mesh: Mesh, focalDabs: readonly BrushSpot[], others: readonly Mesh[] = []): Importance {
  const { positions: p, triangles: t } = mesh
  const { normals } = faceNormals(mesh)
  const weigher = new ScarWeigher(treeOf(mesh), focalDabs, [], others.map(treeOf))
  const weights = new Float32Array(t.length / 3),
    focal = new Uint8Array(t.length / 3)
  for (let f = 0; f < weights.length; f++) {
    const middle = [0, 1, 2].map(
      (k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3,
    ) as [number, number, number]
    const here = weigher.at(middle, [normals[f * 3]!, normals[f * 3 + 1]!, normals[f * 3 + 2]!])
    weights[f] = here.weight
    focal[f] = here.focal ? 1 : 0
  }
  return { weights, focal }
}
