import { silent, type Report } from '../answer'
import type { Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'
import { DrillSkin, type DrainSite } from './drillSkin'
import { fixed } from '../words/format'
import { message, type Message } from '../words/message'

export interface DrainWish {
  diameter: number
  /** unit; which way is down while the part hangs in the printer, in the mesh's own frame */
  down: Vector3
}

/** Places on the outer skin that are tried, about. */
const TRIED = 900

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
  const skin = new DrillSkin(mesh, others)
  const candidates = tried(skin, wish, report)
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

function tried(skin: DrillSkin, { down, diameter }: DrainWish, report: Report): DrainSite[] {
  const { areas } = skin
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
  let due = 0
  for (let f = 0; f < weights.length; f++) {
    due += (weights[f]! / total) * TRIED
    if (due < 1) continue
    due %= 1
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
  const share = (s: DrainSite): Message =>
    s.covered
      ? message('problems.drainSite.covered')
      : message('problems.drainSite.hidden', { percent: Math.round(s.hidden * 100) })
  const first = best(candidates, (s) => 0.8 * s.hidden + 2 * low(s) + lesser(s))
  const one: DrainSite = {
    ...first,
    score: { ...first.score, place: low(first) },
    reason: message('problems.drainSite.lowest', { share: share(first), wall: fixed(first.depth, 1) }),
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
      reason: message('problems.drainSite.air', { away: fixed(away(second) * reach, 0), share: share(second) }),
    },
  ]
}

const best = <T>(list: readonly T[], score: (item: T) => number): T =>
  list.reduce((a, b) => (score(b) > score(a) ? b : a))
