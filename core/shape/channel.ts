import { bad, good, type Answer } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { measure } from '../mesh/measure'
import { bounds, keepFaces, type Mesh } from '../mesh/mesh'
import type { Vector3 } from '../math/vectors'
import { treeOf } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { tube } from './cylinder'
import { loft, roundedRectangle } from './loft'
import { common, subtract } from './solid'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface ChannelOptions {
  /** mm, from end to end; it may run on through other parts */
  path: readonly Vector3[]
  diameter: number
}
export interface ChannelReport {
  /** mm of it in this part */
  length: number
  /** mm³ */
  volume: number
}

const SIDES = 32

/** A round channel through a part for a wire or a light guide. What of it lies in other parts is theirs to cut. */
export async function channel(
  mesh: Mesh,
  { path, diameter }: ChannelOptions,
): Promise<Answer<{ mesh: Mesh; report: ChannelReport }>> {
  const r = diameter / 2
  // Both ends reach a hair beyond, so that no skin is left over a mouth.
  const ends = (a: Vector3, b: Vector3): Vector3 => {
    const l = Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) || 1
    return [0, 1, 2].map((k) => a[k]! + (0.3 * (a[k]! - b[k]!)) / l) as never
  }
  const n = path.length
  const whole = [ends(path[0]!, path[1]!), ...path.slice(1, -1), ends(path[n - 1]!, path[n - 2]!)]
  const bore = tube(
    whole,
    whole.map(() => r),
    SIDES,
  )
  const section = (SIDES / 2) * r * r * Math.sin((2 * Math.PI) / SIDES)
  const inside = await common([mesh, bore])
  if (!inside.ok) return inside
  const volume = measure(inside.value).volume
  if (!(volume > 1e-3)) return bad('channel-misses', message('problems.channel.theChannelDoesNotPass'))
  const cut = await subtract(mesh, [bore])
  if (!cut.ok) return cut
  return good({ mesh: cut.value, report: { length: volume / section, volume } })
}

export interface BayOptions {
  /** mm, on the foot: middle of the bay */
  centre: readonly [number, number]
  /** mm inside */
  width: number
  depth: number
  height: number
  /** mm: of the lid that closes it from below, let in flush */
  lid: number
  /** mm by which the lid rests on the rim all round */
  ledge: number
}
export interface BayReport {
  /** mm of body left round and above it, the least */
  wall: number
}

const LEAST_WALL = 1
/** mm over the foot within which skin is the foot's own. */
const FLUSH = 1e-3
const CORNER = 2

/** A bay for a battery in the foot of a base, with a rebate for its lid. */
export async function bay(mesh: Mesh, o: BayOptions): Promise<Answer<{ mesh: Mesh; report: BayReport }>> {
  const foot = bounds(mesh).min[2]
  const prism = (grow: number, from: number, to: number): Mesh =>
    loft(
      [from, to].map((h) => ({
        outline: roundedRectangle(o.width / 2 + grow, o.depth / 2 + grow, CORNER + grow, 64),
        height: h,
      })),
      (x, y, z) => [o.centre[0] + x, o.centre[1] + y, foot + z],
    )
  const room = prism(0, -1, o.lid + o.height),
    rebate = prism(o.ledge, -1, o.lid)
  const inside = treeOf(mesh)
  // The bay opens through the foot: the rest of the skin is what it must keep away from.
  const p = mesh.positions
  const onTheFoot = (v: number): boolean => p[v * 3 + 2]! < foot + FLUSH
  const rest = treeOf(
    keepFaces(
      mesh,
      Uint8Array.from({ length: mesh.triangles.length / 3 }, (_, f) =>
        [0, 1, 2].every((k) => onTheFoot(mesh.triangles[f * 3 + k]!)) ? 0 : 1,
      ),
    ),
  )
  const hit = closest()
  let wall = Infinity
  for (const body of [room, rebate])
    for (let i = 0; i < body.positions.length; i += 3) {
      const [x, y, z] = [body.positions[i]!, body.positions[i + 1]!, Math.max(body.positions[i + 2]!, foot + FLUSH)]
      const away = closestPoint(rest, x, y, z, hit)
      wall = Math.min(wall, isInside(inside, x, y, z) ? away : -away)
    }
  if (wall < LEAST_WALL)
    return bad(
      'bay-breaks-out',
      message('problems.channel.theBayWouldLeaveMm', { n: fixed(Math.max(0, wall), 1), least_wall: LEAST_WALL }),
    )
  const cut = await subtract(mesh, [room, rebate])
  return cut.ok ? good({ mesh: cut.value, report: { wall } }) : cut
}
