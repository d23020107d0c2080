import type { PartRecord } from '../../contract/pieces'
import { apply3, fromQuaternion, type Vector3 } from '../../core/math/vectors'
import { motionsOf, type Quaternion } from '../../core/pose/skeleton'

/** What turns a part's directions on the way from its sculpt to where it stands: the pose of one joint, and its place. */
function turnsOf(part: PartRecord, joint: string | null): { posed: Quaternion; placed: Quaternion; mirror: boolean } {
  const pose = part.steps.find((s) => s.op.kind === 'pose')?.op
  const place = part.steps.find((s) => s.op.kind === 'place')?.op
  const i = pose?.kind === 'pose' ? pose.joints.findIndex((j) => j.name === joint) : -1
  return {
    posed: pose?.kind === 'pose' && i >= 0 ? motionsOf(pose.joints)[i]!.turn : [0, 0, 0, 1],
    placed: place?.kind === 'place' ? place.quaternion : [0, 0, 0, 1],
    mirror: place?.kind === 'place' && place.mirror,
  }
}

/** A direction on the sculpt as it came, as it points now. */
export function seenDirection(part: PartRecord, direction: Vector3, joint: string | null): [number, number, number] {
  const { posed, placed, mirror } = turnsOf(part, joint)
  const d = apply3(fromQuaternion(posed), direction)
  return apply3(fromQuaternion(placed), mirror ? [-d[0], d[1], d[2]] : d)
}

/** The inverse: a direction that is seen, on the sculpt as it came. */
export function ownDirection(part: PartRecord, seen: Vector3, joint: string | null): [number, number, number] {
  const { posed, placed, mirror } = turnsOf(part, joint)
  const back = (q: Quaternion): Quaternion => [-q[0], -q[1], -q[2], q[3]]
  const d = apply3(fromQuaternion(back(placed)), seen)
  return apply3(fromQuaternion(back(posed)), mirror ? [-d[0], d[1], d[2]] : d)
}
