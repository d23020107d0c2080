/**
 * Signed distances of simple bodies and their blends, for building sculpts and bases in code. All lengths mm.
 * Formulas are the usual exact distances; the ellipsoid is a first-order estimate (right sign, right zero).
 */
export type Shape = (x: number, y: number, z: number) => number
export type Point = readonly [number, number, number]

export const sphere =
  (c: Point, r: number): Shape =>
  (x, y, z) =>
    Math.hypot(x - c[0], y - c[1], z - c[2]) - r

export function ellipsoid(c: Point, r: Point): Shape {
  const [a, b, d] = [1 / r[0], 1 / r[1], 1 / r[2]]
  const least = Math.min(...r)
  return (x, y, z) => {
    const px = (x - c[0]) * a,
      py = (y - c[1]) * b,
      pz = (z - c[2]) * d
    const k0 = Math.sqrt(px * px + py * py + pz * pz)
    if (k0 < 1e-6) return -least
    const qx = px * a,
      qy = py * b,
      qz = pz * d
    const estimate = (k0 * (k0 - 1)) / Math.sqrt(qx * qx + qy * qy + qz * qz)
    // Deep inside a flat ellipsoid the estimate overshoots; this bound never does.
    return estimate < 0 ? Math.max(estimate, (k0 - 1) * least) : estimate
  }
}

/** Capsule whose radius goes from ra at a to rb at b (a round cone, taken as a linearly growing capsule). */
export function limb(a: Point, b: Point, ra: number, rb = ra): Shape {
  const ux = b[0] - a[0],
    uy = b[1] - a[1],
    uz = b[2] - a[2]
  const k = 1 / (ux * ux + uy * uy + uz * uz)
  return (x, y, z) => {
    const px = x - a[0],
      py = y - a[1],
      pz = z - a[2]
    let t = (px * ux + py * uy + pz * uz) * k
    t = t < 0 ? 0 : t > 1 ? 1 : t
    const dx = px - ux * t,
      dy = py - uy * t,
      dz = pz - uz * t
    return Math.sqrt(dx * dx + dy * dy + dz * dz) - (ra + (rb - ra) * t)
  }
}

/** Limbs along a chain of points; radii per point. */
export function strand(points: readonly Point[], radii: readonly number[], blend = 0): Shape {
  return union(blend, ...points.slice(1).map((p, i) => limb(points[i]!, p, radii[i]!, radii[i + 1]!)))
}

export function box(c: Point, half: Point, round = 0): Shape {
  return (x, y, z) => {
    const dx = Math.abs(x - c[0]) - half[0] + round,
      dy = Math.abs(y - c[1]) - half[1] + round,
      dz = Math.abs(z - c[2]) - half[2] + round
    return Math.hypot(Math.max(dx, 0), Math.max(dy, 0), Math.max(dz, 0)) + Math.min(Math.max(dx, dy, dz), 0) - round
  }
}

/** Turned body: a closed outline of (radius, height) points spun about the vertical through (cx, cy). Exact. */
export function turned(outline: readonly (readonly [number, number])[], cx = 0, cy = 0): Shape {
  const n = outline.length
  return (x, y, z) => {
    const r = Math.hypot(x - cx, y - cy)
    let best = Infinity,
      inside = false
    for (let i = 0, j = n - 1; i < n; j = i++) {
      const [ar, az] = outline[j]!,
        [br, bz] = outline[i]!
      const er = br - ar,
        ez = bz - az,
        wr = r - ar,
        wz = z - az
      let t = (wr * er + wz * ez) / (er * er + ez * ez || 1)
      t = t < 0 ? 0 : t > 1 ? 1 : t
      // Edges on the axis are no skin.
      if (ar > 1e-9 || br > 1e-9) best = Math.min(best, (wr - er * t) ** 2 + (wz - ez * t) ** 2)
      if (bz > z !== az > z && r < ((ar - br) * (z - bz)) / (az - bz) + br) inside = !inside
    }
    return inside ? -Math.sqrt(best) : Math.sqrt(best)
  }
}

