import { apply3, fromQuaternion, type Vector3 } from '../../math/vectors'
import type { Measures } from '../../mesh/measure'
import { rankOf, type Operation, type OperationReport } from '../../operations/registry'
import { gradeDefaults, type GradeName } from '../../print/support/supportRoute'
import type { PlanJoint, PlanPart } from '../steps/types'

/** One operation of a part as far as it was computed. */
export interface MadeStep {
  op: Operation
  /** null while it is not done */
  done: { mesh: string | null; report: OperationReport | null } | null
}
/** A part as its operations make it. */
export interface MadePart {
  id: string
  name: string
  steps: readonly MadeStep[]
  /** hash of its mesh as it stands in the piece, before it is hollowed and stood in the printer, and how that measures */
  mesh: string
  /** null: not measured yet */
  measures: Measures | null
}

/** mm from a joint's face within which a drilled hole is behind it, and over the lowest point within which it is under the piece. */
const BEHIND = 1,
  UNDER = 2
/** Cosine to straight up from which a hole is drilled from below. */
const FROM_BELOW = 0.7

/** A part as it stands in the piece: after the last operation before hollowing that is done. */
export function madePart(id: string, name: string, sculptMesh: string, steps: readonly MadeStep[]): MadePart {
  let mesh = sculptMesh,
    measures: Measures | null = null
  for (const s of steps) {
    if (rankOf(s.op.kind) > rankOf('channel') || !s.done) break
    mesh = s.done.mesh ?? mesh
    measures = s.done.report?.measures ?? measures
  }
  return { id, name, steps, mesh, measures }
}

export const reportsOf = (steps: readonly MadeStep[]): OperationReport[] => steps.flatMap((s) => s.done?.report ?? [])

/** mm of it as it stands in the printer, or else in the piece; 0 where neither is measured. */
export const printedHeight = (p: MadePart): number =>
  reportsOf(p.steps).at(-1)?.measures.size[2] ?? p.measures?.size[2] ?? 0

/** The direction that was up when the part was printed, in the frame in which it stands in the piece. */
export function printedUp(steps: readonly MadeStep[]): Vector3 {
  const o = steps.find((s) => s.op.kind === 'orient')?.op
  if (o?.kind !== 'orient') return [0, 0, 1]
  const [x, y, z, w] = o.quaternion
  return apply3(fromQuaternion([-x, -y, -z, w]), [0, 0, 1])
}

export const distance = (a: readonly number[], b: readonly number[]): number =>
  Math.hypot(...a.map((v, k) => v - b[k]!))

/**
 * What a plan asks of one part: its holes and whether they show, what supports left on it, how large it is.
 *
 * @param castFull its cavities are to be cast full
 */
export function partFacts(
  p: MadePart,
  joints: readonly PlanJoint[],
  castFull: boolean,
): Omit<PlanPart, 'clear' | 'process' | 'cusps' | 'access'> {
  const reports = reportsOf(p.steps)
  const hollow = reports.find((r) => r.kind === 'hollow'),
    drill = reports.find((r) => r.kind === 'drill'),
    support = reports.find((r) => r.kind === 'support')
  const lowest = p.measures?.box.min[2] ?? 0
  const own = joints.filter((j) => j.a.id === p.id || j.b.id === p.id)
  const isUnder = (h: { point: readonly number[]; direction: readonly number[] }): boolean =>
    h.point[2]! < lowest + UNDER && h.direction[2]! > FROM_BELOW
  const isBehind = (h: { point: readonly number[] }): boolean =>
    own.some((j) => j.middle !== null && distance(h.point, j.middle.point) < j.middle.radius + BEHIND)
  const tips = support?.support.tips ?? []
  const grades = [...new Set(tips.map((t) => t.grade))] as GradeName[]
  return {
    id: p.id,
    name: p.name,
    hollow: hollow !== undefined,
    holes: (drill?.drill.holes ?? []).map((h) => ({ diameter: h.diameter, hidden: isUnder(h) || isBehind(h) })),
    ...(hollow && castFull ? { cast: hollow.hollow.cavityVolume / 1000 } : {}),
    scars: grades.map((grade) => ({
      tip: gradeDefaults[grade].tip,
      count: tips.filter((t) => t.grade === grade).length,
      focal: tips.filter((t) => t.grade === grade && t.focal).length,
    })),
    area: p.measures?.area ?? 0,
    height: p.measures?.size[2] ?? 0,
  }
}
