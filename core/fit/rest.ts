import { bounds, type Mesh } from '../mesh/mesh'
import { rayFirst } from '../mesh/ray'
import { treeOf, type Tree } from '../mesh/tree'

/** Vertices of each body that are tried, at most. */
const MAX_TRIED = 30_000

/**
 * How far up (positive) or down a part must go to rest on the others, let down on them from above: the least fall of
 * any of its points onto their skin and of theirs onto its own. Null when there is nothing under it.
 */
export function restOn(mesh: Mesh, others: readonly Mesh[]): number | null {
  const box = bounds(mesh)
  const tree = treeOf(mesh)
  let best = Infinity
  for (const other of others) {
    const over = bounds(other)
    // High enough to be above all of it, whatever overlaps now.
    const lift = over.max[2] - box.min[2] + 1
    const below = treeOf(other)
    const fall = Math.min(falls(mesh, below, lift, -1), falls(other, tree, -lift, 1))
    if (fall < Infinity) best = Math.min(best, fall - lift)
  }
  return best === Infinity ? null : -best
}

/** Least way along z (sign) from a body's vertices, moved by `by`, to the other's skin. */
function falls({ positions: p }: Mesh, onto: Tree, by: number, sign: 1 | -1): number {
  const step = Math.max(1, Math.ceil(p.length / 3 / MAX_TRIED)) * 3
  let least = Infinity
  for (let i = 0; i < p.length; i += step) {
    const hit = rayFirst(onto, p[i]!, p[i + 1]!, p[i + 2]! + by, 0, 0, sign, 0, least)
    if (hit) least = Math.min(least, hit.t)
  }
  return least
}
