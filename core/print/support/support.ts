import { good, part, silent, type Answer, type Report } from '../../answer'
import { bounds, concatenate, type Mesh } from '../../mesh/mesh'
import { measure } from '../../mesh/measure'
import { identity3, type Vector3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { treeOf } from '../../mesh/tree'
import { tube } from '../../shape/cylinder'
import type { BrushSpot } from '../../shape/brushSpots'
import { braces } from './brace'
import { ScarWeigher } from '../orient/importance'
import { rafts } from './raft'
import { stemBody } from './stemBody'
import { edited, keepOffHands, MEANT, withoutPieces, type SupportEdit } from './supportEdits'
import type { LoadLayer } from './supportLoad'
import { Skin, supportNeed } from './supportNeed'
import { addTipsForLoad, gap, loadsOf, onFocal, thinOut, type Planned } from './supportPlan'
import { gradeDefaults, obstacle, route, stemClearance, type GradeName } from './supportRoute'
import { joinTrunks } from './trunk'

/**
 * How supports are thought of: generated broadly and thinned out, few and heavy, or only on faces that a joint will hide.
 */
export type SupportSchool = 'broad' | 'heavy' | 'joints'

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
  school?: SupportSchool
  /** painted, on the body as it stands before lifting: no supports here, closer here, and all there may be */
  none?: readonly BrushSpot[]
  more?: readonly BrushSpot[]
  only?: readonly BrushSpot[]
  /** where a scar counts most: tips there stay whiskers as long as they hold */
  focal?: readonly BrushSpot[]
}

export interface Tip {
  /** on the body, in the frame of the supported result, mm */
  point: Vector3
  grade: GradeName
  landsOn: 'plate' | 'body' | 'trunk'
  force: number
  utilisation: number
  worstZ: number
  byHand: boolean
  island: boolean
  focal: boolean
  /** mm */
  length: number
  /** mm that its stem keeps from the body, below the neck */
  clearance: number
}

export interface SupportReport {
  tips: Tip[]
  /** contacts that no stem can reach */
  unreached: { point: Vector3; island: boolean }[]
  /** islands that begin where the paint, or the school, lets nothing stand */
  barred: Vector3[]
  /** edits whose place no longer holds a support or a skin to stand on */
  lostEdits: number
  /** faces of the body; those after it are supports */
  bodyFaces: number
  /** mm³ */
  supportVolume: number
  /** how the body was moved from where it stood to where it stands in the result, mm */
  shift: Vector3
  /** mm² of skin that tips and feet touch, and of that on focal areas */
  scarArea: number
  focalScar: number
  /** tips that were generated and thinned out again; stems that run into another's trunk */
  thinned: number
  joined: number
  braces: number
  height: number
  /** pull and worst utilisation, layer by layer at a millimetre */
  layers: LoadLayer[]
}

/** How much closer a broad generation sets its tips, and how much wider a heavy one. */
const BROAD = 0.8,
  HEAVY = 1.7

/** Generates, routes, loads and builds supports and raft. The body keeps its faces, first in the result,
 * but for loose pieces that an edit dropped. */
