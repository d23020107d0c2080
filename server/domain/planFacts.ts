import type { CheckReport } from '../../core/checks/registry'
import type { Check } from '../../contract/derivations'
import type { Inspection } from '../../contract/flaws'
import { newPiece } from '../../contract/pieces'
import { material as materialSchema, paint as paintSchema, resin as resinSchema } from '../../contract/stock'
import type { FitReport } from '../../core/fit/gap'
import { outboardOf } from '../../core/fit/load'
import { boxesNear, JOINT_REACH } from '../../core/fit/near'
import { pinFor } from '../../core/fit/pin'
import type { Measures } from '../../core/mesh/measure'
import { apply3, fromQuaternion, type Vector3 } from '../../core/math/vectors'
import { surfaceOf, type Surface } from '../../core/plan/materials/abrasives'
import { remedyFor } from '../../core/plan/facts/flaws'
import { ADHESIVES, FILLERS, type BenchMaterial } from '../../core/plan/materials/materials'
import type { PlanFacts, PlanJoint, PlanPart } from '../../core/plan/steps/types'
import { gradeDefaults, type GradeName } from '../../core/print/support/supportRoute'
import { isAid, rankOf, type OperationReport } from '../../core/operations/registry'
import { walk, knownChecks, type PartStep, operationReport, reportOfRow } from '../jobs/derivations'
import { readInspection } from './inspections'
import { printsOf } from './prints'
import { readRoom } from './room'
import { Part, StockItem } from '../data/models'
import { regionsOn } from './regions'
import { isHurried, readWorkshop, zoneOf } from './workshop'
import { readScheme } from './schemes'
import { coatsOf, effectsOf, finishesOf, surfacesOf, unprimedIn } from '../../core/plan/facts/paintFacts'

/** Grams a millilitre of cured resin, where none is chosen. */
const USUAL_DENSITY = 1.12
/** mm from a joint's face within which a drilled hole is behind it, and over the lowest point within which it is under the piece. */
const BEHIND = 1,
  UNDER = 2

/** mm; a filament base as it is usually printed */
const FILAMENT_LAYER = 0.2
const processOf = (fields: ReturnType<typeof newPiece.parse>, part: string): PlanPart['process'] =>
  fields.materials[part]?.name ?? 'resin'

interface Stood {
  row: Part
  steps: PartStep[]
  /** as it stands in the piece, and how it measures */
  mesh: string
  measures: Measures | null
}

/**
 * What the bench plan is made from, as far as it is measured by now; `pending` are the checks that are still to come, `awaits`
 * all derivations whose end would change it, `printing`
 * the ms at which what prints now is done.
 *
 * @param measure what was never measured is asked for; a sculpt that is still being worked on is not measured at every change
 */
export async function planFacts(
  pieceId: string,
  data: Record<string, unknown>,
  measure: boolean,
): Promise<{ facts: PlanFacts; pending: string[]; awaits: string[]; printing: number }> {
  const fields = newPiece.parse(data)
  const [shop, room, inspection, scheme, stock, all] = await Promise.all([
    readWorkshop(),
    readRoom(),
    readInspection(pieceId),
    readScheme(pieceId),
    StockItem.findAll({ where: { deletedAt: null } }),
    Part.findAll({ where: { pieceId, deletedAt: null }, order: [['createdAt', 'ASC']] }),
  ])
  // What only helps to make the piece is no part of it.
  const rows = all.filter((p) => !isAid(p.operations as { kind: string }[]))
  const named = <T>(kind: StockItem['kind'], id: string | null, parse: (data: unknown) => T): T | null => {
    const row = id ? stock.find((s) => s.kind === kind && s.id === id) : undefined
    return row ? parse(row.data) : null
  }
  const resin = named('resin', fields.resinId, (d) => resinSchema.parse(d))
  const layerHeight = named('printer', fields.printerId, (d) => (d as { layerHeight?: number }).layerHeight) ?? 0.05
  const pending: string[] = []
  const ask: Ask = async (asked) =>
    (await knownChecks(asked, measure || asked.every((a) => a.check.kind === 'measures'))).map((d) => {
      if (d?.status === 'waiting' || d?.status === 'running') pending.push(d.key)
      return d ? reportOfRow(d, d.kind as never) : null
    })

  const stood = await standing(rows, ask)
  const joints = await jointsOf(pieceId, stood, fields, resin?.density ?? USUAL_DENSITY, ask)
  const cusps = await ask(
    stood.map((p) => ({
      mesh: p.mesh,
      check: {
        kind: 'cusps',
        up: [...printedUp(p.steps)],
        layerHeight: processOf(fields, p.row.id) === 'filament' ? FILAMENT_LAYER : layerHeight,
      },
    })),
  )
  const lone = await ask(stood.map((p) => ({ mesh: p.mesh, check: { kind: 'access', others: [] } })))
  const parts = stood.map((p, i): PlanPart => ({
    ...partOf(p, joints, fields.materials[p.row.id]?.cast !== null && fields.materials[p.row.id]?.cast !== undefined),
    clear: resin?.clear ?? false,
    process: processOf(fields, p.row.id),
    cusps: processOf(fields, p.row.id) === 'metal' ? null : cusps[i]!,
    access: lone[i]!,
  }))
  const area = parts.reduce((s, p) => s + p.area, 0)
  const paints = new Map(stock.filter((s) => s.kind === 'paint').map((r) => [r.id, paintSchema.parse(r.data)]))
  const raw = (kind: StockItem['kind'], id: string | null): Record<string, unknown> | null =>
    named(kind, id, (d) => d as Record<string, unknown>)
  const height = Math.max(
    0,
    ...stood.map((p) => reportsOf(p.steps).at(-1)?.measures.size[2] ?? p.measures?.size[2] ?? 0),
  )
  const { prints, running, until } = await printsOf(
    pieceId,
    height,
    raw('printer', fields.printerId),
    raw('resin', fields.resinId),
  )
  return {
    pending,
    awaits: [...pending, ...stood.flatMap((p) => underWay(p.steps))],
    printing: until,
    facts: {
      parts,
      joints,
      prints,
      running,
      layerHeight,
      finish: fields.finish,
      schools: { ...shop.schools, ...fields.schools },
      orderCosts: shop.orderCosts,
      room,
      fillers: asSold(FILLERS, 'filler', stock),
      adhesives: asSold(ADHESIVES, 'adhesive', stock),
      without: fields.without,
      hurried: fields.deadline !== null && isHurried(fields.deadline, zoneOf(shop)),
      inspection: inspected(inspection),
      surfaces: surfacesOf(scheme, area, resin?.clear ?? false),
      varnish: 'matt',
      coats: coatsOf(scheme, area, paints, shop.orderCosts),
      finishes: finishesOf(scheme, area, paints),
      effects: effectsOf(scheme, area),
      unprimed: unprimedIn(scheme, area),
      tint: scheme.tint,
    },
  }
}

