import type { Tree } from './tree'

/**
 * Generalised winding number (Jacobson, Kavan and Sorkine-Hornung 2013) of a triangle soup, by the hierarchical
 * first-order expansion of Barill et al. 2018: far nodes count as one dipole at their area centroid.
 * About 1 inside, 0 outside, whatever holes or overlaps the surface has; flipped patches count against it.
 */
export interface Winding {
  readonly tree: Tree
  /** 7 per node: centroid xyz, summed area vector xyz, radius */
  readonly dipoles: Float32Array
}

/** Nodes farther than this many radii are taken as one dipole (β of the paper). */
const FAR = 2.3
/** Tangent of half a solid angle up to which its arc tangent is summed as a series of four terms. */
const SMALL = 0.3

export function buildWinding(tree: Tree): Winding {
  const { nodes, count, first, right, corners } = tree
  const dipoles = new Float32Array(nodes * 7)
  const areas = new Float64Array(nodes)
  for (let node = nodes - 1; node >= 0; node--) {
    let cx = 0,
      cy = 0,
      cz = 0,
      nx = 0,
      ny = 0,
      nz = 0,
      area = 0
    if (count[node]! > 0) {
      for (let i = first[node]!; i < first[node]! + count[node]!; i++) {
        const c = i * 9
        const ux = corners[c + 3]! - corners[c]!,
          uy = corners[c + 4]! - corners[c + 1]!,
          uz = corners[c + 5]! - corners[c + 2]!
        const vx = corners[c + 6]! - corners[c]!,
          vy = corners[c + 7]! - corners[c + 1]!,
          vz = corners[c + 8]! - corners[c + 2]!
        const ax = (uy * vz - uz * vy) / 2,
          ay = (uz * vx - ux * vz) / 2,
          az = (ux * vy - uy * vx) / 2
        const a = Math.sqrt(ax * ax + ay * ay + az * az)
        nx += ax
        ny += ay
        nz += az
        area += a
        cx += (a * (corners[c]! + corners[c + 3]! + corners[c + 6]!)) / 3
        cy += (a * (corners[c + 1]! + corners[c + 4]! + corners[c + 7]!)) / 3
        cz += (a * (corners[c + 2]! + corners[c + 5]! + corners[c + 8]!)) / 3
      }
    } else {
      for (const child of [node + 1, right[node]!]) {
        const d = child * 7,
          a = areas[child]!
        cx += dipoles[d]! * a
        cy += dipoles[d + 1]! * a
        cz += dipoles[d + 2]! * a
        nx += dipoles[d + 3]!
        ny += dipoles[d + 4]!
        nz += dipoles[d + 5]!
        area += a
      }
    }
    const k = area > 0 ? 1 / area : 0
    cx *= k
    cy *= k
    cz *= k
    const b = node * 6
    const bx = tree.boxes
    areas[node] = area
    const d = node * 7
    dipoles[d] = cx
    dipoles[d + 1] = cy
    dipoles[d + 2] = cz
    dipoles[d + 3] = nx
    dipoles[d + 4] = ny
    dipoles[d + 5] = nz
    const rx = Math.max(cx - bx[b]!, bx[b + 3]! - cx),
      ry = Math.max(cy - bx[b + 1]!, bx[b + 4]! - cy),
      rz = Math.max(cz - bx[b + 2]!, bx[b + 5]! - cz)
    dipoles[d + 6] = Math.sqrt(rx * rx + ry * ry + rz * rz)
  }
  return { tree, dipoles }
}

const stack = new Int32Array(128)

/** Winding number at (x, y, z). Solid angles of near faces by van Oosterom and Strackee 1983. */
export function windingNumber(w: Winding, x: number, y: number, z: number): number {
  const { dipoles, tree } = w
  const { count, first, right, corners } = tree
  if (tree.nodes === 0) return 0
  let sum = 0,
    top = 0
  stack[0] = 0
  while (top >= 0) {
    const node = stack[top--]!
    const d = node * 7
    const rx = dipoles[d]! - x,
      ry = dipoles[d + 1]! - y,
      rz = dipoles[d + 2]! - z
    const r2 = rx * rx + ry * ry + rz * rz
    const reach = FAR * dipoles[d + 6]!
    if (r2 > reach * reach) {
      sum += (dipoles[d + 3]! * rx + dipoles[d + 4]! * ry + dipoles[d + 5]! * rz) / (r2 * Math.sqrt(r2))
      continue
    }
    const faces = count[node]!
    if (faces === 0) {
      stack[++top] = right[node]!
      stack[++top] = node + 1
      continue
    }
    const from = first[node]!
    for (let i = from; i < from + faces; i++) {
      const c = i * 9
      const ax = corners[c]! - x,
        ay = corners[c + 1]! - y,
        az = corners[c + 2]! - z
      const bx = corners[c + 3]! - x,
        by = corners[c + 4]! - y,
        bz = corners[c + 5]! - z
      const cx = corners[c + 6]! - x,
        cy = corners[c + 7]! - y,
        cz = corners[c + 8]! - z
      const a = Math.sqrt(ax * ax + ay * ay + az * az),
        b = Math.sqrt(bx * bx + by * by + bz * bz),
        g = Math.sqrt(cx * cx + cy * cy + cz * cz)
      const det = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
      const den =
        a * b * g +
        (ax * bx + ay * by + az * bz) * g +
        (bx * cx + by * cy + bz * cz) * a +
        (cx * ax + cy * ay + cz * az) * b
      // Most faces are seen under a small angle, where the series is exact to a hundred-thousandth.
      if (den > 0 && det < SMALL * den && det > -SMALL * den) {
        const t = det / den,
          t2 = t * t
        sum += 2 * t * (1 - t2 * (1 / 3 - t2 * (1 / 5 - t2 / 7)))
      } else sum += 2 * Math.atan2(det, den)
    }
  }
  return sum / (4 * Math.PI)
}

const windings = new WeakMap<Tree, Winding>()
export function windingOf(tree: Tree): Winding {
  let w = windings.get(tree)
  if (!w) windings.set(tree, (w = buildWinding(tree)))
  return w
}

/** Whether the point lies inside the surface; flipped shells count as solid too (nonzero rule). */
export const isInside = (tree: Tree, x: number, y: number, z: number): boolean =>
  Math.abs(windingNumber(windingOf(tree), x, y, z)) > 0.5
