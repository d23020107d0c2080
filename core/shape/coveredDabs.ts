import type { Mesh } from '../mesh/mesh'
import type { Dab } from './dabs'
import { Skin } from './drainSites'

/**
 * Dabs of a brush over all skin that another part will cover, or on whose underside the body stands: where a support's scar
 * is never seen.
 *
 * @param spacing mm between dabs; each is at full strength that far
 */
export function coveredDabs(mesh: Mesh, others: readonly Mesh[], spacing: number): Dab[] {
  const skin = new Skin(mesh, others, [0, 0, -1])
  const out: Dab[] = []
  const places = new Map<string, Dab[]>()
  for (let f = 0; f < mesh.triangles.length / 3; f++) {
    const c = skin.middle(f)
    if (!skin.isCovered(c, skin.normal(f))) continue
    const [i, j, k] = c.map((v) => Math.floor(v / spacing)) as [number, number, number]
    let near = false
    for (let a = -1; a <= 1 && !near; a++)
      for (let b = -1; b <= 1 && !near; b++)
        for (let d = -1; d <= 1 && !near; d++)
          near = (places.get(`${i + a},${j + b},${k + d}`) ?? []).some(
            ({ point: p }) => Math.hypot(p[0] - c[0], p[1] - c[1], p[2] - c[2]) < spacing,
          )
    if (near) continue
    const dab: Dab = { point: c, radius: 2 * spacing }
    const key = `${i},${j},${k}`
    places.set(key, [...(places.get(key) ?? []), dab])
    out.push(dab)
  }
  return out
}
