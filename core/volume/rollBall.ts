import { closest, closestPoint } from '../mesh/closest'
import type { Tree } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { MAX_CANDIDATES, nearestInside } from './nearestInside'

const ROUNDS = 16
/** of the radius: a centre this far off the skin counts as clear */
const CLEAR = 0.995
/** of the radius: the second round that gains less than this is the last */
const SETTLED = 0.003

/**
 * Rolls a ball as near to places of the skin as it comes: sequential linearisation (each place of the skin that the
 * ball would cut is a half-space its centre must keep to, turned again each round), from a centre already known to be
 * clear. Meant for what a grid has found coarsely: between walls that meet, the nearest centre lies on a crease of the
 * offset that falls between a grid's samples.
 *
 * The promise: what it returns is the distance of a centre that is clear of the skin by the radius within half a
 * percent, on the side asked for; never less than the true least one by more than that.
 */
export class BallRoller {
  private readonly normals = new Float64Array(MAX_CANDIDATES * 3)
  private readonly offsets = new Float64Array(MAX_CANDIDATES)
  private readonly touched = new Float64Array(MAX_CANDIDATES * 3)
  private readonly x = new Float64Array(3)
  private readonly near = closest()

  /**
   * @param radius mm, positive
   * @param inside whether the ball rolls inside the body
   */
  constructor(
    private readonly tree: Tree,
    private readonly radius: number,
    private readonly inside: boolean,
  ) {}

  /**
   * @param v place on the skin, mm
   * @param from centre of a ball near to it that is clear of the skin, on the side asked for
   * @returns mm from v to the nearest centre found, or Infinity where none was
   */
  reach(v: readonly [number, number, number], from: readonly [number, number, number]): number {
    const { tree, radius: r, normals, offsets, touched, near, x } = this
    let count = 0,
      best = Infinity,
      still = 0
    // A place on the side asked for, and how far around it there is no skin: all of that is on the same side.
    let sx = from[0],
      sy = from[1],
      sz = from[2],
      free = 0
    for (let k = 0; k < 3; k++) x[k] = from[k]! - v[k]!
    for (let round = 0; round < ROUNDS; round++) {
      const cx = v[0] + x[0]!,
        cy = v[1] + x[1]!,
        cz = v[2] + x[2]!
      const d = closestPoint(tree, cx, cy, cz, near)
      const same =
        round === 0 ||
        Math.hypot(cx - sx, cy - sy, cz - sz) < free ||
        (d > r * CLEAR && isInside(tree, cx, cy, cz) === this.inside)
      if (same) {
        sx = cx
        sy = cy
        sz = cz
        free = d
      }
      if (round > 0 && d > r * CLEAR && same) {
        // A half-space is more than its place of the skin asks, so a clear centre may still be turned nearer.
        const before = best
        best = Math.min(best, Math.hypot(x[0]!, x[1]!, x[2]!))
        if (best > before - SETTLED * r && ++still > 1) return best
      }
      const slot = count < MAX_CANDIDATES ? count++ : this.slackest()
      touched[slot * 3] = near.x
      touched[slot * 3 + 1] = near.y
      touched[slot * 3 + 2] = near.z
      for (let i = 0; i < count; i++) {
        let nx = cx - touched[i * 3]!,
          ny = cy - touched[i * 3 + 1]!,
          nz = cz - touched[i * 3 + 2]!
        const l = Math.sqrt(nx * nx + ny * ny + nz * nz)
        if (l < 1e-9) return best
        nx /= l
        ny /= l
        nz /= l
        normals[i * 3] = nx
        normals[i * 3 + 1] = ny
        normals[i * 3 + 2] = nz
        offsets[i] =
          r + nx * (touched[i * 3]! - v[0]) + ny * (touched[i * 3 + 1]! - v[1]) + nz * (touched[i * 3 + 2]! - v[2])
      }
      if (!nearestInside(normals, offsets, count, x)) return best
    }
    return best
  }

  private slackest(): number {
    let most = -Infinity,
      at = 0
    for (let i = 0; i < MAX_CANDIDATES; i++) {
      let s = -this.offsets[i]!
      for (let k = 0; k < 3; k++) s += this.normals[i * 3 + k]! * this.x[k]!
      if (s > most) {
        most = s
        at = i
      }
    }
    return at
  }
}
