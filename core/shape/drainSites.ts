import { silent, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { bounds, boxDiagonal } from '../mesh/mesh'
import { rayAll, rayBlocked } from '../mesh/ray'
import { shells } from '../mesh/topology'
import type { Vector3 } from '../mesh/transform'
import { treeOf, type Tree } from '../mesh/tree'
import { sphereDirections } from './directions'
import { probe, type DrilledHole } from './drill'

export interface DrainSite extends DrilledHole {
  /** 0 seen from everywhere in front and above, 1 from nowhere */
  hidden: number
  /** lies where another part will cover it */
  covered: boolean
  /** which cavity it opens, counted as they are met */
  cavity: number
  /** why it was chosen, in words */
  reason: string
  /** what its score is made of, each 0 to 1: out of sight, low or far as its task wants, thin wall, room to the edge */
  score: { hidden: number; place: number; thin: number; edge: number }
}

export interface DrainWish {
  diameter: number
  /** unit; which way is down while the part hangs in the printer, in the mesh's own frame */
  down: Vector3
}

/** Places on the outer skin that are tried, about. */
const TRIED = 900
/** mm: walls thicker than this are not drilled through on proposal */
const DEEPEST = 12
/** mm: skin nearer to another part than this is covered by it */
export const COVERED = 0.6
/** mm of sound skin that a proposed hole keeps between itself and an edge */
const EDGE = 0.8

/**
 * Proposes two holes for each cavity: one hidden and low as the part hangs, one hidden and far from the first for air
 * (methods.md 3). Candidates are spread over the outer skin; each must pass the same probe as a drilled hole.
 *
 * @param others parts that will cover some of the skin when all is put together
 */
export function drainSites(
  mesh: Mesh,
  wish: DrainWish,
  others: readonly Mesh[] = [],
  report: Report = silent,
): DrainSite[] {
  const skin = new Skin(mesh, others, wish.down)
  const candidates = tried(skin, wish.diameter, report)
  const cavities = [...new Set(candidates.map((c) => c.cavity))].sort((a, b) => a - b)
  report(1)
  return cavities.flatMap((cavity) =>
    pair(
      candidates.filter((c) => c.cavity === cavity),
      wish,
      skin.reach,
    ),
  )
}

/** The outer skin of a hollow body with what decides where it may be drilled. */
export class Skin {
  readonly tree: Tree
  readonly normals: Float32Array
  readonly areas: Float32Array
  readonly reach: number
  private readonly covers: Tree[]
  private readonly shellOf: Uint32Array
  private readonly hit = closest()
  private readonly floor: number
  private readonly height: number
  private readonly front = sphereDirections(128).filter((d) => d[1] < 0.35 && d[2] > -0.25)

  constructor(
    readonly mesh: Mesh,
    others: readonly Mesh[],
    readonly down: Vector3,
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
    this.shellOf = shells(mesh).shellOf
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
    const covered = this.isCovered(c, n)
    const hidden = covered ? 1 : 1 - this.seen(c, n)
    return {
      ...r.value,
      hidden,
      covered,
      cavity: this.cavityBehind(r.value),
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
  /** Shell of the far wall that the drill would meet. */
  private cavityBehind({ point: p, direction: d, depth }: DrilledHole): number {
    const at = [0, 1, 2].map((k) => p[k]! + (depth + 0.05) * d[k]!) as unknown as Vector3
    const next = rayAll(this.tree, at[0], at[1], at[2], d[0], d[1], d[2], 0, this.reach).find((h) => !h.leaving)
    return next ? this.shellOf[next.face]! : -1
  }
}

function tried(skin: Skin, diameter: number, report: Report): DrainSite[] {
  const { down, areas } = skin
  const { positions: p, triangles: t } = skin.mesh
  const heightOf = (v: number): number => p[v * 3]! * down[0] + p[v * 3 + 1]! * down[1] + p[v * 3 + 2]! * down[2]
  let top = Infinity,
    bottom = -Infinity
  for (let v = 0; v < p.length / 3; v++) {
    const h = heightOf(v)
    top = Math.min(top, h)
    bottom = Math.max(bottom, h)
  }
  // The lowest tenth is looked at more closely: a hole a few millimetres too high leaves a cup below it.
  const nearBottom = bottom - 0.1 * (bottom - top)
  const weights = areas.map((a, f) => (heightOf(t[f * 3]!) > nearBottom ? 6 * a : a))
  const total = weights.reduce((a, b) => a + b, 0)
  const out: DrainSite[] = []
  let carried = 0
  for (let f = 0; f < weights.length; f++) {
    carried += (weights[f]! / total) * TRIED
    if (carried < 1) continue
    carried %= 1
    report(f / weights.length)
    const site = skin.site(f, diameter)
    if (site) out.push(site)
  }
  return out
}

/** The two best of one cavity's candidates. */
function pair(candidates: readonly DrainSite[], wish: DrainWish, reach: number): DrainSite[] {
  if (candidates.length === 0) return []
  const along = (s: DrainSite): number =>
    s.point[0] * wish.down[0] + s.point[1] * wish.down[1] + s.point[2] * wish.down[2]
  const heights = candidates.map(along)
  const lo = Math.min(...heights),
    hi = Math.max(...heights)
  // Worth nothing a tenth of the height above the lowest: what lies below the hole is a cup and keeps its resin.
  const low = (s: DrainSite): number => (hi > lo ? Math.max(0, 1 - (hi - along(s)) / (0.1 * (hi - lo))) : 1)
  const lesser = (s: DrainSite): number => 0.3 * s.score.thin + 0.15 * s.score.edge
  const share = (s: DrainSite): string =>
    s.covered ? 'covered when all is together' : `${Math.round(s.hidden * 100)} % hidden from the front and above`
  const first = best(candidates, (s) => 0.8 * s.hidden + 2 * low(s) + lesser(s))
  const one: DrainSite = {
    ...first,
    score: { ...first.score, place: low(first) },
    reason: `lowest as it hangs, ${share(first)}, wall ${first.depth.toFixed(1)} mm`,
  }
  const away = (s: DrainSite): number => Math.hypot(...[0, 1, 2].map((k) => s.point[k]! - first.point[k]!)) / reach
  const rest = candidates.filter((s) => away(s) * reach > 2.5 * wish.diameter)
  if (rest.length === 0) return [one]
  const far = (s: DrainSite): number => Math.min(1, 2 * away(s))
  const second = best(rest, (s) => 1.2 * s.hidden + 1.4 * far(s) + lesser(s))
  return [
    one,
    {
      ...second,
      score: { ...second.score, place: far(second) },
      reason: `lets air in ${(away(second) * reach).toFixed(0)} mm away, ${share(second)}`,
    },
  ]
}

const best = <T>(list: readonly T[], score: (item: T) => number): T =>
  list.reduce((a, b) => (score(b) > score(a) ? b : a))
