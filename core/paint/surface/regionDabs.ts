import type { Mesh } from '../../mesh/mesh'
import { SpacedSpots, type BrushSpot } from '../../shape/brushSpots'

/**
 * Dabs of a brush that cover the vertices of some labels at full strength: each vertex has one within `spacing` mm.
 *
 * @param most dabs at most; with more the spacing is doubled until it is enough
 */
export function regionDabs(
  mesh: Mesh,
  labels: Uint8Array,
  wanted: ReadonlySet<number>,
  spacing: number,
  most = 500,
): BrushSpot[] {
  const { positions: p } = mesh
  const out = new SpacedSpots(spacing)
  for (let v = 0; v < labels.length; v++) if (wanted.has(labels[v]!)) out.add(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)
  return out.dabs.length > most ? regionDabs(mesh, labels, wanted, 2 * spacing, most) : out.dabs
}
