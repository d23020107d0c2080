import { silent, type Report } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { bounds, boxDiagonal } from '../mesh/mesh'
import { faceNormals } from '../mesh/measure'
import { rayBlocked } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import type { Vector3 } from '../mesh/transform'
import { probe, type DrilledHole } from './drill'
import { sphereDirections } from './directions'

export interface DrainSite extends DrilledHole {
  /** 0 seen from everywhere in front and above, 1 from nowhere */
  hidden: number
  /** why it was chosen, in words */
  reason: string
}

export interface DrainWish {
  diameter: number
  /** unit; which way is down while the part hangs in the printer, in the mesh's own frame */
  down: Vector3
}

/**
 * Proposes two holes: one hidden and low as the part hangs, one hidden and far from the first for air
 * (methods.md 3). Candidates are spread over the outer skin; each must pass the same probe as a drilled hole.
 */
export function drainSites(mesh: Mesh, wish: DrainWish, report: Report = silent): DrainSite[] {
  const tree = treeOf(mesh)
  const { positions: p, triangles: t } = mesh
  const { normals, areas } = faceNormals(mesh)
  const box = bounds(mesh)
  const reach = boxDiagonal(box)
  const front = sphereDirections(128).filter((d) => d[1] < 0.35 && d[2] > -0.25)
  // The lowest tenth is looked at more closely: a hole a few millimetres too high leaves a cup below it.
  const { down } = wish
  const heightOf = (v: number): number => p[v * 3]! * down[0] + p[v * 3 + 1]! * down[1] + p[v * 3 + 2]! * down[2]
  let top = Infinity,
    bottom = -Infinity
  for (let v = 0; v < p.length / 3; v++) {
    const h = heightOf(v)
    top = Math.min(top, h)
    bottom = Math.max(bottom, h)
  }
  const nearBottom = bottom - 0.1 * (bottom - top)
  const weights = areas.map((a, f) => (heightOf(t[f * 3]!) > nearBottom ? 6 * a : a))
  const total = weights.reduce((a, b) => a + b, 0)
  const wanted = 900
  const candidates: DrainSite[] = []
  let carried = 0
  for (let f = 0; f < weights.length; f++) {
    carried += (weights[f]! / total) * wanted
    if (carried < 1) continue
    carried %= 1
    if ((candidates.length & 15) === 0) report(f / weights.length)
    const c = [0, 1, 2].map(
      (k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3,
    ) as [number, number, number]
    const n: Vector3 = [normals[f * 3]!, normals[f * 3 + 1]!, normals[f * 3 + 2]!]
    const r = probe(tree, { point: c, direction: [-n[0], -n[1], -n[2]], diameter: wish.diameter })
    if (!r.ok || r.value.depth > 12) continue
    const underside = n[2] < -0.9 && c[2] - box.min[2] < 0.01 * (box.max[2] - box.min[2]) + 0.2
    let seen = 0
    if (!underside) {
      for (const d of front) {
        if (d[0] * n[0] + d[1] * n[1] + d[2] * n[2] <= 0) continue
        if (!rayBlocked(tree, c[0] + n[0] * 0.05, c[1] + n[1] * 0.05, c[2] + n[2] * 0.05, d[0], d[1], d[2], 0, reach))
          seen++
      }
    }
    candidates.push({ ...r.value, hidden: 1 - seen / front.length, reason: '' })
  }
  if (candidates.length === 0) return []
  const along = (s: DrainSite): number =>
    s.point[0] * wish.down[0] + s.point[1] * wish.down[1] + s.point[2] * wish.down[2]
  const heights = candidates.map(along)
  const lo = Math.min(...heights),
    hi = Math.max(...heights)
  // Worth nothing a tenth of the height above the lowest: what lies below the hole is a cup and keeps its resin.
  const low = (s: DrainSite): number => (hi > lo ? Math.max(0, 1 - (hi - along(s)) / (0.1 * (hi - lo))) : 1)
  const thin = (s: DrainSite): number => 1 / (1 + s.depth / 4)
  const first = best(candidates, (s) => 0.8 * s.hidden + 2 * low(s) + 0.3 * thin(s))
  const away = (s: DrainSite): number => Math.hypot(...[0, 1, 2].map((k) => s.point[k]! - first.point[k]!)) / reach
  const rest = candidates.filter((s) => away(s) * reach > 2.5 * wish.diameter)
  const share = (s: DrainSite): string => `${Math.round(s.hidden * 100)} % hidden from the front and above`
  first.reason = `lowest as it hangs, ${share(first)}, wall ${first.depth.toFixed(1)} mm`
  if (rest.length === 0) return [first]
  const second = best(rest, (s) => 1.2 * s.hidden + 1.4 * Math.min(1, 2 * away(s)) + 0.3 * thin(s))
  second.reason = `lets air in ${(away(second) * reach).toFixed(0)} mm away, ${share(second)}`
  report(1)
  return [first, second]
}

const best = <T>(list: readonly T[], score: (item: T) => number): T =>
  list.reduce((a, b) => (score(b) > score(a) ? b : a))
