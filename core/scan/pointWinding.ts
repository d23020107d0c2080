import { closest, closestPoint } from '../mesh/closest'
import { treeOf, type Tree } from '../mesh/tree'
import type { SignSource } from '../volume/signField'

/** Oriented points that each stand for a patch of skin. */
export interface Surfels {
  /** mm, 3 per point */
  readonly positions: Float32Array
  /** unit, 3 per point */
  readonly normals: Float32Array
  /** mm² each stands for */
  readonly areas: Float32Array
}

/** Nodes farther than this many radii are taken as one dipole. */
const FAR = 2.3

/**
 * Winding number of oriented points (Barill et al. 2018, Lu et al. 2018), with each dipole softened over a length:
 * w = Σ a·n·r / (4π(r² + ε²)^{3/2}). Noise finer than ε averages out, and across the skin w runs smoothly from 1 to 0
 * as ½(1 − h/√(h² + ε²)).
 */
export class PointWinding implements SignSource {
  private readonly tree: Tree
  /** per node: centroid, summed area vector, radius */
  private readonly dipoles: Float64Array
  private readonly soft: number
  private readonly hit = closest()
  /** value that counts as the skin */
  iso = 0.5

  /** @param softness ε, mm */
  constructor(
    private readonly surfels: Surfels,
    softness: number,
  ) {
    const { positions } = surfels
    // Points as faces without extent: the tree and its nearest-point search serve them as they are.
    const triangles = new Uint32Array(positions.length)
    for (let i = 0; i < triangles.length; i++) triangles[i] = (i / 3) | 0
    this.tree = treeOf({ positions, triangles })
    this.soft = softness * softness
    this.dipoles = this.gather()
  }

  private gather(): Float64Array {
    const { nodes, count, first, right, order, boxes } = this.tree
    const { positions, normals, areas } = this.surfels
    const dipoles = new Float64Array(nodes * 7),
      weight = new Float64Array(nodes)
    for (let node = nodes - 1; node >= 0; node--) {
      const d = node * 7
      let sum = 0
      const take = (a: number, x: number, y: number, z: number, nx: number, ny: number, nz: number): void => {
        sum += a
        dipoles[d]! += a * x
        dipoles[d + 1]! += a * y
        dipoles[d + 2]! += a * z
        dipoles[d + 3]! += nx
        dipoles[d + 4]! += ny
        dipoles[d + 5]! += nz
      }
      if (count[node]! > 0)
        for (let i = first[node]!; i < first[node]! + count[node]!; i++) {
          const p = order[i]! * 3,
            a = areas[order[i]!]!
          take(
            a,
            positions[p]!,
            positions[p + 1]!,
            positions[p + 2]!,
            a * normals[p]!,
            a * normals[p + 1]!,
            a * normals[p + 2]!,
          )
        }
      else
        for (const child of [node + 1, right[node]!]) {
          const c = child * 7
          take(
            weight[child]!,
            dipoles[c]!,
            dipoles[c + 1]!,
            dipoles[c + 2]!,
            dipoles[c + 3]!,
            dipoles[c + 4]!,
            dipoles[c + 5]!,
          )
        }
      weight[node] = sum
      for (let k = 0; k < 3; k++) dipoles[d + k] = sum > 0 ? dipoles[d + k]! / sum : boxes[node * 6 + k]!
      const reach = (k: number): number =>
        Math.max(dipoles[d + k]! - boxes[node * 6 + k]!, boxes[node * 6 + 3 + k]! - dipoles[d + k]!)
      dipoles[d + 6] = Math.hypot(reach(0), reach(1), reach(2))
    }
    return dipoles
  }

  winding(x: number, y: number, z: number): number {
    const { dipoles, soft } = this
    const { count, first, right, order } = this.tree
    const { positions, normals, areas } = this.surfels
    let sum = 0,
      top = 0
    stack[0] = 0
    while (top >= 0) {
      const node = stack[top--]!
      const d = node * 7
      const rx = dipoles[d]! - x,
        ry = dipoles[d + 1]! - y,
        rz = dipoles[d + 2]! - z
      const r2 = rx * rx + ry * ry + rz * rz
      const reach = FAR * dipoles[d + 6]!
      if (r2 > reach * reach) {
        const q = r2 + soft
        sum += (dipoles[d + 3]! * rx + dipoles[d + 4]! * ry + dipoles[d + 5]! * rz) / (q * Math.sqrt(q))
        continue
      }
      const points = count[node]!
      if (points === 0) {
        stack[++top] = right[node]!
        stack[++top] = node + 1
        continue
      }
      for (let i = first[node]!; i < first[node]! + points; i++) {
        const p = order[i]! * 3
        const px = positions[p]! - x,
          py = positions[p + 1]! - y,
          pz = positions[p + 2]! - z
        const q = px * px + py * py + pz * pz + soft
        sum +=
          (areas[order[i]!]! * (normals[p]! * px + normals[p + 1]! * py + normals[p + 2]! * pz)) / (q * Math.sqrt(q))
      }
    }
    return sum / (4 * Math.PI)
  }

  excess(x: number, y: number, z: number): number {
    return this.winding(x, y, z) - this.iso
  }
  /** Like millimetres near the skin, where w changes by 1/(2ε) a millimetre. */
  sample(x: number, y: number, z: number): number {
    return -2 * Math.sqrt(this.soft) * this.excess(x, y, z)
  }
  near(x: number, y: number, z: number, within: number): boolean {
    return this.nearest(x, y, z, within) !== Infinity
  }
  /** mm to the nearest point, Infinity beyond the limit */
  nearest(x: number, y: number, z: number, limit = Infinity): number {
    return closestPoint(this.tree, x, y, z, this.hit, limit)
  }
}
const stack = new Int32Array(128)
