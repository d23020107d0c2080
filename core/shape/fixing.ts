import { bad, good, type Answer } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import type { Mesh } from '../mesh/mesh'
import { rayFirst } from '../mesh/ray'
import { isInside } from '../mesh/winding'
import { treeOf, type Tree } from '../mesh/tree'
import { frame, type Vector3 } from '../math/vectors'
import { sphereSolid } from './ball'
import { tube } from './cylinder'
import { dShape, loft } from './loft'
import { sectionOutline } from './section'
import { subtract, unite } from './solid'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** How two parts are held to each other at one place. Both parts carry the same record but for `role`. */
export interface Fixing {
  shape: 'key' | 'ball' | 'pin' | 'magnet'
  /** plug: what stands out, or the upper hole; socket: what it goes into */
  role: 'plug' | 'socket'
  /** mm, in the joint's face */
  point: Vector3
  /** unit, out of the plug's part into the socket's */
  direction: Vector3
  /** mm: width of a key across, diameter of a ball, a pin's wire or a magnet */
  width: number
  /** mm into the socket; of a pin and a magnet, into each part */
  length: number
  /** degrees by which a key tapers */
  draft: number
  /** mm per side between plug and socket */
  clearance: number
}
export interface FixingReport {
  /** mm of material left round each socket or hole, the least */
  walls: number[]
}

const SIDES = 48
/** mm by which plugs reach back into their own part, and sockets out of theirs, so that no skin is left between. */
const OVERLAP = 0.4
/** A socket may not come nearer to the skin than this, mm. */
const LEAST_WALL = 0.6
/** More wall than this is not told apart, mm. */
const ROOMY = 50

/** Adds plugs to a body and takes sockets and holes off it; nothing is changed unless every one of them has room. */
export async function fix(
  mesh: Mesh,
  fixings: readonly Fixing[],
): Promise<Answer<{ mesh: Mesh; report: FixingReport }>> {
  if (fixings.length === 0) return bad('no-fixings', message('problems.fixing.thereIsNothingToFix'))
  const tree = treeOf(mesh)
  const plugs: Mesh[] = [],
    holes: Mesh[] = []
  const walls: number[] = []
  for (const [i, f] of fixings.entries()) {
    const bodies = bodiesOf(f)
    if (f.role === 'plug' && (f.shape === 'key' || f.shape === 'ball')) {
      plugs.push(...bodies)
      continue
    }
    const wall = Math.min(...bodies.map((b) => wallAround(tree, b, f)), ROOMY)
    if (wall < LEAST_WALL)
      return bad(
        'fixing-breaks-out',
        message('problems.fixing.fixingWouldLeaveOnlyMm', {
          i: i + 1,
          n: fixed(Math.max(0, wall), 1),
          least_wall: LEAST_WALL,
        }),
      )
    walls.push(wall)
    holes.push(...bodies)
  }
  let result: Mesh = mesh
  if (plugs.length > 0) {
    const r = await unite([result, ...plugs])
    if (!r.ok) return r
    result = r.value
  }
  if (holes.length > 0) {
    const r = await subtract(result, holes)
    if (!r.ok) return r
    result = r.value
  }
  return good({ mesh: result, report: { walls } })
}

/** The solids that are added or taken away. */
function bodiesOf(f: Fixing): Mesh[] {
  const { point: p, direction: d, width, length, clearance } = f
  const at = (t: number): Vector3 => [p[0] + d[0] * t, p[1] + d[1] * t, p[2] + d[2] * t]
  const grow = f.role === 'socket' ? clearance : 0
  switch (f.shape) {
    case 'key': {
      const [u, v] = frame(d)
      const slope = Math.tan((f.draft * Math.PI) / 180)
      const outline = (t: number): Float64Array => dShape(Math.max(0.2, width / 2 + grow - slope * t), SIDES)
      const from = -OVERLAP,
        to = length + grow
      return [
        loft(
          [
            { outline: outline(0), height: from },
            { outline: outline(0), height: 0 },
            { outline: outline(length), height: to },
          ],
          (x, y, z) => [0, 1, 2].map((k) => p[k]! + x * u[k]! + y * v[k]! + z * d[k]!) as never,
        ),
      ]
    }
    case 'ball': {
      const r = width / 2 + grow,
        neck = width * 0.3 + grow
      // The ball's middle stands off the face, so that the joint swings freely; its socket grips a little over half.
      const ball = sphereSolid(at(width * 0.35), r, SIDES)
      return [ball, tube([at(-OVERLAP), at(width * 0.35)], [neck, neck], SIDES)]
    }
    case 'pin':
    case 'magnet': {
      const r = width / 2 + clearance
      const sign = f.role === 'plug' ? -1 : 1
      return [tube([at(-sign * OVERLAP), at(sign * (length + clearance))], [r, r], SIDES)]
    }
  }
}

/**
 * Least distance from what is taken away to the body's skin, negative where it is outside. Near its mouth the nearest
 * skin is the joint's own face, which does not count: only what lies deeper than its distance from the skin does.
 */
function wallAround(tree: Tree, hole: Mesh, { point: p, direction: d, role, shape }: Fixing): number {
  const into = role === 'plug' && (shape === 'pin' || shape === 'magnet') ? -1 : 1
  const hit = closest()
  let wall = Infinity
  for (let i = 0; i < hole.positions.length; i += 3) {
    const [x, y, z] = [hole.positions[i]!, hole.positions[i + 1]!, hole.positions[i + 2]!]
    const depth = into * ((x - p[0]) * d[0] + (y - p[1]) * d[1] + (z - p[2]) * d[2])
    if (depth < LEAST_WALL) continue
    const away = closestPoint(tree, x, y, z, hit)
    const inside = isInside(tree, x, y, z)
    if (inside && away >= 0.98 * depth) continue
    wall = Math.min(wall, inside ? away : -away)
  }
  return wall
}

/**
 * Keys for a cut: in the widest inscribed circle of each region of the section that has room for one, half as wide as
 * the circle or a little more, never nearer to the skin than the wall, and no longer than the shallower half is deep.
 */
export function keySites(
  mesh: Mesh,
  point: Vector3,
  normal: Vector3,
  o: { wall: number; clearance: number; draft: number },
): Omit<Fixing, 'role'>[] {
  const tree = treeOf(mesh)
  return sectionOutline(mesh, point, normal)
    .circles.slice(0, 6)
    .flatMap((c): Omit<Fixing, 'role'>[] => {
      const width = Math.min(2 * (c.radius - o.wall - o.clearance), 1.2 * c.radius, 14)
      if (width < 1.5) return []
      const depth = Math.min(...[1, -1].map((s) => roomAlong(tree, c.centre, normal, s)))
      const length = Math.min(width, depth - o.wall - o.clearance)
      if (length < 0.8 * width * 0.6) return []
      return [
        { shape: 'key', point: c.centre, direction: normal, width, length, draft: o.draft, clearance: o.clearance },
      ]
    })
}

function roomAlong(tree: Tree, p: Vector3, d: Vector3, sign: number): number {
  return rayFirst(tree, p[0], p[1], p[2], sign * d[0], sign * d[1], sign * d[2])?.t ?? 0
}
