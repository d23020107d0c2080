import { bounds, type Mesh } from '../core/mesh/mesh'
import { pilotParts } from './sculpts/pilotBust'

/** Each vertex takes the region of the part of the sculpt that it lies on. The body was scaled about its foot. */
export function bustLabels(mesh: Mesh, factor: number): Uint8Array {
  const { min, max } = bounds(mesh)
  const foot = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, min[2]]
  const parts = pilotParts()
  const regions = [parts.coat, parts.skin, parts.hair, parts.cap, parts.socle]
  const p = mesh.positions
  return Uint8Array.from({ length: p.length / 3 }, (_, v) => {
    const [x, y, z] = foot.map((f, k) => f + (p[v * 3 + k]! - f) / factor) as [number, number, number]
    const distances = regions.map((r) => r(x, y, z))
    return distances.indexOf(Math.min(...distances))
  })
}
