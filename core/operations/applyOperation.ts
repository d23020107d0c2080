import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { carryColours } from '../mesh/carryColours'
import { measure } from '../mesh/measure'
import { bounds, isCloud, type Mesh } from '../mesh/mesh'
import { repair } from '../mesh/repair'
import { simplify } from '../mesh/simplify'
import { smoothed } from '../mesh/smooth'
import { identity3, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { pose } from '../pose/pose'
import { support } from '../print/support/support'
import { reconstruct } from '../scan/reconstruct'
import { rebuild } from '../volume/rebuild'
import { base } from '../shape/base'
import { bay, channel } from '../shape/channel'
import { cut } from '../shape/cut'
import { drill } from '../shape/drill'
import { fix } from '../shape/fixing'
import { hollow } from '../shape/hollow'
import { drillGuide } from '../shape/drillGuide'
import { plug } from '../shape/plug'
import { join } from '../shape/join'
import { nameplate } from '../shape/nameplate'
import type { Operation, OperationKind, OperationReport } from './operations'
import { orient } from '../shape/orient'
import { place } from '../shape/place'
import { thicken } from '../shape/thicken'
import { trim } from '../shape/trim'

/** A result and what its own report adds to the measures that all have. */
type Made = { mesh: Mesh } & Record<string, unknown>

/** What can be done with points that have no faces yet. */
const FOR_CLOUDS: readonly OperationKind[] = ['trim', 'surface', 'calibrate', 'place', 'scale', 'base']

/**
 * Applies one operation. The input is never changed; a problem leaves nothing behind. Colours of the sculpt go along.
 *
 * @param others meshes that `othersOf` names, in its order
 */
export async function applyOperation(
  mesh: Mesh,
  op: Operation,
  report: Report = silent,
  others: readonly Mesh[] = [],
): Promise<Answer<{ mesh: Mesh; report: OperationReport }>> {
  if (isCloud(mesh) && !FOR_CLOUDS.includes(op.kind))
    return bad('cloud-no-surface', 'This is a cloud of points, without a skin. Make a surface of it at Intake first.')
  const made = await make(mesh, op, report, others)
  if (!made.ok) return made
  const { mesh: bare, ...own } = made.value
  const result = carryColours(mesh, bare)
  return good({ mesh: result, report: { kind: op.kind, measures: measure(result), ...own } as OperationReport })
}

async function make(mesh: Mesh, op: Operation, report: Report, others: readonly Mesh[]): Promise<Answer<Made>> {
  switch (op.kind) {
    case 'base':
      return asMesh(base(op, report))
    case 'nameplate': {
      const r = await nameplate(mesh, op)
      return r.ok ? good({ mesh: r.value.mesh, nameplate: r.value.report }) : r
    }
    case 'trim':
      return trim(mesh, op) as Answer<Made>
    case 'surface': {
      if (!isCloud(mesh))
        return bad('not-a-cloud', 'This part has faces already. Rebuild it instead of making a surface of its points.')
      const r = reconstruct(mesh, op, report)
      return r.ok ? good({ mesh: r.value.mesh, surface: r.value.report }) : r
    }
    case 'rebuild':
      return rebuilt(mesh, op.voxel, report)
    case 'repair': {
      const r = repair(mesh, op)
      if (r.mesh.triangles.length === 0) return bad('nothing-left', 'The repair left nothing: every face was faulty.')
      return good({ mesh: r.mesh, repair: r.report })
    }
    case 'calibrate': {
      const apart = Math.hypot(op.to[0] - op.from[0], op.to[1] - op.from[1], op.to[2] - op.from[2])
      if (!(apart > 1e-6))
        return bad('same-place', 'The two picked points lie at one place. Pick two that are well apart.')
      const factor = op.distance / apart
      return good({ mesh: scaled(mesh, [factor, factor, factor], [0, 0, 0]), factor })
    }
    case 'smooth':
      return good({ mesh: smoothed(mesh, op.passes, op.limit) })
    case 'simplify':
      return good({ mesh: await simplify(mesh, op.faces, Infinity) })
    case 'pose': {
      const r = await pose(mesh, op, report)
      return r.ok ? good({ mesh: r.value.mesh, pose: r.value.report }) : r
    }
    case 'place':
      return good({ mesh: place(mesh, op) })
    case 'scale': {
      const box = bounds(mesh)
      // About the middle of the foot, so that the sculpt stays where it stands; or all parts about one point.
      const about: Vector3 =
        op.about === 'origin' ? [0, 0, 0] : [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2, box.min[2]]
      return good({ mesh: scaled(mesh, op.axes.map((a) => a * op.factor) as never, about) })
    }
    case 'thicken': {
      const r = await thicken(mesh, op, report)
      return r.ok ? good({ mesh: r.value.mesh, thicken: r.value.report }) : r
    }
    case 'join': {
      const brought = others.map((m, i): Mesh => {
        const { matrix = identity3, shift = [0, 0, 0] } = op.others[i] ?? {}
        const still = matrix.every((v, k) => v === identity3[k]) && shift.every((v) => v === 0)
        return still ? m : transformed(m, matrix, shift)
      })
      const r = await join(mesh, brought, op, report)
      return r.ok ? good({ mesh: r.value.mesh, join: r.value.report }) : r
    }
    case 'cut': {
      const r = await cut(mesh, op)
      return r.ok ? good({ mesh: r.value.mesh, cut: r.value.report }) : r
    }
    case 'fix': {
      const r = await fix(mesh, op.fixings)
      return r.ok ? good({ mesh: r.value.mesh, fix: r.value.report }) : r
    }
    case 'channel': {
      const r = await channel(mesh, op)
      return r.ok ? good({ mesh: r.value.mesh, channel: r.value.report }) : r
    }
    case 'bay': {
      const r = await bay(mesh, op)
      return r.ok ? good({ mesh: r.value.mesh, bay: r.value.report }) : r
    }
    case 'focal':
      return good({ mesh })
    case 'plug': {
      const r = await plug(mesh, op)
      return r.ok ? good({ mesh: r.value.mesh, plug: r.value.report }) : r
    }
    case 'guide': {
      const r = await drillGuide(mesh, op)
      return r.ok ? good({ mesh: r.value.mesh, guide: r.value.report }) : r
    }
    case 'hollow': {
      const r = await hollow(mesh, op, part(report, 0, 0.98))
      return r.ok ? good({ mesh: r.value.mesh, hollow: r.value.report }) : r
    }
    case 'drill': {
      if (op.holes.length === 0) return bad('no-holes', 'There are no holes to drill.')
      const r = await drill(mesh, op.holes)
      return r.ok ? good({ mesh: r.value.mesh, drill: r.value.report }) : r
    }
    case 'orient':
      return good(orient(mesh, op.quaternion))
    case 'support': {
      const r = support(mesh, op, report)
      return r.ok ? good({ mesh: r.value.mesh, support: r.value.report }) : r
    }
  }
}

const asMesh = (a: Answer<Mesh>): Answer<Made> => (a.ok ? good({ mesh: a.value }) : a)

function rebuilt(mesh: Mesh, voxel: number, report: Report): Answer<Made> {
  let made: Mesh
  try {
    made = rebuild(mesh, voxel, report)
  } catch (error) {
    if (error instanceof RangeError)
      return bad('too-fine', 'The voxel is too small for a sculpt of this size. Use a coarser one.')
    throw error
  }
  return made.triangles.length > 0
    ? good({ mesh: made })
    : bad('no-inside', 'The faces enclose nothing: there is no inside to rebuild. A finer voxel may find thin walls.')
}

const scaled = (mesh: Mesh, f: Vector3, about: Vector3): Mesh =>
  transformed(mesh, [f[0], 0, 0, 0, f[1], 0, 0, 0, f[2]], about.map((c, k) => c * (1 - f[k]!)) as never)
