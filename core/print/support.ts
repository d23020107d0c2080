import { good, part, silent, type Answer, type Report } from '../answer'
import { bounds, concatenate, type Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { transformed, identity3, type Vector3 } from '../mesh/transform'
import { treeOf } from '../mesh/tree'
import { tube } from '../shape/cylinder'
import { braces } from './brace'
import { raft } from './raft'
import { tipCapacity, tipLoads } from './supportLoad'
import { Skin, supportNeed, type Contact } from './supportNeed'
import { BITE, GRADE_NAMES, gradeDefaults, obstacle, route, type GradeName, type Route } from './supportRoute'

/** A change made by hand. Places are on the body as it stands before lifting, mm; they survive regeneration. */
export type SupportEdit =
  | { kind: 'add'; point: Vector3; grade: GradeName }
  | { kind: 'remove'; point: Vector3 }
  | { kind: 'regrade'; point: Vector3; grade: GradeName }

export interface SupportOptions {
  limit: number
  spacing: number
  clearance: number
  /** mm between the raft and the body's lowest point; 0 stands the body on the plate */
  lift: number
  /** Pa */
  peelPressure: number
  greenStrength: number
  /** generate, or only the supports set by hand */
  automatic: boolean
  edits: readonly SupportEdit[]
}

export interface Tip {
  /** on the body, in the frame of the supported result, mm */
  point: Vector3
  grade: GradeName
  landsOn: 'plate' | 'body'
  force: number
  utilisation: number
  worstZ: number
  byHand: boolean
  island: boolean
  /** mm */
  length: number
}

export interface SupportReport {
  tips: Tip[]
  /** contacts that no stem can reach */
  unreached: { point: Vector3; island: boolean }[]
  /** edits whose place no longer holds a support or a skin to stand on */
  lostEdits: number
  /** faces of the body; those after it are supports */
  bodyFaces: number
  /** mm³ */
  supportVolume: number
  /** how the body was moved from where it stood to where it stands in the result, mm */
  shift: Vector3
  /** mm² of skin that tips touch */
  scarArea: number
  braces: number
  height: number
}

/** Tips within this distance of an edit's place are meant by it, mm. */
const MEANT = 1.6

/** Generates, routes, loads and builds supports and raft. The body keeps its faces, first in the result. */
export function support(
  input: Mesh,
  options: SupportOptions,
  report: Report = silent,
): Answer<{ mesh: Mesh; report: SupportReport }> {
  const lifted = options.lift > 0
  const rise = (lifted ? RAFT + options.lift : 0) - bounds(input).min[2]
  const mesh = transformed(input, identity3, [0, 0, rise])
  const up = (p: Vector3): Vector3 => [p[0], p[1], p[2] + rise]
  const body = obstacle(treeOf(mesh))
  const need = options.automatic
    ? supportNeed(
        mesh,
        { limit: options.limit, spacing: options.spacing, pixel: 0.25, floor: lifted ? -1 : 0.2 },
        part(report, 0, 0.45),
      )
    : { taken: [], spare: [] }

  interface Planned {
    contact: Contact
    grade: GradeName
    byHand: boolean
    route: Route | null
  }
  const planned: Planned[] = need.taken.map((contact) => ({ contact, grade: 'whisker', byHand: false, route: null }))
  let lostEdits = 0
  const skin = new Skin(mesh)
  for (const edit of options.edits) {
    const at = up(edit.point)
    const meant = planned.filter((t) => gap(t.contact.point, at) <= MEANT)
    if (edit.kind === 'add') {
      const contact = skin.nearest(at[0], at[1], at[2])
      if (gap(contact.point, at) > 3) lostEdits++
      else planned.push({ contact: { ...contact, island: false }, grade: edit.grade, byHand: true, route: null })
    } else if (meant.length === 0) lostEdits++
    else if (edit.kind === 'remove') for (const t of meant) planned.splice(planned.indexOf(t), 1)
    else
      for (const t of meant) {
        t.grade = edit.grade
        t.byHand = true
      }
  }
  const removed = options.edits.filter((e) => e.kind === 'remove').map((e) => up(e.point))
  const spare = need.spare.filter((c) => !removed.some((r) => gap(c.point, r) <= MEANT))
  const floor = lifted ? RAFT * 0.6 : 0
  const layRoute = (t: Planned): void => {
    t.route = route(body, t.contact, gradeDefaults[t.grade], floor, options.clearance)
  }
  planned.forEach((t, i) => {
    if ((i & 15) === 0) report(0.45 + (0.3 * i) / planned.length)
    layRoute(t)
  })

  // Heavier tips where the load asks for them, then more of them, until the load is carried or nothing is left to add.
  let loads = tipLoads(mesh, planned.map(asTip), options.peelPressure, options.greenStrength)
  for (let round = 0; round < 4; round++) {
    let changed = false
    planned.forEach((t, i) => {
      if (t.byHand || loads[i]!.utilisation <= 1) return
      const enough =
        GRADE_NAMES.find((g) => tipCapacity(gradeDefaults[g].tip, options.greenStrength) >= loads[i]!.force) ?? 'post'
      if (enough !== t.grade) {
        t.grade = enough
        layRoute(t)
        changed = true
        return
      }
      const helper = spare.findIndex((c) => gap(c.point, t.contact.point) < options.spacing * 1.5)
      if (helper < 0) return
      const more: Planned = { contact: spare.splice(helper, 1)[0]!, grade: t.grade, byHand: false, route: null }
      layRoute(more)
      if (more.route) {
        planned.push(more)
        changed = true
      }
    })
    if (!changed) break
    loads = tipLoads(mesh, planned.map(asTip), options.peelPressure, options.greenStrength)
    report(0.75 + 0.04 * round)
  }

  const standing = planned.map((t, i) => ({ ...t, load: loads[i]! })).filter((t) => t.route !== null)
  const stems = standing.map((t) => ({ path: t.route!.path, radius: gradeDefaults[t.grade].stem / 2 }))
  const ties = braces(
    body,
    stems.filter((_, i) => standing[i]!.route!.landsOn === 'plate'),
    options.clearance,
  )
  const bodies = standing.map((t) => stemBody(t.route!, t.grade))
  bodies.push(...ties.map((b) => tube([b.from, b.to], [b.radius, b.radius], 8)))
  const feet = standing.filter((t) => t.route!.landsOn === 'plate').map((t) => t.route!.path.at(-1)!)
  if (lifted && feet.length > 0) bodies.push(raft(feet, RAFT))
  const supports = concatenate(bodies)
  const whole = bodies.length > 0 ? concatenate([mesh, supports]) : mesh
  // Stems and raft reach out to one side; what counts on the plate is the whole.
  const around = bounds(whole)
  const cx = -(around.min[0] + around.max[0]) / 2,
    cy = -(around.min[1] + around.max[1]) / 2
  const result = transformed(whole, identity3, [cx, cy, 0])
  const placed = (p: Vector3): Vector3 => [p[0] + cx, p[1] + cy, p[2]]
  report(1)
  return good({
    mesh: result,
    report: {
      tips: standing.map((t) => ({
        point: placed(t.contact.point),
        grade: t.grade,
        landsOn: t.route!.landsOn,
        force: t.load.force,
        utilisation: t.load.utilisation,
        worstZ: t.load.worstZ,
        byHand: t.byHand,
        island: t.contact.island,
        length: t.route!.path.slice(1).reduce((s, p, i) => s + gap(p, t.route!.path[i]!), 0),
      })),
      unreached: planned
        .filter((t) => t.route === null)
        .map((t) => ({ point: placed(t.contact.point), island: t.contact.island })),
      lostEdits,
      shift: [cx, cy, rise],
      bodyFaces: mesh.triangles.length / 3,
      supportVolume: measure(supports).volume,
      scarArea: standing.reduce((s, t) => s + Math.PI * (gradeDefaults[t.grade].tip / 2) ** 2, 0),
      braces: ties.length,
      height: bounds(result).max[2],
    },
  })
}

/** Raft thickness, mm */
export const RAFT = 0.8

const gap = (a: Vector3, b: Vector3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])

const asTip = (t: { contact: Contact; grade: GradeName }): { point: Vector3; diameter: number } => ({
  point: t.contact.point,
  diameter: gradeDefaults[t.grade].tip,
})

/** Tip, neck and stem as one closed solid; it bites a little into the skin it holds. */
function stemBody(r: Route, grade: GradeName): Mesh {
  const g = gradeDefaults[grade]
  const [tip, joint] = r.path as [Vector3, Vector3]
  const l = gap(tip, joint)
  const inside: Vector3 = [0, 1, 2].map((k) => tip[k]! - ((joint[k]! - tip[k]!) / l) * BITE) as unknown as Vector3
  const rest = r.path.slice(2)
  const radii = [g.tip / 2, g.tip / 2, g.stem / 2, ...rest.map(() => g.stem / 2)]
  const path: Vector3[] = [inside, tip, joint, ...rest]
  if (r.landsOn === 'body') {
    radii[radii.length - 1] = g.tip / 2
    const foot = path.at(-1)!
    path[path.length - 1] = [foot[0], foot[1], foot[2] - BITE]
  }
  return tube(path, radii, 10)
}
