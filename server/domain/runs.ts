import { rightNow } from '../data/clock'
import { Transaction, UniqueConstraintError } from 'sequelize'
import type { z } from 'zod'
import { plateData, plateProgress, runData, type newRun, type PlateRecord, type RunRecord } from '../../contract/runs'
import { printer as printerSchema, resin as resinSchema } from '../../contract/stock'
import { tiltOf } from '../../core/print/failure/facts'
import { database } from '../data/database'
import { walk, operationReport, reportOfRow } from '../jobs/derivations'
import { announce } from '../data/events'
import { Derivation, DeviceRow, Part, PlatePrint, RunRow, StockItem } from '../data/models'
import { notFound, Refusal } from './refusal'
import { resinUsed } from './resinUsed'
import { message } from '../../core/words/message'
import type { Said } from '../../core/words/say'

export function publicPlate(row: PlatePrint): PlateRecord {
  return {
    ...plateData.parse(row.data),
    id: row.id,
    runId: row.runId,
    number: row.number,
    device: row.device,
    state: row.state,
    progress: plateProgress.parse(row.progress),
    version: row.version,
    startedAt: row.startedAt?.toISOString() ?? null,
    endedAt: row.endedAt?.toISOString() ?? null,
  }
}
export async function publicRun(row: RunRow): Promise<RunRecord> {
  const plates = await PlatePrint.findAll({ where: { runId: row.id }, order: [['number', 'ASC']] })
  return {
    ...runData.parse(row.data),
    id: row.id,
    pieceId: row.pieceId,
    number: row.number,
    plates: plates.map(publicPlate),
    version: row.version,
    createdAt: row.createdAt.toISOString(),
  }
}
export async function runsOf(pieceId: string): Promise<RunRecord[]> {
  const rows = await RunRow.findAll({ where: { pieceId, deletedAt: null }, order: [['number', 'DESC']] })
  return Promise.all(rows.map(publicRun))
}

export async function findPlate(id: string): Promise<{ plate: PlatePrint; run: RunRow }> {
  const plate = /^[\da-f-]{36}$/.test(id) ? await PlatePrint.findByPk(id) : null
  const run = plate ? await RunRow.findByPk(plate.runId) : null
  if (!plate || !run || run.deletedAt) throw notFound('plate')
  return { plate, run }
}

/** A new run from plates that are sliced: what is to be printed, with which resin, and what is known of each part by now. */
export async function makeRun(pieceId: string, wish: z.infer<typeof newRun>): Promise<RunRow> {
  const resin = await StockItem.findOne({ where: { id: wish.resinId, kind: 'resin' } })
  if (!resin) throw notFound('resin')
  const parts = await Part.findAll({ where: { pieceId } })
  const facts = new Map(await Promise.all(parts.map(async (p) => [p.id, await factsOf(p)] as const)))
  const plates = await Promise.all(
    wish.plates.map(async (p) => {
      const printer = await StockItem.findOne({ where: { id: p.printerId, kind: 'printer' } })
      if (!printer) throw notFound('printer')
      const sliced = await Derivation.findByPk(p.sliceKey)
      if (sliced?.kind !== 'slice' || sliced.status !== 'done' || !sliced.blobs.zip)
        throw new Refusal(409, 'not-sliced', message('refusals.runs.aPlateOfTheRun'))
      const report = reportOfRow(sliced, 'slice')!
      const figures = printerSchema.parse(printer.data)
      const used = resinSchema.parse((sliced.params as { resin: unknown }).resin)
      return plateData.parse({
        printerId: p.printerId,
        printerName: figures.name,
        sliceKey: p.sliceKey,
        archive: sliced.blobs.zip,
        layers: report.layers,
        layerHeight: report.layerHeight,
        bottomLayers: figures.bottomLayers,
        exposure: used.exposure,
        bottomExposure: used.bottomExposure,
        estimate: { seconds: report.seconds, millilitres: report.resinMl, cost: report.resinCost },
        parts: p.parts.map((q) => {
          const known = facts.get(q.partId)
          if (!known) throw notFound('partNamed', q.name)
          return { ...q, facts: known }
        }),
      } satisfies z.input<typeof plateData>)
    }),
  )
  for (let tries = 0; ; tries++) {
    try {
      return await database.transaction(async (transaction) => {
        const before = (await RunRow.max<number, RunRow>('number', { where: { pieceId }, transaction })) ?? 0
        const run = await RunRow.create(
          {
            pieceId,
            number: before + 1,
            data: {
              resinId: wish.resinId,
              resinName: resinSchema.parse(resin.data).name,
              lot: wish.lot,
              note: wish.note,
              reprintOf: wish.reprintOf,
            } satisfies z.input<typeof runData>,
          },
          { transaction },
        )
        for (const [i, data] of plates.entries())
          await PlatePrint.create({ runId: run.id, number: i + 1, data }, { transaction })
        return run
      })
    } catch (e) {
      // Two windows began a run at the same moment: the later one gets the next number.
      if (!(e instanceof UniqueConstraintError) || tries > 4) throw e
    }
  }
}

