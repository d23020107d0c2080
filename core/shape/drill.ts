import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { rayAll, rayBlocked } from '../mesh/ray'
import { treeOf, type Tree } from '../mesh/tree'
import type { Vector3 } from '../math/vectors'
import { tube } from './cylinder'
import { frame } from '../math/vectors'
import { subtract } from './solid'
import { sphereDirections } from '../math/directions'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface DrainHole {
  /** on the outer skin, mm */
  point: Vector3
  /** unit, into the body */
  direction: Vector3
  /** mm */
  diameter: number
}

export interface DrilledHole extends DrainHole {
  /** how far the drill goes from the point, mm */
  depth: number
  /** distance from the inner skin to the wall across, mm */
  clear: number
  /** mm of sound skin all round before an edge of the body, looked for up to `EDGE_LOOKED` */
  edge: number
}
/** mm */
const EDGE_LOOKED = 3

export interface DrillReport {
  holes: DrilledHole[]
  volumeRemoved: number
}

/**
 * Drills all holes with one boolean. Each must pass from outside into an enclosed cavity and keep its own
 * diameter clear of the far wall (methods.md 3), which is tested by rays through its axis and its rim first;
 * nothing is cut unless every hole is good.
 */
export async function drill(
  mesh: Mesh,
  holes: readonly DrainHole[],
): Promise<Answer<{ mesh: Mesh; report: DrillReport }>> {
  const tree = treeOf(mesh)
  const drilled: DrilledHole[] = []
  for (const [i, hole] of holes.entries()) {
    const a = probe(tree, hole)
    if (!a.ok) return bad(a.problem.code, message('problems.drill.hole', { i: i + 1, message: a.problem.message }))
    drilled.push(a.value)
  }
  const before = measure(mesh).volume
  const cut = await subtract(
    mesh,
    drilled.map((h) => {
      const at = (d: number): Vector3 => [
        h.point[0] + h.direction[0] * d,
        h.point[1] + h.direction[1] * d,
        h.point[2] + h.direction[2] * d,
      ]
      return tube([at(-h.diameter), at(h.depth)], [h.diameter / 2, h.diameter / 2], 32)
    }),
  )
  if (!cut.ok) return cut
  return good({ mesh: cut.value, report: { holes: drilled, volumeRemoved: before - measure(cut.value).volume } })
}

/** How deep this hole must go, or why it may not be drilled. */
export function probe(tree: Tree, hole: DrainHole): Answer<DrilledHole> {
  const { point: p, direction: d, diameter } = hole
  const axis = walls(tree, p, d)
  if (!axis) return bad('hole-misses', message('problems.drill.theDrillDoesNotMeet'))
  const [u, v] = frame(d)
  let depth = axis.through,
    clear = axis.clear
  for (let k = 0; k < 8; k++) {
    const c = (Math.cos((k * Math.PI) / 4) * diameter) / 2,
      s = (Math.sin((k * Math.PI) / 4) * diameter) / 2
    const rim = walls(tree, [p[0] + u[0] * c + v[0] * s, p[1] + u[1] * c + v[1] * s, p[2] + u[2] * c + v[2] * s], d)
    // A rim ray that finds no skin hangs over an edge: the hole would break out at its side.
    if (!rim) return bad('hole-at-edge', message('problems.drill.atMmItBreaksOut', { diameter }))
    depth = Math.max(depth, rim.through)
    clear = Math.min(clear, rim.clear - Math.max(0, rim.through - axis.through))
  }
  if (
    !enclosed(
      tree,
      p[0] + d[0] * (axis.through + 0.05),
      p[1] + d[1] * (axis.through + 0.05),
      p[2] + d[2] * (axis.through + 0.05),
    )
  ) {
    return bad('hole-misses-cavity', message('problems.drill.itLeavesThePartOn', { through: fixed(axis.through, 1) }))
  }
  if (clear < diameter)
    return bad(
      'hole-grazes',
      message('problems.drill.behindItTheCavityIs', { n: fixed(Math.max(0, clear), 1), diameter }),
    )
  return good({ ...hole, depth: depth + 0.1, clear, edge: soundRim(tree, hole, u, v) })
}

/** How much wider the hole could be before its rim hung over an edge, in steps of half a millimetre. */
function soundRim(tree: Tree, { point: p, direction: d, diameter }: DrainHole, u: Vector3, v: Vector3): number {
  for (let more = 0.5; more <= EDGE_LOOKED; more += 0.5)
    for (let k = 0; k < 8; k++) {
      const r = diameter / 2 + more
      const c = Math.cos((k * Math.PI) / 4) * r,
        s = Math.sin((k * Math.PI) / 4) * r
      if (!walls(tree, [p[0] + u[0] * c + v[0] * s, p[1] + u[1] * c + v[1] * s, p[2] + u[2] * c + v[2] * s], d))
        return more - 0.5
    }
  return EDGE_LOOKED
}

/** Where the drill leaves the first wall, and how far the next one is. */
function walls(tree: Tree, p: Vector3, d: Vector3): { through: number; clear: number } | null {
  const back = 1.5
  const hits = rayAll(tree, p[0] - d[0] * back, p[1] - d[1] * back, p[2] - d[2] * back, d[0], d[1], d[2], 0, 1000)
  const enter = hits.findIndex((h) => !h.leaving)
  if (enter < 0 || hits[enter]!.t > 2 * back + 2) return null
  const leave = hits.findIndex((h, i) => i > enter && h.leaving)
  if (leave < 0) return null
  const next = hits.find((h, i) => i > leave && !h.leaving)
  return { through: hits[leave]!.t - back, clear: (next ? next.t : 1000) - hits[leave]!.t }
}

const LOOKS = sphereDirections(48)
/** Whether nearly every way out of the point is walled; holes drilled earlier let a few through. */
export function enclosed(tree: Tree, x: number, y: number, z: number): boolean {
  let blocked = 0
  for (const l of LOOKS) if (rayBlocked(tree, x, y, z, l[0], l[1], l[2], 1e-4)) blocked++
  return blocked >= LOOKS.length * 0.85
}
