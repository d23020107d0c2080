import type { Problem } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import type { Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'
import { DrillSkin, type DrainSite } from './drillSkin'
import { message } from '../words/message'

export interface HoleNear {
  /** the hole as it was wished; null when it may not be drilled */
  asked: DrainSite | null
  /** why not */
  problem: Problem | null
  /** the nearest place that takes it, preferred where another part will cover it; null when none is near */
  instead: DrainSite | null
}

/** Faces that are tried at most, nearest first. */
const TRIED = 400

/**
 * What a hole set by hand would be, and the better place nearby: within `snap` mm one that another part or the underside
 * will cover, or, when the place itself does not take it, the nearest that does.
 *
 * @param within mm from the place wished
 */
export function holeNear(
  mesh: Mesh,
  others: readonly Mesh[],
  { point, diameter, snap, within }: { point: Vector3; diameter: number; snap: number; within: number },
): HoleNear {
  const skin = new DrillSkin(mesh, others)
  const hit = closest()
  closestPoint(skin.tree, ...point, hit)
  const asked = hit.face >= 0 ? skin.site(hit.face, diameter) : null
  const apart = (f: number): number => {
    const c = skin.middle(f)
    return Math.hypot(c[0] - point[0], c[1] - point[1], c[2] - point[2])
  }
  const near: { f: number; d: number }[] = []
  for (let f = 0; f < mesh.triangles.length / 3; f++) {
    const d = apart(f)
    if (d <= within) near.push({ f, d })
  }
  near.sort((a, b) => a.d - b.d)
  const step = Math.max(1, Math.floor(near.length / TRIED))
  let instead: DrainSite | null = null
  if (!asked?.covered)
    for (let i = 0; i < near.length; i += step) {
      const { f, d } = near[i]!
      const hideable = d <= snap && skin.isCovered(skin.middle(f), skin.normal(f))
      if (!hideable && (asked !== null || instead !== null)) continue
      const site = skin.site(f, diameter)
      if (!site) continue
      instead = site
      if (site.covered) break
    }
  return {
    asked,
    problem: asked
      ? null
      : {
          code: 'hole-not-there',
          message: message('prints.holeNear.aMmHoleDoesNot', { diameter }),
        },
    instead: asked && !instead?.covered ? null : instead,
  }
}
