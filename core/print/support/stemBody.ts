import type { Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { tube } from '../../shape/cylinder'
import { gap } from './supportPlan'
import { BITE, gradeDefaults, type GradeName } from './supportRoute'

/** Tip, neck and stem as one closed solid; it bites a little into the skin it holds. */
export function stemBody(way: readonly Vector3[], grade: GradeName, landsOn: 'plate' | 'body', trunk?: number): Mesh {
  const g = gradeDefaults[grade]
  const [tip, joint] = way as [Vector3, Vector3]
  const l = gap(tip, joint)
  const inside: Vector3 = [0, 1, 2].map((k) => tip[k]! - ((joint[k]! - tip[k]!) / l) * BITE) as unknown as Vector3
  const rest = way.slice(2)
  const radii = [g.tip / 2, g.tip / 2, g.stem / 2, ...rest.map(() => g.stem / 2)]
  const path: Vector3[] = [inside, tip, joint, ...rest]
  if (trunk !== undefined) {
    // A trunk carries others from its last bend down.
    radii[radii.length - 1] = trunk
    if (radii.length > 4) radii[radii.length - 2] = trunk
  }
  if (landsOn === 'body') {
    radii[radii.length - 1] = g.tip / 2
    const foot = path.at(-1)!
    path[path.length - 1] = [foot[0], foot[1], foot[2] - BITE]
  }
  return tube(path, radii, 10)
}
