import { silent, type Report } from '../../answer'
import { bounds, boxSize, type Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { sphereDirections } from '../../math/directions'
import { solidGrid } from '../../volume/solidGrid'
import { CavityFlow, type Pool, type Settled } from './cavityFlow'

export interface DrainStep {
  /** unit, in the part's own frame: which way is down */
  down: [number, number, number]
  /** mm³ left after it */
  left: number
}
export interface TrapReport {
  /** mm³ in all pools in cavities, hanging or standing as asked */
  trapped: number
  pools: Pool[]
  /** mm³ of all cavities that are open to the outside, and of those that are not */
  cavity: number
  shut: number
  /** the one pose of those tried in which least stays */
  best: DrainStep
  /** poses one after the other that empty it, as far as they can */
  routine: DrainStep[]
  /** what stays after the last of them */
  stuck: Pool[]
  /** mm; pools shallower than about one of them are not seen */
  voxel: number
}

/** Cells that the box of a body is cut into; a wide flat one gets as many as a slender one. */
const CELLS = 3e6
/** How many times fewer there are where poses are only compared. */
const COARSER = 15
/** mm; drops smaller than this cling anyway */
const LEAST_VOXEL = 0.3
/** Poses that are tried, besides the one asked for and its opposite. */
const POSES = 50
const MAX_STEPS = 4
/** mm³ that clings anyway */
const FILM = 5

/**
 * What stays in a hollow part: resin in a cell of the void leaves by whichever way to the open rises least, so it stays
 * where that rise is above it (priority-flood from the outlets, Barnes, Lehman and Mulla 2014, over all void cells along
 * −down). A routine of poses is found by always taking the pose that leaves least of what the last one left.
 *
 * @param down unit, as it hangs or stands
 * @param cells that the body's box is cut into
 */
export function trappedResin(mesh: Mesh, down: Vector3, report: Report = silent, cells = CELLS): TrapReport {
  const box = boxSize(bounds(mesh)).reduce((a, b) => a * b, 1)
  const voxel = Math.max(LEAST_VOXEL, Math.cbrt(box / cells))
  const fine = new CavityFlow(solidGrid([mesh], voxel))
  report(0.2)
  const asked = fine.settle(down, null)
  report(0.3)
  // Poses are looked for on a coarser grid and judged on the fine one.
  const coarse = new CavityFlow(solidGrid([mesh], Math.cbrt(COARSER) * voxel))
  const candidates: Vector3[] = [down, [-down[0], -down[1], -down[2]], ...sphereDirections(POSES)]
  const bestAfter = (before: Uint8Array | null): { down: Vector3; settled: Settled } => {
    let best: { down: Vector3; settled: Settled } | null = null
    for (const d of candidates) {
      const settled = coarse.settle(d, before)
      if (!best || settled.left < best.settled.left - 1e-9) best = { down: d, settled }
    }
    return best!
  }
  const routine: DrainStep[] = []
  let rough: Uint8Array | null = null,
    exact: Uint8Array | null = null,
    stuck: Pool[] = [],
    left = Infinity
  while (routine.length < MAX_STEPS) {
    const next = bestAfter(rough)
    const settled = fine.settle(next.down, exact)
    if (settled.left > 0.98 * left) break
    routine.push({ down: [...next.down], left: settled.left })
    rough = next.settled.filled
    exact = settled.filled
    left = settled.left
    stuck = settled.pools()
    report(0.3 + (0.7 * routine.length) / MAX_STEPS)
    if (left <= FILM) break
  }
  return {
    trapped: asked.left,
    pools: asked.pools(),
    cavity: fine.cavity,
    shut: fine.shut,
    best: routine[0]!,
    routine,
    stuck,
    voxel,
  }
}
