import { orient3d } from 'robust-predicates'
import type { Tree } from './tree'

/**
 * Pairs of faces that pass through each other, by descending the tree against itself. The decision uses
 * Shewchuk's adaptive orientation predicate, so it is exact for the given Float32 coordinates. Faces that
 * merely touch, or are coplanar, are not counted. Stops after `limit` pairs.
 *
 * @param asked which pairs of faces are looked at; all where it is left out
 */
export function selfIntersections(
  tree: Tree,
  limit = 2000,
  asked?: (f: number, g: number) => boolean,
): { pairs: [number, number][]; complete: boolean } {
  const pairs: [number, number][] = []
  const { count, right, first, order } = tree
  const t = tree.mesh.triangles
  if (tree.nodes === 0) return { pairs, complete: true }
  const todo: number[] = [0, 0]
  while (todo.length > 0) {
    const b = todo.pop()!,
      a = todo.pop()!
    if (a !== b && !overlap(tree.boxes, a, b)) continue
    if (count[a]! > 0 && count[b]! > 0) {
      for (let i = first[a]!; i < first[a]! + count[a]!; i++)
        for (let j = a === b ? i + 1 : first[b]!; j < first[b]! + count[b]!; j++)
          if ((!asked || asked(order[i]!, order[j]!)) && facesCross(tree, t, i, j)) {
            pairs.push([order[i]!, order[j]!])
            if (pairs.length >= limit) return { pairs, complete: false }
          }
      continue
    }
    if (a === b) {
      const l = a + 1,
        r = right[a]!
      todo.push(l, l, r, r, l, r)
    } else if (count[b]! > 0 || (count[a]! === 0 && extent(tree.boxes, a) > extent(tree.boxes, b))) {
      todo.push(a + 1, b, right[a]!, b)
    } else {
      todo.push(a, b + 1, a, right[b]!)
    }
  }
  return { pairs, complete: true }
}

function overlap(b: Float32Array, m: number, n: number): boolean {
  const i = m * 6,
    j = n * 6
  return (
    b[i]! <= b[j + 3]! &&
    b[j]! <= b[i + 3]! &&
    b[i + 1]! <= b[j + 4]! &&
    b[j + 1]! <= b[i + 4]! &&
    b[i + 2]! <= b[j + 5]! &&
    b[j + 2]! <= b[i + 5]!
  )
}
const extent = (b: Float32Array, n: number): number =>
  b[n * 6 + 3]! - b[n * 6]! + b[n * 6 + 4]! - b[n * 6 + 1]! + b[n * 6 + 5]! - b[n * 6 + 2]!

function facesCross(tree: Tree, t: Uint32Array, i: number, j: number): boolean {
  const c = tree.corners
  for (let k = 0; k < 3; k++) {
    const mn = Math.min(c[i * 9 + k]!, c[i * 9 + 3 + k]!, c[i * 9 + 6 + k]!),
      mx = Math.max(c[i * 9 + k]!, c[i * 9 + 3 + k]!, c[i * 9 + 6 + k]!)
    const nn = Math.min(c[j * 9 + k]!, c[j * 9 + 3 + k]!, c[j * 9 + 6 + k]!),
      nx = Math.max(c[j * 9 + k]!, c[j * 9 + 3 + k]!, c[j * 9 + 6 + k]!)
    if (mn > nx || nn > mx) return false
  }
  const f = tree.order[i]! * 3,
    g = tree.order[j]! * 3
  for (let e = 0; e < 3; e++) {
    if (edgePierces(tree, t, i, f, e, j, g) || edgePierces(tree, t, j, g, e, i, f)) return true
  }
  return false
}

/** Whether edge e of the face at leaf position i goes strictly through the face at leaf position j. */
function edgePierces(tree: Tree, t: Uint32Array, i: number, f: number, e: number, j: number, g: number): boolean {
  const e2 = (e + 1) % 3
  const a = t[f + e]!,
    b = t[f + e2]!
  // An edge that shares a vertex with the face can only touch it there or lie in its plane.
  for (let k = 0; k < 3; k++) if (t[g + k] === a || t[g + k] === b) return false
  const c = tree.corners
  const A = i * 9 + e * 3,
    B = i * 9 + e2 * 3,
    P = j * 9,
    Q = P + 3,
    R = P + 6
  const sa = side(c, P, Q, R, A),
    sb = side(c, P, Q, R, B)
  if (sa === 0 || sb === 0 || sa > 0 === sb > 0) return false
  const s1 = side(c, A, B, P, Q),
    s2 = side(c, A, B, Q, R),
    s3 = side(c, A, B, R, P)
  return (s1 > 0 && s2 > 0 && s3 > 0) || (s1 < 0 && s2 < 0 && s3 < 0)
}

const side = (c: Float32Array, p: number, q: number, r: number, s: number): number =>
  orient3d(
    c[p]!,
    c[p + 1]!,
    c[p + 2]!,
    c[q]!,
    c[q + 1]!,
    c[q + 2]!,
    c[r]!,
    c[r + 1]!,
    c[r + 2]!,
    c[s]!,
    c[s + 1]!,
    c[s + 2]!,
  )
