import { silent, type Report } from '../answer'
import { ClosestWalk } from '../mesh/closest'
import type { Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'

/**
 * Where each vertex of a copy lay on the sculpt that it came of, so that what is painted on it can be told whatever was
 * done since. Steps that keep the sculpt's faces (pose, size, place, smoothing) are undone face by face: a place keeps its
 * share of the three corners. Steps that make other faces (a cut, a repair) leave the skin that stays where it was, and so
 * do the places.
 *
 * @param copy a copy for the screen of the first of the chain
 * @param chain meshes from the one on the table back to the sculpt, each what the one before it was made of
 * @returns mm, 3 per vertex of the copy
 */
export function restingPlaces(copy: Mesh, chain: readonly Mesh[], report: Report = silent): Float32Array {
  const out = copy.positions.slice()
  for (let i = 0; i + 1 < chain.length; i++) {
    const after = chain[i]!,
      before = chain[i + 1]!
    report(i / (chain.length - 1))
    if (!sameFaces(after, before)) continue
    const walk = new ClosestWalk(treeOf(after)),
      { hit } = walk
    for (let v = 0; v < out.length; v += 3) {
      walk.to(out[v]!, out[v + 1]!, out[v + 2]!)
      const corners = [0, 1, 2].map((k) => after.triangles[3 * hit.face + k]!)
      const share = barycentric(after.positions, corners, [hit.x, hit.y, hit.z])
      for (let k = 0; k < 3; k++)
        out[v + k] = corners.reduce((s, c, j) => s + share[j]! * before.positions[3 * c + k]!, 0)
    }
  }
  return out
}

function sameFaces(a: Mesh, b: Mesh): boolean {
  if (a.triangles.length !== b.triangles.length || a.positions.length !== b.positions.length) return false
  for (let i = 0; i < a.triangles.length; i++) if (a.triangles[i] !== b.triangles[i]) return false
  return true
}

/** Shares of the corners of a triangle in a place on it; of one without area, of its nearest corner. */
function barycentric(p: Float32Array, [a, b, c]: readonly number[], q: readonly number[]): [number, number, number] {
  const of = (from: number, to: readonly number[]): number[] => [0, 1, 2].map((k) => to[k]! - p[3 * from + k]!)
  const at = (i: number): number[] => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]
  const dot = (u: number[], v: number[]): number => u[0]! * v[0]! + u[1]! * v[1]! + u[2]! * v[2]!
  const e = of(a!, at(b!)),
    f = of(a!, at(c!)),
    g = of(a!, q)
  const ee = dot(e, e),
    ef = dot(e, f),
    ff = dot(f, f)
  const det = ee * ff - ef * ef
  if (!(det > 1e-12 * ee * ff)) {
    const d = [a!, b!, c!].map((i) => dot(of(i, q), of(i, q)))
    const least = d.indexOf(Math.min(...d))
    return [0, 1, 2].map((k) => (k === least ? 1 : 0)) as [number, number, number]
  }
  const v = (ff * dot(g, e) - ef * dot(g, f)) / det,
    w = (ee * dot(g, f) - ef * dot(g, e)) / det
  return [1 - v - w, v, w]
}