export function support(
  came: Mesh,
  options: SupportOptions,
  report: Report = silent,
): Answer<{ mesh: Mesh; report: SupportReport }> {
  const { mesh: input, lost: lostPieces } = withoutPieces(
    came,
    options.edits.flatMap((e) => (e.kind === 'drop' ? [e.point] : [])),
  )
  const lifted = options.lift > 0
  const rise = (lifted ? RAFT + options.lift : 0) - bounds(input).min[2]
  const mesh = transformed(input, identity3, [0, 0, rise])
  const up = (p: Vector3): Vector3 => [p[0], p[1], p[2] + rise]
  const raised = (dabs: readonly BrushSpot[] | undefined): BrushSpot[] =>
    (dabs ?? []).map((d) => ({ point: up(d.point), radius: d.radius }))
  const focal = raised(options.focal)
  const body = obstacle(treeOf(mesh))
  const scars = new ScarWeigher(treeOf(mesh), focal, raised(options.only))
  const scarOf = (p: Vector3, n: Vector3): number => scars.at(p, n).weight
  const school = options.school ?? null
  const spacing = options.spacing * (school === 'heavy' ? HEAVY : school === 'broad' ? BROAD : 1)
  const need = options.automatic
    ? supportNeed(
        mesh,
        {
          limit: options.limit,
          spacing,
          pixel: 0.25,
          floor: lifted ? -1 : 0.2,
          none: raised(options.none),
          more: raised(options.more),
          only: school === 'joints' ? raised(options.only) : null,
        },
        part(report, 0, 0.45),
      )
    : { taken: [], spare: [], barred: [] }

  const planned: Planned[] = need.taken.map((contact) => {
    const f = onFocal(focal, contact.point)
    return { contact, grade: school === 'heavy' && !f ? 'post' : 'whisker', byHand: false, focal: f, route: null }
  })
  const lostEdits = lostPieces + edited(planned, options.edits, new Skin(mesh), up, focal)
  const removed = options.edits.flatMap((e) => (e.kind === 'remove' ? [{ at: up(e.point), r: e.radius ?? MEANT }] : []))
  const wish = { ...options, spacing }
  // What was set by hand comes first: generated tips keep their spacing from it, unless the load asks for them.
  const crowded = keepOffHands(planned, 0.8 * spacing)
  const spare = [...need.spare, ...crowded].filter((c) => !removed.some((r) => gap(c.point, r.at) <= r.r))
  const floor = lifted ? RAFT * 0.6 : 0
  const accept = (t: Planned): void => {
    t.route = route(body, t.contact, gradeDefaults[t.grade], floor, options.clearance, scarOf)
  }
  planned.forEach((t, i) => {
    if ((i & 15) === 0) report(0.45 + (0.3 * i) / planned.length)
    accept(t)
  })
  addTipsForLoad(mesh, planned, spare, wish, accept)
  report(0.9)
  const thinned = school === 'broad' ? thinOut(mesh, planned, wish) : 0
  const layers: LoadLayer[] = []
  const loads = loadsOf(mesh, planned, wish, layers)
  report(0.95)

  const reached = planned.map((t, i) => ({ ...t, load: loads[i]! })).filter((t) => t.route !== null)
  const onPlate = reached.filter((t) => t.route!.landsOn === 'plate')
  const trunks = joinTrunks(
    body,
    onPlate.map((t) => ({
      path: t.route!.path,
      radius: gradeDefaults[t.grade].stem / 2,
      tip: gradeDefaults[t.grade].tip / 2,
    })),
    options.clearance,
  )
  const placeOf = new Map(onPlate.map((t, i) => [t, i]))
  const own = onPlate.map((_, i) => i).filter((i) => trunks.on[i]! < 0)
  const ties = braces(
    body,
    own.map((i) => ({ path: trunks.paths[i]!, radius: trunks.radii[i]! })),
    options.clearance,
  )
  const bodies = reached.map((t) => {
    const i = placeOf.get(t) ?? -1
    return i < 0
      ? stemBody(t.route!.path, t.grade, 'body')
      : stemBody(trunks.paths[i]!, t.grade, 'plate', trunks.on[i]! < 0 ? trunks.radii[i]! : undefined)
  })
  bodies.push(...ties.map((b) => tube([b.from, b.to], [b.radius, b.radius], 8)))
  const feet = own.map((i) => trunks.paths[i]!.at(-1)!)
  if (lifted && feet.length > 0) bodies.push(...rafts(feet, RAFT))
  const supports = concatenate(bodies)
  const whole = bodies.length > 0 ? concatenate([mesh, supports]) : mesh
  // Stems and raft reach out to one side; what counts on the plate is the whole.
  const around = bounds(whole)
  const cx = -(around.min[0] + around.max[0]) / 2,
    cy = -(around.min[1] + around.max[1]) / 2
  const result = transformed(whole, identity3, [cx, cy, 0])
  const placed = (p: Vector3): Vector3 => [p[0] + cx, p[1] + cy, p[2]]
  const touch = (t: { grade: GradeName }): number => Math.PI * (gradeDefaults[t.grade].tip / 2) ** 2
  const footOf = (t: Planned): Vector3 | null => (t.route?.landsOn === 'body' ? t.route.path.at(-1)! : null)
  report(1)
  return good({
    mesh: result,
    report: {
      tips: reached.map((t) => {
        const i = placeOf.get(t) ?? -1
        const path = i < 0 ? t.route!.path : trunks.paths[i]!
        return {
          point: placed(t.contact.point),
          grade: t.grade,
          landsOn: i >= 0 && trunks.on[i]! >= 0 ? ('trunk' as const) : t.route!.landsOn,
          force: t.load.force,
          utilisation: t.load.utilisation,
          worstZ: t.load.worstZ,
          byHand: t.byHand,
          island: t.contact.island,
          focal: t.focal,
          length: path.slice(1).reduce((s, p, k) => s + gap(p, path[k]!), 0),
          clearance: stemClearance(body, { path, landsOn: i < 0 ? 'body' : 'plate' }, gradeDefaults[t.grade].stem / 2),
        }
      }),
      unreached: planned
        .filter((t) => t.route === null)
        .map((t) => ({ point: placed(t.contact.point), island: t.contact.island })),
      barred: need.barred.map((c) => placed(c.point)),
      lostEdits,
      shift: [cx, cy, rise],
      bodyFaces: mesh.triangles.length / 3,
      supportVolume: measure(supports).volume,
      // A foot on the body scars it as much as a tip.
      scarArea: reached.reduce((sum, t) => sum + touch(t) * (footOf(t) ? 2 : 1), 0),
      focalScar: reached.reduce((sum, t) => {
        const foot = footOf(t)
        return sum + touch(t) * ((t.focal ? 1 : 0) + (foot && onFocal(focal, foot) ? 1 : 0))
      }, 0),
      thinned,
      joined: onPlate.length - own.length,
      braces: ties.length,
      height: bounds(result).max[2],
      layers,
    },
  })
}

/** Raft thickness, mm */
export const RAFT = 0.8
