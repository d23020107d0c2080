import type { Mesh } from './mesh'

/**
 * The part of the skin where a field is at or above a level, its edge drawn through the faces by linear interpolation:
 * the labels' own steps do not show. Faces keep their turn.
 *
 * @param field one value per vertex
 */
export function clipAt(mesh: Mesh, field: ArrayLike<number>, level: number): Mesh {
  const { positions: p, triangles: t } = mesh
  const n = p.length / 3
  const at: number[] = []
  const kept = new Map<number, number>(),
    between = new Map<number, number>()
  const own = (v: number): number => {
    const there = kept.get(v)
    if (there !== undefined) return there
    at.push(p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!)
    kept.set(v, at.length / 3 - 1)
    return at.length / 3 - 1
  }
  const crossing = (a: number, b: number): number => {
    const [i, j] = a < b ? [a, b] : [b, a]
    const there = between.get(i * n + j)
    if (there !== undefined) return there
    // A hair off either end, so that no face is left without area.
    const u = Math.min(0.98, Math.max(0.02, (level - field[i]!) / (field[j]! - field[i]!)))
    for (let k = 0; k < 3; k++) at.push(p[3 * i + k]! + u * (p[3 * j + k]! - p[3 * i + k]!))
    between.set(i * n + j, at.length / 3 - 1)
    return at.length / 3 - 1
  }
  const out: number[] = []
  for (let f = 0; f < t.length; f += 3) {
    let above = 0
    for (let k = 0; k < 3; k++) if (field[t[f + k]!]! >= level) above |= 1 << k
    if (above === 0) continue
    if (above === 7) {
      out.push(own(t[f]!), own(t[f + 1]!), own(t[f + 2]!))
      continue
    }
    const two = above !== 1 && above !== 2 && above !== 4
    // The corner that is alone on its side comes first.
    const first = above === 1 || above === 6 ? 0 : above === 2 || above === 5 ? 1 : 2
    const [a, b, c] = [0, 1, 2].map((k) => t[f + ((first + k) % 3)]!) as [number, number, number]
    const ab = crossing(a, b),
      ac = crossing(a, c)
    if (two) out.push(ab, own(b), own(c), ab, own(c), ac)
    else out.push(own(a), ab, ac)
  }
  return { positions: new Float32Array(at), triangles: new Uint32Array(out) }
}
