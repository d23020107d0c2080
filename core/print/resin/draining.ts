import { bounds, boxSize, type Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { denseField } from '../../volume/denseField'
import { extractSurface } from '../../volume/extract'
import { solidGrid, type SolidGrid } from '../../volume/solidGrid'
import { CavityFlow } from './cavityFlow'

/** What is in a part at one moment of its draining, in the part's own frame. */
export interface DrainFrame {
  /** number of the pose it is held in */
  pose: number
  /** mm³ in its cavities */
  left: number
  /** the resin's own surface, closed */
  surface: Mesh
}

/** Cells that the part's box is cut into. */
const CELLS = 3e5

/**
 * How a hollow part, full at first, runs empty while it is held in one pose after the other. What leaves in a pose is known
 * from where it settles (see `CavityFlow`); on the way there the level falls, and what only moves to another place gathers
 * there from the bottom up, at the same pace.
 *
 * @param poses unit directions that are down, in the part's own frame, one after the other
 * @param perPose pictures of each pose, the first of them before anything has moved; at least 2
 */
export function* drainFrames(
  mesh: Mesh,
  poses: readonly Vector3[],
  perPose: number,
  cells = CELLS,
): Generator<DrainFrame> {
  const box = boxSize(bounds(mesh)).reduce((a, b) => a * b, 1)
  const grid = solidGrid([mesh], Math.cbrt(box / cells))
  const flow = new CavityFlow(grid)
  // Folds of the outside are wiped, not drained.
  let now = flow.inside.slice()
  const volume = grid.voxel ** 3
  const surface = surfaceOf(flow, grid)
  for (const [pose, down] of poses.entries()) {
    const after = flow.settle(down, now).filled.map((f, i) => f & flow.inside[i]!)
    const height = (i: number): number =>
      -(flow.places[i * 3]! * down[0] + flow.places[i * 3 + 1]! * down[1] + flow.places[i * 3 + 2]! * down[2])
    const gone: number[] = [],
      come: number[] = []
    for (let i = 0; i < now.length; i++) {
      if (now[i] && !after[i]) gone.push(i)
      else if (!now[i] && after[i]) come.push(i)
    }
    gone.sort((a, b) => height(b) - height(a))
    come.sort((a, b) => height(a) - height(b))
    let out = 0,
      into = 0
    for (let k = 0; k < perPose; k++) {
      const t = k / (perPose - 1)
      while (out < t * gone.length) now[gone[out++]!] = 0
      while (into < t * come.length) now[come[into++]!] = 1
      yield { pose, left: now.reduce((a, b) => a + b, 0) * volume, surface: surface(now) }
    }
    now = after
  }
}

/** Draws a surface round cells that hold resin: their share in each cell's neighbourhood is one half there. */
function surfaceOf(flow: CavityFlow, { size, origin, voxel }: SolidGrid): (filled: Uint8Array) => Mesh {
  const [sx, sy] = size
  const at = Int32Array.from({ length: flow.count }, (_, i) => {
    const [x, y, z] = [0, 1, 2].map((k) => Math.floor((flow.places[i * 3 + k]! - origin[k]!) / voxel)) as [
      number,
      number,
      number,
    ]
    return (z * sy + y) * sx + x
  })
  const middle = origin.map((o) => o + voxel / 2) as [number, number, number]
  const share = new Float32Array(size[0] * size[1] * size[2]),
    other = share.slice()
  return (filled) => {
    share.fill(0)
    for (let i = 0; i < filled.length; i++) share[at[i]!] = filled[i]!
    // The grid's margin is wider than the two cells that this reaches.
    let from = share,
      to = other
    for (const step of [1, sx, sx * sy]) {
      for (let c = step; c < from.length - step; c++) to[c] = 0.25 * (from[c - step]! + 2 * from[c]! + from[c + step]!)
      ;[from, to] = [to, from]
    }
    const field = from.map((v) => (0.5 - v) * voxel)
    share.fill(0)
    other.fill(0)
    return extractSurface(denseField(field, size, middle, voxel))
  }
}
