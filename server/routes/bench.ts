import { Router } from 'express'
import { z } from 'zod'
import { logEntry, newLogEntry, newPiece, plan, scheme, tick, type Scheme } from '../../contract/pieces'
import { paint as paintSchema, resin as resinSchema } from '../../contract/stock'
import { AIRBRUSHED, BRUSHED } from '../../core/paint/film'
import { schedule } from '../../core/plan/schedule'
import { planSteps, type PlanFacts } from '../../core/plan/steps'
import { CAUTIONS } from '../../core/plan/cautions'
import { sprayRefused } from '../../core/plan/drying'
import type { OperationReport } from '../../core/shape/operations'
import { advance } from '../derivations'
import { announce } from '../events'
import { LogRow, Part, SchemeRow, StockItem, Tick } from '../models'
import { stale } from '../problem'
import { endpoint } from '../route'
import { findPiece } from './pieces'
import { readWorkshop } from './stock'

export const bench = Router()

const EMPTY: Scheme = {
  version: 0,
  regions: [{ id: 0, name: 'Whole piece', target: null }],
  coats: [],
  maps: [],
}

async function readScheme(pieceId: string): Promise<Scheme> {
  const row = await SchemeRow.findByPk(pieceId)
  return row ? scheme.parse({ ...row.data, version: row.version }) : EMPTY
}

endpoint(bench, 'get', '/pieces/:id/scheme', 'Regions and coats', { reply: scheme }, async (req) =>
  readScheme((await findPiece(req.params.id!)).id),
)

endpoint(
  bench,
  'put',
  '/pieces/:id/scheme',
  'Replace regions and coats',
  { body: scheme, reply: scheme },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const { version, ...data } = body
    if (version === 0) {
      const [row, fresh] = await SchemeRow.findOrCreate({
        where: { pieceId: p.id },
        defaults: { pieceId: p.id, data, version: 1 },
      })
      if (!fresh) throw stale({ ...row.data, version: row.version })
    } else {
      const [changed] = await SchemeRow.update({ data, version: version + 1 }, { where: { pieceId: p.id, version } })
      if (changed === 0) throw stale(await readScheme(p.id))
    }
    await announce({ type: 'piece', id: p.id })
    return readScheme(p.id)
  },
)

/** What the plan is made from, taken from what was measured on the piece's parts. */
async function planFacts(pieceId: string, data: Record<string, unknown>): Promise<PlanFacts> {
  const shop = await readWorkshop(),
    s = await readScheme(pieceId)
  const fields = newPiece.parse(data)
  const printer = fields.printerId ? await StockItem.findByPk(fields.printerId) : null
  const resinRow = fields.resinId ? await StockItem.findByPk(fields.resinId) : null
  const parts = await Part.findAll({ where: { pieceId, deletedAt: null }, order: [['createdAt', 'ASC']] })
  const facts: PlanFacts['parts'] = []
  for (const p of parts) {
    const { steps } = await advance(p)
    const reports = steps.map((x) =>
      x.derivation?.status === 'done' ? (x.derivation.report as OperationReport) : null,
    )
    const support = reports.find((r) => r?.kind === 'support'),
      drill = reports.find((r) => r?.kind === 'drill'),
      hollow = reports.find((r) => r?.kind === 'hollow')
    const body = reports.filter((r) => r && r.kind !== 'support').at(-1)?.measures
    facts.push({
      name: p.name,
      hollow: hollow !== undefined,
      holes: drill?.kind === 'drill' ? drill.drill.holes.length : 0,
      ...(hollow?.kind === 'hollow' && fields.materials[p.id]?.cast ? { cast: hollow.hollow.cavityVolume / 1000 } : {}),
      tips: support?.kind === 'support' ? support.support.tips.length : 0,
      area: body?.area ?? 0,
      height: body?.size[2] ?? 0,
      clear: resinRow ? resinSchema.parse(resinRow.data).clear : false,
    })
  }
  const paints = new Map(
    (await StockItem.findAll({ where: { kind: 'paint' } })).map((r) => [r.id, paintSchema.parse(r.data)]),
  )
  const area = facts.reduce((a, p) => a + p.area, 0),
    share = area / Math.max(1, s.regions.length)
  // What was never brushed on has no area of its own yet; an even share stands in.
  const areaOf = (region: number): number =>
    s.maps.length > 0 ? s.maps.reduce((a, m) => a + (m.areas[region] ?? 0), 0) : share
  return {
    parts: facts,
    layerHeight: (printer?.data as { layerHeight?: number } | undefined)?.layerHeight ?? 0.05,
    finish: fields.finish,
    schools: { ...shop.schools, ...fields.schools },
    room: { temperature: shop.temperature, humidity: shop.humidity },
    varnish: 'matt',
    coats: s.coats
      .filter((c) => c.technique !== 'varnish')
      .map((c) => ({
        region: s.regions.find((r) => r.id === c.regionId)?.name ?? 'Region',
        technique: c.technique,
        byAirbrush: c.tool === 'airbrush',
        area: areaOf(c.regionId),
        paint: c.paintId
          ? (paints.get(c.paintId)?.name ?? 'a paint no longer in stock')
          : c.mix.map((m) => `${m.drops} ${paints.get(m.paintId)?.name ?? '?'}`).join(' + ') || 'paint to choose',
        coats: Math.max(1, Math.round(c.film / (c.tool === 'airbrush' ? AIRBRUSHED : BRUSHED))),
      })),
  }
}

