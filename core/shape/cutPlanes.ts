import { silent, type Report } from '../answer'
import { bounds, boxDiagonal, type Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { frame, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { treeOf } from '../mesh/tree'
import { sectionArea, sectionPerimeter, Sections } from '../mesh/sections'
import { sphereDirections } from '../math/directions'
import { sectionOutline } from './section'

export interface CutPlane {
  point: Vector3
  normal: Vector3
  /** mm², of the section */
  area: number
  /** mm round the section, and how much of it is seen from the front and above */
  seam: number
  seen: number
  /** regions of the section: each wants its own glue face */
  pieces: number
  /** mm, radius of the widest circle in it: room for a key */
  room: number
  /** share of the body's volume in its smaller half */
  smaller: number
  /** sizes of the two halves, mm */
  below: Vector3
  above: Vector3
  /** parts it takes until each goes into the printer, cut on like this */
  parts: number
  /** focal places that it passes through or near */
  crosses: number
}

export interface CutWish {
  /** build volume, mm */
  volume: Vector3
  /** places that a seam must keep away from, and how far, mm */
  focal: readonly { point: Vector3; radius: number }[]
}

const HEIGHTS = 36
/** Where a seam may be looked at from: the front half above the table. */
const LOOKS = sphereDirections(60).filter((d) => d[1] < 0.35 && d[2] > -0.15)
const SEEN_AT = 48
/** Proposals closer than this share of the size are the same cut. */
const APART = 0.06
const MAX_PLANES = 6
/** A half with less than this share of the body is shaved off rather than cut. */
const SLIVER = 0.04

/** Level, upright both ways, and leaning, as collars, belts and cuffs lie. */
const NORMALS: readonly Vector3[] = [
  [0, 0, 1],
  [1, 0, 0],
  [0, 1, 0],
  ...[-25, 25].flatMap((a): Vector3[] => {
    const r = (a * Math.PI) / 180
    return [
      [Math.sin(r), 0, Math.cos(r)],
      [0, Math.sin(r), Math.cos(r)],
    ]
  }),
]

/**
 * Planes along which a sculpt is best cut, best first: few parts until all fit the printer, a short seam where it is
 * seen, room for a key, nothing focal crossed (objectives after Luo et al. 2012, over a set of planes instead of a beam).
 */
export function cutPlanes(mesh: Mesh, wish: CutWish, report: Report = silent): CutPlane[] {
  const tree = treeOf(mesh)
  const size = boxDiagonal(bounds(mesh))
  const found: CutPlane[] = []
  for (const [i, normal] of NORMALS.entries()) {
    report((0.9 * i) / NORMALS.length)
    const [u, v] = frame(normal)
    const flat = transformed(mesh, [...u, ...v, ...normal] as never, [0, 0, 0])
    const box = bounds(flat)
    const rise = box.max[2] - box.min[2]
    const cuts = new Sections(flat)
    const first = found.length
    // Volume below each plane, by the sections' areas on the way up.
    const under: number[] = []
    let passed = 0
    for (let k = 1; k < HEIGHTS; k++) {
      const h = box.min[2] + (k / HEIGHTS) * rise
      const count = cuts.at(h)
      const s = cuts.segments
      const area = Math.abs(sectionArea(s, count))
      passed += area
      if (count === 0) continue
      under.push(passed - area / 2)
      const world = (x: number, y: number): Vector3 =>
        [0, 1, 2].map((c) => x * u[c]! + y * v[c]! + h * normal[c]!) as never
      let cx = 0,
        cy = 0,
        seenLength = 0,
        triedLength = 0
      const step = Math.max(1, Math.floor(count / SEEN_AT))
      for (let e = 0; e < count; e++) {
        cx += (s[e * 4]! + s[e * 4 + 2]!) / (2 * count)
        cy += (s[e * 4 + 1]! + s[e * 4 + 3]!) / (2 * count)
        if (e % step !== 0) continue
        const dx = s[e * 4 + 2]! - s[e * 4]!,
          dy = s[e * 4 + 3]! - s[e * 4 + 1]!
        const l = Math.hypot(dx, dy)
        if (l < 1e-9) continue
        // Just outside: the solid lies to the left of the segment.
        const out: Vector3 = world(
          (s[e * 4]! + s[e * 4 + 2]!) / 2 + (0.02 * dy) / l,
          (s[e * 4 + 1]! + s[e * 4 + 3]!) / 2 - (0.02 * dx) / l,
        )
        const free = LOOKS.filter((d) => !rayBlocked(tree, ...out, ...d, 1e-3)).length
        triedLength += l
        seenLength += l * (free / LOOKS.length)
      }
      const seam = sectionPerimeter(s, count)
      const halves = halfSizes(flat, h, [u, v, normal], s, count)
      found.push({
        point: world(cx, cy),
        normal,
        area,
        smaller: 0,
        seam,
        seen: triedLength > 0 ? (seam * seenLength) / triedLength : 0,
        pieces: 0,
        room: 0,
        ...halves,
        parts: partsNeeded(halves.below, wish.volume) + partsNeeded(halves.above, wish.volume),
        crosses: wish.focal.filter(
          (f) => Math.abs(f.point[0] * normal[0] + f.point[1] * normal[1] + f.point[2] * normal[2] - h) < f.radius,
        ).length,
      })
    }
    found.slice(first).forEach((c, i) => {
      const share = under[i]! / passed
      c.smaller = Math.min(share, 1 - share)
    })
  }
  const cost = (c: CutPlane): number =>
    c.seen +
    0.25 * c.seam +
    size * (0.6 * (c.parts - 2) + 0.8 * c.crosses) +
    (c.normal[2] > 0.99 ? 0 : 0.04 * size) +
    (c.smaller < SLIVER ? 0.5 * size : 0)
  found.sort((a, b) => cost(a) - cost(b))
  const chosen: CutPlane[] = []
  for (const c of found) {
    if (chosen.length >= 2 * MAX_PLANES) break
    const same = chosen.some(
      (o) =>
        Math.hypot(o.point[0] - c.point[0], o.point[1] - c.point[1], o.point[2] - c.point[2]) < APART * size &&
        Math.abs(o.normal[0] * c.normal[0] + o.normal[1] * c.normal[1] + o.normal[2] * c.normal[2]) > 0.8,
    )
    if (!same) chosen.push(c)
  }
  const measured = chosen.map((c): CutPlane => {
    const { pieces, circles } = sectionOutline(mesh, c.point, c.normal)
    return { ...c, pieces, room: circles[0]?.radius ?? 0 }
  })
  const final = (c: CutPlane): number => cost(c) + size * 0.15 * (c.pieces - 1) + (c.room < 2 ? 0.2 * size : 0)
  return measured.sort((a, b) => final(a) - final(b)).slice(0, MAX_PLANES)
}

/** Sizes of the two halves along the world's axes: the corners on either side, and the section's edge to both. */
function halfSizes(
  { positions: p }: Mesh,
  h: number,
  [u, v, n]: readonly [Vector3, Vector3, Vector3],
  section: Float64Array,
  count: number,
): { below: Vector3; above: Vector3 } {
  const lo = [new Float64Array(3).fill(Infinity), new Float64Array(3).fill(Infinity)],
    hi = [new Float64Array(3).fill(-Infinity), new Float64Array(3).fill(-Infinity)]
  const reach = (half: number, x: number, y: number, z: number): void => {
    for (let c = 0; c < 3; c++) {
      const w = x * u[c]! + y * v[c]! + z * n[c]!
      if (w < lo[half]![c]!) lo[half]![c] = w
      if (w > hi[half]![c]!) hi[half]![c] = w
    }
  }
  for (let i = 0; i < p.length; i += 3) reach(p[i + 2]! >= h ? 1 : 0, p[i]!, p[i + 1]!, p[i + 2]!)
  for (let i = 0; i < count * 4; i += 2) for (const half of [0, 1]) reach(half, section[i]!, section[i + 1]!, h)
  const [below, above] = [0, 1].map((k) => [0, 1, 2].map((c) => hi[k]![c]! - lo[k]![c]!) as unknown as Vector3)
  return { below: below!, above: above! }
}

/** Parts a body of that size falls into until each fits, cut across its longest sides only. */
function partsNeeded(size: Vector3, volume: Vector3): number {
  const a = [...size].sort((x, y) => x - y),
    b = [...volume].sort((x, y) => x - y)
  return a.reduce((n, s, k) => n * Math.max(1, Math.ceil(s / b[k]! - 1e-6)), 1)
}
