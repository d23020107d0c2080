import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { bounds, type Mesh } from '../mesh/mesh'
import { measure, type Measures } from '../mesh/measure'
import { repair, type RepairReport } from '../mesh/repair'
import { transformed } from '../mesh/transform'
import { support, type SupportOptions, type SupportReport } from '../print/support'
import { drill, type DrainHole, type DrillReport } from './drill'
import { hollow, type HollowOptions, type HollowReport } from './hollow'
import { orient } from './orient'

/**
 * The records a part's history is made of. `version` counts changes of the algorithm: with it a new result never
 * passes for an old one (see OPERATION_VERSION).
 */
export type Operation =
  | { kind: 'repair'; weld: number; dropCrumbs: boolean; fillHoles: boolean }
  | { kind: 'scale'; factor: number }
  | ({ kind: 'hollow' } & HollowOptions)
  | { kind: 'drill'; holes: readonly DrainHole[] }
  | { kind: 'orient'; quaternion: readonly [number, number, number, number] }
  | ({ kind: 'support' } & SupportOptions)

export type OperationReport =
  | { kind: 'repair'; measures: Measures; repair: RepairReport }
  | { kind: 'scale'; measures: Measures }
  | { kind: 'hollow'; measures: Measures; hollow: HollowReport }
  | { kind: 'drill'; measures: Measures; drill: DrillReport }
  | { kind: 'orient'; measures: Measures }
  | { kind: 'support'; measures: Measures; support: SupportReport }

/** Raised whenever an operation gives other bytes for the same input. */
export const OPERATION_VERSION: Record<Operation['kind'], number> = {
  repair: 1, scale: 1, hollow: 2, drill: 1, orient: 1, support: 3,
}

/** The order in which a part's operations make sense; a new one is put in its place, not at the end. */
export const OPERATION_ORDER: readonly Operation['kind'][] = ['repair', 'scale', 'hollow', 'drill', 'orient', 'support']

/** Applies one operation. The input is never changed; a problem leaves nothing behind. */
export async function applyOperation(mesh: Mesh, op: Operation, report: Report = silent): Promise<Answer<{ mesh: Mesh; report: OperationReport }>> {
  switch (op.kind) {
    case 'repair': {
      const r = repair(mesh, op)
      if (r.mesh.triangles.length === 0) return bad('nothing-left', 'The repair left nothing: every face was faulty.')
      return good({ mesh: r.mesh, report: { kind: op.kind, measures: measure(r.mesh), repair: r.report } })
    }
    case 'scale': {
      const box = bounds(mesh)
      const f = op.factor
      // About the middle of the foot, so that the sculpt stays where it stands.
      const t = [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2, box.min[2]].map((c) => c * (1 - f)) as [number, number, number]
      const scaled = transformed(mesh, [f, 0, 0, 0, f, 0, 0, 0, f], t)
      return good({ mesh: scaled, report: { kind: op.kind, measures: measure(scaled) } })
    }
    case 'hollow': {
      const r = await hollow(mesh, op, part(report, 0, 0.98))
      return r.ok ? good({ mesh: r.value.mesh, report: { kind: op.kind, measures: measure(r.value.mesh), hollow: r.value.report } }) : r
    }
    case 'drill': {
      if (op.holes.length === 0) return bad('no-holes', 'There are no holes to drill.')
      const r = await drill(mesh, op.holes)
      return r.ok ? good({ mesh: r.value.mesh, report: { kind: op.kind, measures: measure(r.value.mesh), drill: r.value.report } }) : r
    }
    case 'orient': {
      const turned = orient(mesh, op.quaternion)
      return good({ mesh: turned, report: { kind: op.kind, measures: measure(turned) } })
    }
    case 'support': {
      const r = support(mesh, op, report)
      return r.ok ? good({ mesh: r.value.mesh, report: { kind: op.kind, measures: measure(r.value.mesh), support: r.value.report } }) : r
    }
  }
}
