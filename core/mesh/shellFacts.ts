import { keepFaces, type Mesh } from './mesh'
import { shells } from './topology'
import { buildTree } from './tree'

/** What is known of each shell (connected component) of a mesh. */
export interface ShellFacts {
  readonly count: number
  /** shell of each face */
  readonly shellOf: Uint32Array
  /** mm³, signed: negative where the faces point inward */
  readonly volumes: Float64Array
  /** 6 per shell: min xyz, max xyz */
  readonly boxes: Float32Array
  readonly firstFace: Int32Array
}

/** Shells below this share of the largest one's volume are crumbs (methods.md 1). */
const CRUMB_SHARE = 0.001

export function shellFacts(mesh: Mesh): ShellFacts {
  const { positions: p, triangles: t } = mesh
  const { shellOf, count } = shells(mesh)
  const volumes = new Float64Array(count),
    boxes = new Float32Array(count * 6),
    firstFace = new Int32Array(count).fill(-1)
  for (let s = 0; s < count; s++) {
    boxes.fill(Infinity, s * 6, s * 6 + 3)
    boxes.fill(-Infinity, s * 6 + 3, s * 6 + 6)
  }
  // From a corner of the body instead of the origin: far from it the tetrahedra would cancel away.
  const ox = p[0] ?? 0,
    oy = p[1] ?? 0,
    oz = p[2] ?? 0
  for (let f = 0; f < shellOf.length; f++) {
    const s = shellOf[f]!
    if (firstFace[s] === -1) firstFace[s] = f
    const a = t[f * 3]! * 3,
      b = t[f * 3 + 1]! * 3,
      c = t[f * 3 + 2]! * 3
    const ax = p[a]! - ox,
      ay = p[a + 1]! - oy,
      az = p[a + 2]! - oz
    const bx = p[b]! - ox,
      by = p[b + 1]! - oy,
      bz = p[b + 2]! - oz
    const cx = p[c]! - ox,
      cy = p[c + 1]! - oy,
      cz = p[c + 2]! - oz
    volumes[s]! += (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6
    for (let k = 0; k < 3; k++) {
      const lo = s * 6 + k,
        hi = lo + 3
      for (let v = 0; v < 3; v++) {
        const x = p[t[f * 3 + v]! * 3 + k]!
        if (x < boxes[lo]!) boxes[lo] = x
        if (x > boxes[hi]!) boxes[hi] = x
      }
    }
  }
  return { count, shellOf, volumes, boxes, firstFace }
}

/** Shells that face inward though no larger shell lies around them: they would print as holes. */
export function insideOutShells(facts: ShellFacts): Uint8Array {
  const around = surroundings(facts)
  return Uint8Array.from(facts.volumes, (v, s) => (v < 0 && !around(s) ? 1 : 0))
}

/** Loose bits. A small cavity is none: its skin faces inward and lies within a larger shell. */
export function crumbShells(facts: ShellFacts): Uint8Array {
  const around = surroundings(facts)
  const largest = facts.volumes.reduce((m, v) => Math.max(m, Math.abs(v)), 0)
  return Uint8Array.from(facts.volumes, (v, s) =>
    Math.abs(v) < CRUMB_SHARE * largest && !(v < 0 && around(s)) ? 1 : 0,
  )
}

/** The mesh without its crumbs, which do not count in its size; the same mesh where it has none. */
export function withoutCrumbs(mesh: Mesh, facts = shellFacts(mesh)): Mesh {
  const crumbs = crumbShells(facts)
  if (!crumbs.includes(1)) return mesh
  return keepFaces(
    mesh,
    Uint8Array.from(facts.shellOf, (s) => 1 - crumbs[s]!),
  )
}

/**
 * Whether a shell's box lies within that of a shell of larger volume. Boxes are looked up in a tree, built when first
 * asked: a soup can have as many shells as faces, and then every one against every other would never end.
 */
function surroundings({ count, volumes, boxes }: ShellFacts): (s: number) => boolean {
  let tree: ReturnType<typeof buildTree> | null = null
  const holds = (b: Float32Array, o: number, q: number): boolean => {
    for (let k = 0; k < 3; k++) if (b[o + k]! > boxes[q + k]! || b[o + 3 + k]! < boxes[q + 3 + k]!) return false
    return true
  }
  return (s) => {
    // One flat face from corner to corner has just the shell's box.
    tree ??= buildTree({
      positions: boxes,
      triangles: Uint32Array.from({ length: count * 3 }, (_, i) => 2 * Math.floor(i / 3) + (i % 3 === 0 ? 0 : 1)),
    })
    const open = [0]
    for (let node = open.pop(); node !== undefined; node = open.pop()) {
      if (!holds(tree.boxes, node * 6, s * 6)) continue
      const faces = tree.count[node]!
      if (faces === 0) open.push(node + 1, tree.right[node]!)
      for (let i = tree.first[node]!; i < tree.first[node]! + faces; i++) {
        const o = tree.order[i]!
        if (o !== s && Math.abs(volumes[o]!) > Math.abs(volumes[s]!) && holds(boxes, o * 6, s * 6)) return true
      }
    }
    return false
  }
}
