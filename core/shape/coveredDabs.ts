import type { Mesh } from '../mesh/mesh'
import { SpacedSpots, type BrushSpot } from './brushSpots'
import { DrillSkin } from './drillSkin'

/**
 * Dabs of a brush over all skin that another part will cover, or on whose underside the body stands: where a support's scar
 * is never seen.
 *
 * @param spacing mm between dabs; each is at full strength that far
 */
export function coveredDabs(mesh: Mesh, others: readonly Mesh[], spacing: number): BrushSpot[] {
  const skin = new DrillSkin(mesh, others)
  const out = new SpacedSpots(spacing)
  for (let f = 0; f < mesh.triangles.length / 3; f++) {
    const c = skin.middle(f)
    if (skin.isCovered(c, skin.normal(f))) out.add(...c)
  }
  return out.dabs
}
