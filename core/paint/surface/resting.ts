import { silent, type Report } from '../../answer'
import { weights } from '../../mesh/transferColours'
import { ClosestWalk } from '../../mesh/closest'
import type { Mesh } from '../../mesh/mesh'
import { treeOf } from '../../mesh/tree'

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
  const out = copy.positions.slice(),
    w = new Float64Array(3)
  for (let i = 0; i + 1 < chain.length; i++) {
    const after = chain[i]!,
      before = chain[i + 1]!
    report(i / (chain.length - 1))
    if (!sameFaces(after, before)) continue
    const walk = new ClosestWalk(treeOf(after)),
      { hit } = walk
    const { triangles: t } = after,
      { positions: p } = before
    for (let v = 0; v < out.length; v += 3) {
      walk.to(out[v]!, out[v + 1]!, out[v + 2]!)
      const f = 3 * hit.face
      const a = 3 * t[f]!,
        b = 3 * t[f + 1]!,
        c = 3 * t[f + 2]!
      weights(after.positions, a, b, c, hit.x, hit.y, hit.z, w)
      for (let k = 0; k < 3; k++) out[v + k] = w[0]! * p[a + k]! + w[1]! * p[b + k]! + w[2]! * p[c + k]!
    }
  }
  return out
}

function sameFaces(a: Mesh, b: Mesh): boolean {
  if (a.triangles.length !== b.triangles.length || a.positions.length !== b.positions.length) return false
  for (let i = 0; i < a.triangles.length; i++) if (a.triangles[i] !== b.triangles[i]) return false
  return true
}