const inspected = ({ passes, closed, flaws }: Inspection): PlanFacts['inspection'] =>
  passes.length === 0
    ? null
    : {
        passes: passes.length,
        closed,
        open: flaws.filter((f) => f.state === 'open').map((f) => remedyFor(f.kind, f.size)),
      }

type Ask = <K extends Check['kind']>(
  asked: { mesh: string; check: Extract<Check, { kind: K }> }[],
) => Promise<(CheckReport<K> | null)[]>
const reportsOf = (steps: readonly PartStep[]): OperationReport[] =>
  steps.flatMap((x) => operationReport(x.derivation) ?? [])

/** Keys of what is still being made of a part. */
const underWay = (steps: readonly PartStep[]): string[] =>
  steps.flatMap(({ derivation: d }) => (d && d.status !== 'done' ? [d.key] : []))

/** Each part as it stands in the piece, before it is hollowed and stood in the printer. */
async function standing(rows: readonly Part[], ask: Ask): Promise<Stood[]> {
  const walked = await Promise.all(rows.map(async (row) => ({ row, ...(await walk(row)) })))
  const placed = walked.map(({ row, steps }) => {
    let mesh = row.sculptMesh,
      measures: Measures | null = null
    for (const s of steps) {
      if (rankOf(s.op.kind) > rankOf('channel') || s.derivation?.status !== 'done') break
      mesh = s.derivation.meshHash ?? mesh
      measures = operationReport(s.derivation)?.measures ?? measures
    }
    return { row, steps, mesh, measures }
  })
  const bare = placed.filter((p) => !p.measures)
  const found = await ask(bare.map((p) => ({ mesh: p.mesh, check: { kind: 'measures' } })))
  bare.forEach((p, i) => {
    p.measures = found[i]!
  })
  return placed
}

/** The direction that was up when the part was printed, in the frame in which it stands in the piece. */
function printedUp(steps: readonly PartStep[]): Vector3 {
  const o = steps.find((s) => s.op.kind === 'orient')?.op
  if (o?.kind !== 'orient') return [0, 0, 1]
  const [x, y, z, w] = o.quaternion
  return apply3(fromQuaternion([-x, -y, -z, w]), [0, 0, 1])
}

/** mm beside a joint's edge whose regions say what its seam is in */
const BESIDE = 4
/** What the skin round a joint is, by what is painted there on either part. */
async function skinRound(pieceId: string, parts: readonly string[], fit: FitReport): Promise<Surface | null> {
  for (const id of parts) {
    const r = radius(fit)
    const name = (await regionsOn(pieceId, id))?.round(fit.centre, 0.7 * r, 1.2 * r + BESIDE)
    if (name) return surfaceOf(name)
  }
  return null
}

