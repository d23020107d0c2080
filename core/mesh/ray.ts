import type { Tree } from './tree'

export interface Hit {
  /** distance along the (unit) direction, mm */
  t: number
  face: number
  /** true when the ray leaves the body here (it meets the face from behind) */
  leaving: boolean
}

const stack = new Int32Array(128)
/** Barycentric slack, far above rounding: a ray along an edge meets one of its faces rather than slipping between. */
const EDGE = 1e-9
const HUGE = 1e300

/** First hit of the ray between `near` and `far`, or null. The direction must be of unit length. */
export function rayFirst(
  tree: Tree,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  near = 0,
  far = Infinity,
): Hit | null {
  let best: Hit | null = null
  walk(tree, ox, oy, oz, dx, dy, dz, near, far, (t, face, leaving) => {
    best = { t, face, leaving }
    return t
  })
  return best
}

/** Whether anything lies on the ray between `near` and `far`. Cheaper than `rayFirst`. */
export function rayBlocked(
  tree: Tree,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  near = 0,
  far = Infinity,
): boolean {
  let blocked = false
  walk(tree, ox, oy, oz, dx, dy, dz, near, far, () => {
    blocked = true
    return -Infinity
  })
  return blocked
}

/** All hits, nearest first. A ray through an edge or corner meets all faces there; they count as one hit. */
export function rayAll(
  tree: Tree,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  near = 0,
  far = Infinity,
): Hit[] {
  const hits: Hit[] = []
  walk(tree, ox, oy, oz, dx, dy, dz, near, far, (t, face, leaving) => {
    hits.push({ t, face, leaving })
    return far
  })
  hits.sort((a, b) => a.t - b.t)
  return hits.filter((h, i) => i === 0 || h.leaving !== hits[i - 1]!.leaving || h.t - hits[i - 1]!.t > 1e-6 * (1 + h.t))
}

/** Slab test over the tree, Möller–Trumbore at the leaves; `found` answers the new far limit. */
function walk(
  tree: Tree,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  near: number,
  far: number,
  found: (t: number, face: number, leaving: boolean) => number,
): void {
  const { boxes, right, first, count, order, corners } = tree
  if (tree.nodes === 0) return
  // A huge number instead of ±∞: an origin lying in a box's side then gives 0, not NaN, whatever the zero's sign.
  const ix = dx === 0 ? HUGE : 1 / dx,
    iy = dy === 0 ? HUGE : 1 / dy,
    iz = dz === 0 ? HUGE : 1 / dz
  const axis = Math.abs(dx) > Math.abs(dy) ? (Math.abs(dx) > Math.abs(dz) ? 0 : 2) : Math.abs(dy) > Math.abs(dz) ? 1 : 2
  const forward = (axis === 0 ? dx : axis === 1 ? dy : dz) >= 0
  let top = 0
  stack[0] = 0
  while (top >= 0) {
    const node = stack[top--]!
    const o = node * 6
    let t0 = near,
      t1 = far
    let a = (boxes[o]! - ox) * ix,
      b = (boxes[o + 3]! - ox) * ix
    if (a > b) {
      const s = a
      a = b
      b = s
    }
    if (a > t0) t0 = a
    if (b < t1) t1 = b
    a = (boxes[o + 1]! - oy) * iy
    b = (boxes[o + 4]! - oy) * iy
    if (a > b) {
      const s = a
      a = b
      b = s
    }
    if (a > t0) t0 = a
    if (b < t1) t1 = b
    a = (boxes[o + 2]! - oz) * iz
    b = (boxes[o + 5]! - oz) * iz
    if (a > b) {
      const s = a
      a = b
      b = s
    }
    if (a > t0) t0 = a
    if (b < t1) t1 = b
    if (t0 > t1) continue
    const faces = count[node]!
    if (faces === 0) {
      const l = node + 1,
        r = right[node]!
      const leftNearer =
        boxes[l * 6 + axis]! + boxes[l * 6 + 3 + axis]! <= boxes[r * 6 + axis]! + boxes[r * 6 + 3 + axis]!
      if (leftNearer === forward) {
        stack[++top] = r
        stack[++top] = l
      } else {
        stack[++top] = l
        stack[++top] = r
      }
      continue
    }
    const from = first[node]!
    for (let i = from; i < from + faces; i++) {
      const c = i * 9
      const ax = corners[c]!,
        ay = corners[c + 1]!,
        az = corners[c + 2]!
      const ux = corners[c + 3]! - ax,
        uy = corners[c + 4]! - ay,
        uz = corners[c + 5]! - az
      const vx = corners[c + 6]! - ax,
        vy = corners[c + 7]! - ay,
        vz = corners[c + 8]! - az
      const px = dy * vz - dz * vy,
        py = dz * vx - dx * vz,
        pz = dx * vy - dy * vx
      const det = ux * px + uy * py + uz * pz
      if (det === 0) continue
      const k = 1 / det
      const sx = ox - ax,
        sy = oy - ay,
        sz = oz - az
      const u = (sx * px + sy * py + sz * pz) * k
      if (u < -EDGE || u > 1 + EDGE) continue
      const qx = sy * uz - sz * uy,
        qy = sz * ux - sx * uz,
        qz = sx * uy - sy * ux
      const v = (dx * qx + dy * qy + dz * qz) * k
      if (v < -EDGE || u + v > 1 + EDGE) continue
      const t = (vx * qx + vy * qy + vz * qz) * k
      if (t < near || t > far) continue
      far = found(t, order[i]!, det < 0)
      if (far === -Infinity) return
    }
  }
}
