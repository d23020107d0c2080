import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { bounds, boxDiagonal, type Mesh } from '../mesh/mesh'
import { rayAll, rayBlocked } from '../mesh/ray'
import { shellFacts } from '../mesh/shellFacts'
import type { Vector3 } from '../math/vectors'
import { treeOf, type Tree } from '../mesh/tree'
import { sphereDirections } from '../math/directions'
import { probe, type DrilledHole } from './drill'
import type { Said } from '../words/say'

export interface DrainSite extends DrilledHole {
  /** 0 seen from everywhere in front and above, 1 from nowhere */
  hidden: number
  /** lies where another part will cover it */
  covered: boolean
  /** which cavity it opens, counted as they are met */
  cavity: number
  /** why it was chosen */
  reason: Said
  /** what its score is made of, each 0 to 1: out of sight, low or far as its task wants, thin wall, room to the edge */
  score: { hidden: number; place: number; thin: number; edge: number }
}

/** mm: walls thicker than this are not drilled through on proposal */
const DEEPEST = 12
/** mm: skin nearer to another part than this is covered by it */
export const COVERED = 0.6
/** mm of sound skin that a proposed hole keeps between itself and an edge */
const EDGE = 0.8

/** The outer skin of a hollow body with what decides where it may be drilled. */
export class DrillSkin {
  readonly tree: Tree
  readonly normals: Float32Array
  readonly areas: Float32Array
  readonly reach: number
  private readonly covers: Tree[]
  private readonly shellOf: Uint32Array
  private readonly volumes: Float64Array
  private readonly hit = closest()
  private readonly floor: number
  private readonly height: number
  private readonly front = sphereDirections(128).filter((d) => d[1] < 0.35 && d[2] > -0.25)

  constructor(
    readonly mesh: Mesh,
    others: readonly Mesh[],
  ) {
    this.tree = treeOf(mesh)
    const { normals, areas } = faceNormals(mesh)
    this.normals = normals
    this.areas = areas
    const box = bounds(mesh)
    this.reach = boxDiagonal(box)
    this.floor = box.min[2]
    this.height = box.max[2] - box.min[2]
    this.covers = others.map((m) => treeOf(m))
    const { shellOf, volumes } = shellFacts(mesh)
    this.shellOf = shellOf
    this.volumes = volumes
  }

  middle(f: number): [number, number, number] {
    const { positions: p, triangles: t } = this.mesh
    return [0, 1, 2].map(
      (k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3,
    ) as [number, number, number]
  }
  normal(f: number): Vector3 {
    return [this.normals[f * 3]!, this.normals[f * 3 + 1]!, this.normals[f * 3 + 2]!]
  }
  /** A hole through the middle of that face, square to it, with what speaks for it; null where none can be. */
  site(f: number, diameter: number): DrainSite | null {
    const c = this.middle(f),
      n = this.normal(f)
    const r = probe(this.tree, { point: c, direction: [-n[0], -n[1], -n[2]], diameter })
    if (!r.ok || r.value.depth > DEEPEST || r.value.edge < EDGE) return null
    const cavity = this.cavityBehind(r.value)
    if (cavity < 0) return null
    const covered = this.isCovered(c, n)
    const hidden = covered ? 1 : 1 - this.seen(c, n)
    return {
      ...r.value,
      hidden,
      covered,
      cavity,
      reason: '',
      score: { hidden, place: 0, thin: 1 / (1 + r.value.depth / 4), edge: Math.min(1, r.value.edge / 3) },
    }
  }
  /** Under another part, or on the underside on which it stands. */
  isCovered(c: Vector3, n: Vector3): boolean {
    if (n[2] < -0.9 && c[2] - this.floor < 0.01 * this.height + 0.2) return true
    return this.covers.some((t) => closestPoint(t, c[0], c[1], c[2], this.hit, COVERED) !== Infinity)
  }
  /** Share of the directions in front and above from which the place is seen. */
  private seen(c: Vector3, n: Vector3): number {
    let seen = 0
    for (const d of this.front) {
      if (d[0] * n[0] + d[1] * n[1] + d[2] * n[2] <= 0) continue
      const at = [c[0] + n[0] * 0.05, c[1] + n[1] * 0.05, c[2] + n[2] * 0.05] as const
      if (!rayBlocked(this.tree, ...at, ...d, 0, this.reach)) seen++
    }
    return seen / this.front.length
  }
  /**
   * The cavity into which the drill comes out: the inner skin that it leaves the wall by, whose faces look inward; −1 where
   * it comes out anywhere else, in the gap under a collar say.
   */
  private cavityBehind({ point: p, direction: d, depth }: DrilledHole): number {
    const at = [0, 1, 2].map((k) => p[k]! - 0.5 * d[k]!) as unknown as Vector3
    const out = rayAll(this.tree, at[0], at[1], at[2], d[0], d[1], d[2], 0, depth + 1).find((h) => h.leaving)
    const shell = out ? this.shellOf[out.face]! : -1
    return shell >= 0 && this.volumes[shell]! < 0 ? shell : -1
  }
}