async function jointsOf(
  pieceId: string,
  stood: readonly Stood[],
  fields: ReturnType<typeof newPiece.parse>,
  density: number,
  ask: Ask,
): Promise<PlanJoint[]> {
  const solid = stood.filter((p) => p.measures && p.measures.area > 0)
  const near = solid.flatMap((a, i) =>
    solid.slice(i + 1).flatMap((b) => (boxesNear(a.measures!.box, b.measures!.box) ? [{ a, b }] : [])),
  )
  const fits = await ask(
    near.map(({ a, b }) => ({ mesh: a.mesh, check: { kind: 'fit', other: b.mesh, reach: JOINT_REACH } })),
  )
  const pairs = near.flatMap((p, i) => (fits[i]?.touching ? [{ ...p, fit: fits[i] }] : []))
  const reached = await ask(
    pairs.flatMap(({ a, b }) => [
      { mesh: a.mesh, check: { kind: 'access', others: [b.mesh] } },
      { mesh: b.mesh, check: { kind: 'access', others: [a.mesh] } },
    ]),
  )
  const loads = outboardOf(
    solid.map((p) => {
      const m = fields.materials[p.row.id]
      const hollow = reportsOf(p.steps).find((r) => r.kind === 'hollow')
      const volume = Math.abs((hollow?.measures ?? p.measures!).volume)
      return {
        id: p.row.id,
        mass: (volume / 1000) * (m?.density ?? density) * (m?.infill ?? 1),
        centre: p.measures!.centre,
        lowest: p.measures!.box.min[2],
      }
    }),
    pairs.map((p) => ({ a: p.a.row.id, b: p.b.row.id })),
  )
  const skins = await Promise.all(pairs.map(({ a, b, fit }) => skinRound(pieceId, [a.row.id, b.row.id], fit)))
  return pairs.map(({ a, b, fit }, i): PlanJoint => {
    const load = loads[i],
      [one, two] = [reached[2 * i], reached[2 * i + 1]]
    return {
      key: `${a.row.id}+${b.row.id}`,
      a: { id: a.row.id, name: a.row.name },
      b: { id: b.row.id, name: b.row.name },
      fit,
      load: load ? { mass: load.mass, pin: pinFor(fit.centre, load.mass, load.centre, 'brass') } : null,
      fixed: [a, b].some((p) =>
        p.steps.some(
          ({ op }) =>
            op.kind === 'fix' &&
            op.fixings.some((f) => f.shape !== 'key' && distance(f.point, fit.centre) < radius(fit) + 1),
        ),
      ),
      middle: { point: fit.centre, outward: fit.outward, radius: radius(fit) },
      surface: skins[i]!,
      mixed: fields.materials[a.row.id]?.name !== fields.materials[b.row.id]?.name,
      tried: fields.dryFits[`${a.row.id}+${b.row.id}`] ?? null,
      access: one && two ? [one, two] : null,
    }
  })
}
const distance = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((v, k) => v - b[k]!))
const radius = (fit: { area: number }): number => Math.sqrt(fit.area / Math.PI)

function partOf(
  p: Stood,
  joints: readonly (PlanJoint & { fit: { centre?: readonly number[] } })[],
  castFull: boolean,
): Omit<PlanPart, 'clear' | 'process' | 'cusps' | 'access'> {
  const reports = reportsOf(p.steps)
  const hollow = reports.find((r) => r.kind === 'hollow'),
    drill = reports.find((r) => r.kind === 'drill'),
    support = reports.find((r) => r.kind === 'support')
  const lowest = p.measures?.box.min[2] ?? 0
  const own = joints.filter((j) => j.a.id === p.row.id || j.b.id === p.row.id)
  const holes =
    drill?.kind === 'drill'
      ? drill.drill.holes.map((h) => ({
          diameter: h.diameter,
          hidden:
            (h.point[2] < lowest + UNDER && h.direction[2] > 0.7) ||
            own.some((j) => j.fit.centre && distance(h.point, j.fit.centre) < radius(j.fit) + BEHIND),
        }))
      : []
  const tips = support?.kind === 'support' ? support.support.tips : []
  const grades = [...new Set(tips.map((t) => t.grade))] as GradeName[]
  return {
    id: p.row.id,
    name: p.row.name,
    hollow: hollow !== undefined,
    holes,
    ...(hollow?.kind === 'hollow' && castFull ? { cast: hollow.hollow.cavityVolume / 1000 } : {}),
    scars: grades.map((grade) => ({
      tip: gradeDefaults[grade].tip,
      count: tips.filter((t) => t.grade === grade).length,
      focal: tips.filter((t) => t.grade === grade && t.focal).length,
    })),
    area: p.measures?.area ?? 0,
    height: p.measures?.size[2] ?? 0,
  }
}

/** Materials with the times that the product in stock has, where it says so. */
function asSold(
  list: readonly BenchMaterial[],
  use: BenchMaterial['use'],
  stock: readonly StockItem[],
): BenchMaterial[] {
  const sold = stock.filter((s) => s.kind === 'material').map((s) => materialSchema.parse(s.data))
  return list.map((m) => {
    const own = sold.find((s) => s.serves.includes(`${use}:${m.id}`) && (s.working !== null || s.next !== null))
    return own
      ? {
          ...m,
          working: own.working === null ? m.working : 60 * own.working,
          next: own.next === null ? m.next : 60 * own.next,
        }
      : m
  })
}
