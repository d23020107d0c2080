import type { Inspection } from '../../contract/flaws'
import { newPiece } from '../../contract/pieces'
import { material as materialSchema, paint as paintSchema, resin as resinSchema } from '../../contract/stock'
import { surfaceOf } from '../../core/plan/materials/abrasives'
import { asSold } from '../../core/plan/facts/asSold'
import { remedyFor } from '../../core/plan/facts/flaws'
import { jointsOf, type Ask } from '../../core/plan/facts/joints'
import {
  madePart,
  partFacts,
  printedHeight,
  printedUp,
  type MadePart,
  type MadeStep,
} from '../../core/plan/facts/madeParts'
import { coatsOf, effectsOf, finishesOf, surfacesOf, unprimedIn } from '../../core/plan/facts/paintFacts'
import { ADHESIVES, FILLERS } from '../../core/plan/materials/materials'
import type { PlanFacts, PlanPart } from '../../core/plan/steps/types'
import { isAid } from '../../core/operations/registry'
import { walk, knownChecks, type PartStep, operationReport, reportOfRow } from '../jobs/derivations'
import { readInspection } from './inspections'
import { printsOf } from './prints'
import { readRoom } from './room'
import { Part, StockItem } from '../data/models'
import { regionsOn } from './regions'
import { isHurried, readWorkshop, zoneOf } from './workshop'
import { readScheme } from './schemes'

/** Grams a millilitre of cured resin, where none is chosen. */
const USUAL_DENSITY = 1.12
/** mm; a filament base as it is usually printed */
const FILAMENT_LAYER = 0.2
const nameOf = (item: StockItem): string => String(item.data.name)
const processOf = (fields: ReturnType<typeof newPiece.parse>, part: string): PlanPart['process'] =>
  fields.materials[part]?.name ?? 'resin'

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
  const byName = [...stock].sort((a, b) => nameOf(a).localeCompare(nameOf(b)))
  /** What the brief chose, else the first in stock, as the page takes it too. */
  const named = <T>(kind: StockItem['kind'], id: string | null, parse: (data: unknown) => T): T | null => {
    const row = stock.find((s) => s.kind === kind && s.id === id) ?? byName.find((s) => s.kind === kind)
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

  const walked = await Promise.all(rows.map(async (row) => ({ row, steps: (await walk(row)).steps })))
  const made = await measured(
    walked.map(({ row, steps }) => madePart(row.id, row.name, row.sculptMesh, steps.map(madeStep))),
    ask,
  )
  const joints = await jointsOf(made, {
    ask,
    skinRound: async (part, point, from, to) => {
      const name = (await regionsOn(pieceId, part))?.round(point, from, to)
      return name ? surfaceOf(name) : null
    },
    materialOf: (part) => {
      const m = fields.materials[part]
      return { name: m?.name ?? '', density: m?.density ?? resin?.density ?? USUAL_DENSITY, infill: m?.infill ?? 1 }
    },
    tried: fields.dryFits,
  })
  const cusps = await ask(
    made.map((p) => ({
      mesh: p.mesh,
      check: {
        kind: 'cusps',
        up: [...printedUp(p.steps)],
        layerHeight: processOf(fields, p.id) === 'filament' ? FILAMENT_LAYER : layerHeight,
      },
    })),
  )
  const lone = await ask(made.map((p) => ({ mesh: p.mesh, check: { kind: 'access', others: [] } })))
  const parts = made.map((p, i): PlanPart => ({
    ...partFacts(p, joints, (fields.materials[p.id]?.cast ?? null) !== null),
    clear: resin?.clear ?? false,
    process: processOf(fields, p.id),
    cusps: processOf(fields, p.id) === 'metal' ? null : cusps[i]!,
    access: lone[i]!,
  }))
  const area = parts.reduce((s, p) => s + p.area, 0)
  const paints = new Map(stock.filter((s) => s.kind === 'paint').map((r) => [r.id, paintSchema.parse(r.data)]))
  const raw = (kind: StockItem['kind'], id: string | null): Record<string, unknown> | null =>
    named(kind, id, (d) => d as Record<string, unknown>)
  const height = Math.max(0, ...made.filter((p) => processOf(fields, p.id) === 'resin').map(printedHeight))
  const products = stock.filter((s) => s.kind === 'material').map((s) => materialSchema.parse(s.data))
  const { prints, running, until } = await printsOf(
    pieceId,
    height,
    raw('printer', fields.printerId),
    stock.every((s) => s.id !== fields.printerId),
    raw('resin', fields.resinId),
  )
  return {
    pending,
    awaits: [...pending, ...walked.flatMap((p) => underWay(p.steps))],
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
      fillers: asSold(FILLERS, 'filler', products),
      adhesives: asSold(ADHESIVES, 'adhesive', products),
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

/** Keys of what is still being made of a part. */
const underWay = (steps: readonly PartStep[]): string[] =>
  steps.flatMap(({ derivation: d }) => (d && d.status !== 'done' ? [d.key] : []))

const madeStep = ({ op, derivation }: PartStep): MadeStep => ({
  op,
  done: derivation?.status === 'done' ? { mesh: derivation.meshHash, report: operationReport(derivation) } : null,
})

/** What was taken in as it is has no operation that measured it: that is asked. */
async function measured(parts: readonly MadePart[], ask: Ask): Promise<MadePart[]> {
  const bare = parts.filter((p) => !p.measures)
  const found = await ask(bare.map((p) => ({ mesh: p.mesh, check: { kind: 'measures' } })))
  const measures = new Map(bare.map((p, i) => [p.id, found[i] ?? null]))
  return parts.map((p) => ({ ...p, measures: p.measures ?? measures.get(p.id) ?? null }))
}