endpoint(bench, 'get', '/pieces/:id/plan', 'The bench plan, laid on bench hours', { reply: plan }, async (req) => {
  const p = await findPiece(req.params.id!)
  const facts = await planFacts(p.id, p.data)
  const shop = await readWorkshop()
  const steps = facts.parts.length === 0 ? [] : planSteps(facts)
  const ticks = new Map((await Tick.findAll({ where: { pieceId: p.id } })).map((t) => [t.stepKey, t]))
  const done = new Map([...ticks.values()].filter((t) => t.doneAt).map((t) => [t.stepKey, t.doneAt!.getTime()]))
  const laid = schedule(steps, shop.benchHours, Date.now(), done)
  const slots = new Map(laid.slots.map((s) => [s.key, s])),
    critical = new Set(laid.critical)
  return {
    finish: laid.finish,
    impossible: laid.impossible,
    sprayRefused: sprayRefused(facts.room),
    steps: steps.map((s) => ({
      ...s,
      cautions: s.cautions.map((c) => CAUTIONS[c]),
      start: slots.get(s.key)?.start ?? null,
      end: slots.get(s.key)?.end ?? null,
      free: slots.get(s.key)?.free ?? null,
      doneAt: ticks.get(s.key)?.doneAt?.toISOString() ?? null,
      timerUntil: ticks.get(s.key)?.timerUntil?.toISOString() ?? null,
      critical: critical.has(s.key),
    })),
  }
})

endpoint(bench, 'put', '/pieces/:id/ticks', 'Tick a step, or start its timer', { body: tick }, async (req, body) => {
  const p = await findPiece(req.params.id!)
  await Tick.upsert({
    pieceId: p.id,
    stepKey: body.stepKey,
    doneAt: body.doneAt ? new Date(body.doneAt) : null,
    timerUntil: body.timerUntil ? new Date(body.timerUntil) : null,
  })
  await announce({ type: 'piece', id: p.id })
  return undefined
})

const publicEntry = (r: LogRow): z.infer<typeof logEntry> => ({
  id: r.id,
  pieceId: r.pieceId,
  stepKey: r.stepKey,
  text: r.text,
  photo: r.photo,
  at: r.at.toISOString(),
})

endpoint(
  bench,
  'get',
  '/pieces/:id/log',
  'The log of a piece, newest first',
  { reply: z.array(logEntry) },
  async (req) => {
    const p = await findPiece(req.params.id!)
    return (await LogRow.findAll({ where: { pieceId: p.id }, order: [['at', 'DESC']], limit: 500 })).map(publicEntry)
  },
)

endpoint(
  bench,
  'post',
  '/pieces/:id/log',
  'Write a log entry',
  { body: newLogEntry, reply: logEntry },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const row = await LogRow.create({ pieceId: p.id, stepKey: body.stepKey, text: body.text, photo: body.photo })
    await announce({ type: 'piece', id: p.id })
    return publicEntry(row)
  },
)
