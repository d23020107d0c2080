import type { Mesh } from '../mesh/mesh'
import type { Dab } from '../shape/dabs'

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
): Dab[] {
  const { positions: p } = mesh
  const places = new Map<string, number[]>()
  const cell = (v: number): [number, number, number] =>
    [0, 1, 2].map((k) => Math.floor(p[v * 3 + k]! / spacing)) as [number, number, number]
  const out: Dab[] = []
  for (let v = 0; v < labels.length; v++) {
    if (!wanted.has(labels[v]!)) continue
    const [i, j, k] = cell(v)
    let near = false
    for (let a = -1; a <= 1 && !near; a++)
      for (let b = -1; b <= 1 && !near; b++)
        for (let c = -1; c <= 1 && !near; c++)
          near = (places.get(`${i + a},${j + b},${k + c}`) ?? []).some(
            (w) =>
              Math.hypot(p[v * 3]! - p[w * 3]!, p[v * 3 + 1]! - p[w * 3 + 1]!, p[v * 3 + 2]! - p[w * 3 + 2]!) < spacing,
          )
    if (near) continue
    const key = `${i},${j},${k}`
    const list = places.get(key)
    if (list) list.push(v)
    else places.set(key, [v])
    out.push({ point: [p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!], radius: 2 * spacing })
    if (out.length > most) return regionDabs(mesh, labels, wanted, 2 * spacing, most)
  }
  return out
}