/** Half space below the plane through p with normal n (unit). */
export const below =
  (p: Point, n: Point): Shape =>
  (x, y, z) =>
    (x - p[0]) * n[0] + (y - p[1]) * n[1] + (z - p[2]) * n[2]

/** Quadratic polynomial smooth minimum; `k` is the width over which the two blend, the fillet's size. */
export function smoothMin(a: number, b: number, k: number): number {
  if (k <= 0) return a < b ? a : b
  const h = k - Math.abs(a - b)
  return h <= 0 ? (a < b ? a : b) : (a < b ? a : b) - (h * h) / (4 * k)
}

export function union(k: number, ...shapes: Shape[]): Shape {
  return (x, y, z) => {
    let d = Infinity
    for (const s of shapes) d = smoothMin(d, s(x, y, z), k)
    return d
  }
}
export const carve =
  (k: number, body: Shape, ...tools: Shape[]): Shape =>
  (x, y, z) => {
    let d = body(x, y, z)
    for (const t of tools) d = -smoothMin(-d, t(x, y, z), k)
    return d
  }
export const intersect =
  (k: number, a: Shape, b: Shape): Shape =>
  (x, y, z) =>
    -smoothMin(-a(x, y, z), -b(x, y, z), k)

/** Adds `height(x, y, z)` mm of relief to the surface; only evaluated near it. */
export const relief =
  (body: Shape, height: Shape, most: number): Shape =>
  (x, y, z) => {
    const d = body(x, y, z)
    return Math.abs(d) > 6 * most ? (d > 0 ? d - most : d + most) : d - height(x, y, z)
  }

/**
 * The shape, which lies within r of c; farther out than `slack` from that ball only the distance to the ball is
 * computed. A lower bound of the true one, so nothing is missed, and most samples of a sculpt end here.
 */
export const within =
  (c: Point, r: number, s: Shape, slack = 3): Shape =>
  (x, y, z) => {
    const d = Math.hypot(x - c[0], y - c[1], z - c[2]) - r
    return d > slack ? d : s(x, y, z)
  }

/** Both sides of the x = 0 plane. */
export const mirrored =
  (s: Shape): Shape =>
  (x, y, z) =>
    s(Math.abs(x), y, z)

/** Turns the shape about the vertical axis through (cx, cy) by `angle` degrees. */
export function spun(s: Shape, angle: number, cx = 0, cy = 0): Shape {
  const c = Math.cos((-angle * Math.PI) / 180),
    n = Math.sin((-angle * Math.PI) / 180)
  return (x, y, z) => s(cx + (x - cx) * c - (y - cy) * n, cy + (x - cx) * n + (y - cy) * c, z)
}

/** Smooth value noise in [−1, 1] on a lattice of unit cells, the same on every machine. */
export function noise(x: number, y: number, z: number): number {
  const i = Math.floor(x),
    j = Math.floor(y),
    k = Math.floor(z)
  const u = fade(x - i),
    v = fade(y - j),
    w = fade(z - k)
  const mix = (a: number, b: number, t: number): number => a + (b - a) * t
  return mix(
    mix(mix(lattice(i, j, k), lattice(i + 1, j, k), u), mix(lattice(i, j + 1, k), lattice(i + 1, j + 1, k), u), v),
    mix(
      mix(lattice(i, j, k + 1), lattice(i + 1, j, k + 1), u),
      mix(lattice(i, j + 1, k + 1), lattice(i + 1, j + 1, k + 1), u),
      v,
    ),
    w,
  )
}
const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10)
function lattice(i: number, j: number, k: number): number {
  let h = Math.imul(i, 0x27d4eb2d) ^ Math.imul(j, 0x165667b1) ^ Math.imul(k, 0x9e3779b1)
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b)
  return ((h ^ (h >>> 13)) >>> 0) / 2147483648 - 1
}
