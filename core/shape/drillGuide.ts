import { bad, good, type Answer } from '../answer'
import { measure } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { frame, identity3, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { tube } from './cylinder'
import { common, subtract, unite } from './solid'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface DrillGuideOptions {
  /** on the joint's face, where the drill goes in; unit direction into the part */
  point: Vector3
  direction: Vector3
  /** mm of the drill */
  bore: number
  /** mm from the bore to the guide's rim, over the face, and down beside it */
  radius: number
  height: number
  lap: number
  /** mm per side */
  clearance: number
}
export interface DrillGuideReport {
  /** mm³ */
  volume: number
  /** mm of bore in which the drill is led */
  led: number
}

/** mm by which the part is moved on at a time: what it sweeps is free of ridges that would hold the guide. */
const SWEEP = 0.4
const AROUND = 8
/** mm: walls thinner than this do not print */
const LEAST_WALL = 0.8
const SIDES = 64

/**
 * A body that sits on a part over a joint's face and leads the drill: it laps down beside the face, which says where it belongs, and it
 * comes off along the drill, as it is clear of all that the part sweeps that way.
 */
export async function drillGuide(
  mesh: Mesh,
  o: DrillGuideOptions,
): Promise<Answer<{ mesh: Mesh; report: DrillGuideReport }>> {
  if (o.radius - o.bore / 2 < LEAST_WALL)
    return bad(
      'guide-too-thin',
      message('problems.drillGuide.aGuideOfMmRound', {
        radius: o.radius,
        bore: o.bore,
        o: fixed(o.bore / 2 + LEAST_WALL, 1),
      }),
    )
  const along = (d: number): Vector3 => [0, 1, 2].map((k) => o.point[k]! + d * o.direction[k]!) as unknown as Vector3
  const ring = (from: number, to: number, r: number): Mesh => tube([along(from), along(to)], [r, r], SIDES)
  // What is near is all that counts; the rest of a million faces is cut off first.
  const near = await common([mesh, ring(-o.height, o.lap + SWEEP, o.radius + 2)])
  if (!near.ok) return near
  if (near.value.triangles.length === 0) return bad('guide-misses', message('problems.drillGuide.thereIsNoPartWhere'))
  const [u, v] = frame(o.direction)
  const moved = (body: Mesh, down: number, across: number, turn: number): Mesh =>
    transformed(
      body,
      identity3,
      [0, 1, 2].map(
        (k) => down * o.direction[k]! + across * (Math.cos(turn) * u[k]! + Math.sin(turn) * v[k]!),
      ) as unknown as Vector3,
    )
  // While the guide is lifted, the part goes down in it.
  const steps = Math.ceil(o.lap / SWEEP)
  const below = await unite(
    Array.from({ length: steps + 1 }, (_, k) => moved(near.value, steps > 0 ? (k / steps) * o.lap : 0, 0, 0)),
  )
  if (!below.ok) return below
  const swept = await unite(
    Array.from({ length: AROUND }, (_, k) => moved(below.value, 0, o.clearance, (2 * Math.PI * k) / AROUND)),
  )
  if (!swept.ok) return swept
  // Where the part stands proud of its face beside the joint, the guide lets it through.
  const made = await subtract(ring(-o.height, o.lap, o.radius), [
    swept.value,
    ring(-o.height - 1, o.lap + 1, o.bore / 2),
  ])
  if (!made.ok) return made
  const { volume } = measure(made.value)
  const led = o.height - o.lap
  if (!(volume > 1)) return bad('guide-misses', message('problems.drillGuide.nothingIsLeftOfThe'))
  return good({ mesh: made.value, report: { volume, led } })
}