async function factsOf(part: Part): Promise<z.input<typeof plateData>['parts'][number]['facts']> {
  const { steps } = await walk(part)
  const done = steps.filter((s) => s.derivation?.status === 'done')
  const orient = steps.find((s) => s.op.kind === 'orient')?.op
  const supported = done.find((s) => s.op.kind === 'support')?.derivation ?? null
  // What was only stood up, without supports, has its measures from that.
  const last = supported ?? done.find((s) => s.op.kind === 'orient')?.derivation
  const report = operationReport(last)
  const tips = report?.kind === 'support' ? report.support.tips : []
  const box = report?.measures.box
  const reports = done.flatMap((s) => operationReport(s.derivation) ?? [])
  const body = reports.filter((r) => r.kind !== 'support').at(-1)?.measures
  const drilled = done.flatMap((s) => (s.op.kind === 'drill' ? s.op.holes.map((h) => h.diameter) : []))
  const grades = ['whisker', 'strut', 'post'] as const
  return {
    supportKey: supported?.key ?? null,
    tilt: orient?.kind === 'orient' ? tiltOf(orient.quaternion) : null,
    finest: grades.find((g) => tips.some((t) => t.grade === g)) ?? null,
    utilisation: tips.length > 0 ? Math.max(...tips.map((t) => t.utilisation)) : null,
    tips: tips.length,
    box: box ? [box.min[0], box.max[0], box.min[1], box.max[1]] : null,
    volume: report?.measures.volume ?? null,
    area: body?.area ?? 0,
    supportArea: Math.max(0, (report?.measures.area ?? 0) - (body?.area ?? 0)),
    height: body?.size[2] ?? 0,
    hollow: reports.some((r) => r.kind === 'hollow'),
    holes: drilled,
  }
}

/**
 * Gives a plate to a device. That a device has one plate at work at a time is the database's own rule, so of two who press at
 * the same moment one is told who was first.
 */
export async function assign(plate: PlatePrint, run: RunRow, serial: string): Promise<void> {
  const device = await DeviceRow.findByPk(serial)
  if (!device) throw notFound('device')
  if (device.kind !== 'printer') throw new Refusal(409, 'no-printer', message('refusals.runs.isNoPrinter', { serial }))
  const name = String((device.card as { name?: string }).name)
  try {
    const [mine] = await PlatePrint.update(
      {
        state: 'sending',
        device: serial,
        progress: {},
        data: { ...plate.data, problem: null },
        version: plate.version + 1,
      },
      { where: { id: plate.id, state: 'planned' } },
    )
    if (mine === 0) {
      const now = await PlatePrint.findByPk(plate.id)
      throw new Refusal(
        409,
        'plate-begun',
        now?.device
          ? message('refusals.runs.thisPlateIsBeingPrinted')
          : message('refusals.runs.thisPlateWasPrintedAlready'),
      )
    }
  } catch (e) {
    if (e instanceof UniqueConstraintError)
      throw new Refusal(409, 'printer-busy', message('refusals.runs.hasAnotherPlateAtWork', { name }))
    throw e
  }
  await announce({ type: 'run', id: run.pieceId })
}

/**
 * Notes that a plate is printed, or stopped, and takes its resin off the shelf: both or neither. Does nothing to one that has
 * ended already.
 *
 * @param share of it that was printed
 */
export async function endPlate(
  plate: PlatePrint,
  how: { took: number | null; problem: Said | null; share: number },
): Promise<void> {
  await database.transaction(async (transaction) => {
    const row = (await PlatePrint.findByPk(plate.id, { transaction, lock: Transaction.LOCK.UPDATE }))!
    if (row.state !== 'printing') return
    const { took, problem, share } = how
    const data = plateData.parse(row.data)
    await row.update(
      {
        state: 'ended',
        endedAt: rightNow(),
        data: { ...row.data, took, problem },
        // Of one that was printed by hand nobody counted the layers.
        progress: { ...row.progress, layer: Math.round(Math.min(1, share) * data.layers) },
        version: row.version + 1,
      },
      { transaction },
    )
    const run = await RunRow.findByPk(row.runId, { transaction })
    if (!run) return
    const { resinId, lot } = runData.parse(run.data)
    await resinUsed(resinId, lot, data.estimate.millilitres * Math.min(1, share), transaction)
  })
  await announce({ type: 'stock' })
}
