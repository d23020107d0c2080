import { now, rightNow } from '../../data/clock'
import { reportOfRow } from '../../jobs/derivations'
import { Router } from 'express'
import { z } from 'zod'
import { openAir } from '../../../contract/devices'
import {
  device,
  judged,
  mark,
  newRun,
  plate,
  plateData,
  record,
  run,
  type DeviceRecord,
  type PrintRecord,
} from '../../../contract/runs'
import { printer as printerSchema } from '../../../contract/stock'
import { probableCauses, type PrintFacts } from '../../../core/print/failure/cause'
import { marksOf } from '../../../core/print/failure/seen'
import { fitMotion, successRates, type PartOutcome, type TimedPrint } from '../../../core/print/failure/record'
import { DeviceTrouble } from '../../devices/adapter'
import { overHttp } from '../../devices/overHttp'
import { announce } from '../../data/events'
import { Derivation, DeviceRow, PlatePrint, RunRow, StockItem } from '../../data/models'
import { notFound, Refusal, stale } from '../../domain/refusal'
import { endpoint } from '../route'
import { assign, endPlate, findPlate, makeRun, publicPlate, publicRun, runsOf } from '../../domain/runs'
import { findPiece } from './pieces'
import { message } from '../../../core/words/message'

export const runs = Router()

const publicDevice = (d: DeviceRow): z.input<typeof device> => ({
  serial: d.serial,
  address: d.address,
  card: d.card as DeviceRecord['card'],
  state: d.state,
  printerId: d.printerId,
  reachable: d.reachable,
  seenAt: d.seenAt.toISOString(),
})
async function findDevice(serial: string): Promise<DeviceRow> {
  const d = await DeviceRow.findByPk(serial)
  if (!d) throw notFound('device')
  return d
}
/** Passes on to a device; what it answers is the user's to read. */
async function onDevice<T>(act: () => Promise<T>): Promise<T> {
  try {
    return await act()
  } catch (e) {
    if (e instanceof DeviceTrouble) throw new Refusal(e.kind === 'offline' ? 503 : 409, `device-${e.code}`, e.said)
    throw e
  }
}

endpoint(runs, 'get', '/devices', 'Devices that were found', { reply: z.array(device) }, async () =>
  (await DeviceRow.findAll({ order: [['serial', 'ASC']] })).map(publicDevice),
)

endpoint(
  runs,
  'post',
  '/devices',
  'Look for a device at an address on this machine',
  { body: z.object({ address: z.url() }), reply: device },
  async (_req, body) => {
    const url = new URL(body.address)
    // Undercut reaches out to nothing but this machine unless it is told to by whoever runs it.
    if (url.protocol !== 'http:' || !['127.0.0.1', 'localhost', '[::1]'].includes(url.hostname))
      throw new Refusal(422, 'not-loopback', message('refusals.runs.onlyDevicesOnThisMachine'))
    const [found] = await overHttp.discover([url.origin])
    if (!found)
      throw new Refusal(404, 'no-device', message('refusals.runs.noDeviceAnswersAtLook', { origin: url.origin }))
    const { card, address } = found
    await DeviceRow.upsert({ serial: card.serial, kind: card.kind, address, card, reachable: true })
    await announce({ type: 'devices' })
    return publicDevice(await findDevice(card.serial))
  },
)

endpoint(
  runs,
  'put',
  '/devices/:serial/printer',
  'Say which printer of the stock a device is',
  { body: z.object({ printerId: z.uuid().nullable() }), reply: device },
  async (req, body) => {
    const d = await findDevice(req.params.serial!)
    await d.update({ printerId: body.printerId })
    await announce({ type: 'devices' })
    return publicDevice(d)
  },
)

const commandBody = z.discriminatedUnion('do', [
  z.object({ do: z.literal('refill'), ml: z.number().gt(0).max(10_000) }),
  z.object({ do: z.literal('clear') }),
  z.object({ do: z.literal('settings'), speedUp: z.number().gt(0).max(1e6) }),
  z.object({ do: z.literal('load'), grams: z.number().min(0).max(50_000) }),
  z.object({ do: z.literal('tare') }),
  z.object({ do: z.literal('air'), air: openAir.nullable() }),
  z.object({
    do: z.literal('start'),
    program: z.enum(['wash', 'dry', 'cure']),
    seconds: z.number().gt(0).max(604_800),
  }),
  z.object({ do: z.enum(['pause', 'resume', 'stop', 'state']) }),
])
endpoint(
  runs,
  'post',
  '/devices/:serial/commands',
  'Tell a device to do something; gives its state after',
  { body: commandBody, reply: device },
  async (req, body) => {
    const d = await findDevice(req.params.serial!)
    await onDevice(async () => {
      switch (body.do) {
        case 'start':
          await overHttp.start(d, { program: body.program, seconds: body.seconds })
          break
        case 'pause':
        case 'resume':
        case 'stop':
          await overHttp[body.do](d)
          break
        case 'state':
          break
        default: {
          const { do: what, ...rest } = body
          await overHttp.also(d, what, rest)
        }
      }
      await d.update({ state: await overHttp.state(d), reachable: true, seenAt: rightNow() })
    })
    // Who only asks changes nothing that others would have to hear.
    if (body.do !== 'state') await announce({ type: 'devices' })
    return publicDevice(d)
  },
)

endpoint(runs, 'get', '/pieces/:id/runs', 'Print runs of a piece, newest first', { reply: z.array(run) }, async (req) =>
  runsOf((await findPiece(req.params.id!)).id),
)
endpoint(runs, 'post', '/pieces/:id/runs', 'Begin a run', { body: newRun, reply: run }, async (req, body) => {
  const piece = await findPiece(req.params.id!)
  const row = await makeRun(piece.id, body)
  await announce({ type: 'run', id: piece.id })
  return publicRun(row)
})
endpoint(runs, 'delete', '/runs/:id', 'Move a run to the trash (kept 30 days)', {}, async (req) => {
  const row = await RunRow.findByPk(req.params.id!)
  if (!row) throw notFound('run')
  if (await PlatePrint.count({ where: { runId: row.id, state: ['sending', 'printing'] } }))
    throw new Refusal(409, 'run-at-work', message('refusals.runs.aPlateOfThisRun'))
  await row.update({ deletedAt: new Date() })
  await announce({ type: 'run', id: row.pieceId })
  return undefined
})

endpoint(
  runs,
  'post',
  '/plates/:id/send',
  'Send a plate to a printer and start it; null: it is printed by hand, on a machine that is not connected',
  { body: z.object({ device: z.string().max(80).nullable() }), reply: plate },
  async (req, body) => {
    const { plate: row, run: owner } = await findPlate(req.params.id!)
    if (body.device) await assign(row, owner, body.device)
    else {
      const [mine] = await PlatePrint.update(
        { state: 'printing', startedAt: rightNow(), version: row.version + 1 },
        { where: { id: row.id, state: 'planned' } },
      )
      if (mine === 0) throw new Refusal(409, 'plate-begun', message('refusals.runs.thisPlateWasStartedAlready'))
      await announce({ type: 'run', id: owner.pieceId })
    }
    return publicPlate(await row.reload())
  },
)

endpoint(
  runs,
  'post',
  '/plates/:id/commands',
  'Pause, go on, or stop a plate',
  { body: z.object({ do: z.enum(['pause', 'resume', 'stop']) }), reply: plate },
  async (req, body) => {
    const { plate: row, run: owner } = await findPlate(req.params.id!)
    if (row.state !== 'sending' && row.state !== 'printing')
      throw new Refusal(409, 'plate-idle', message('refusals.runs.thisPlateIsNotBeing'))
    const d = row.device ? await DeviceRow.findByPk(row.device) : null
    if (row.state === 'sending') {
      if (body.do !== 'stop') throw new Refusal(409, 'plate-sending', message('refusals.runs.itIsStillBeingSent'))
      // The watcher sees that it is no longer wanted, and lets go of it.
      await PlatePrint.update(
        { state: 'planned', device: null, progress: {}, version: row.version + 1 },
        { where: { id: row.id, state: 'sending' } },
      )
    } else if (!d) {
      if (body.do !== 'stop') throw new Refusal(409, 'by-hand', message('refusals.runs.nothingIsConnectedThatCould'))
      const took = row.startedAt ? (now() - row.startedAt.getTime()) / 1000 : null
      await endPlate(row, { took, problem: null, share: 1 })
    } else
      await onDevice(async () => {
        const s = (await overHttp.state(d)) as { state?: string }
        // After a power cut the printer goes on from where it was when it is started again.
        if (body.do === 'resume' && s.state === 'interrupted') await overHttp.start(d, { job: row.id })
        else await overHttp[body.do](d)
      })
    await announce({ type: 'run', id: owner.pieceId })
    return publicPlate(await row.reload())
  },
)

endpoint(
  runs,
  'post',
  '/plates/:id/look',
  'What a device that can tell sees on the plate: marks and outcomes, not kept yet',
  {
    reply: z.object({
      marks: z.array(mark),
      outcomes: judged.shape.outcomes,
      grams: z.number(),
      layers: z.int(),
    }),
  },
  async (req) => {
    const { plate: row } = await findPlate(req.params.id!)
    const d = row.device ? await findDevice(row.device) : null
    if (!d) throw new Refusal(409, 'by-hand', message('refusals.runs.itWasPrintedByHand'))
    const seen = await onDevice(() => overHttp.look(d, row.id))
    const { parts, layerHeight } = plateData.parse(row.data)
    const found = marksOf(
      seen,
      parts.map((p) => ({ ...p, box: p.facts.box ?? [-1, 1, -1, 1], volume: p.facts.volume ?? 0 })),
      layerHeight,
    )
    return {
      marks: found.marks
        .slice(0, 500)
        .map((m, i) => ({ ...m, point: [...m.point] as [number, number, number], id: `seen-${i}`, note: '' })),
      outcomes: found.outcomes,
      grams: seen.grams,
      layers: seen.layers,
    }
  },
)

endpoint(
  runs,
  'put',
  '/plates/:id/judgement',
  'The result of each part, and what is wrong where',
  { body: judged, reply: plate },
  async (req, body) => {
    const { plate: row, run: owner } = await findPlate(req.params.id!)
    if (row.state !== 'ended' && row.state !== 'judged')
      throw new Refusal(409, 'plate-not-ended', message('refusals.runs.itIsNotPrintedYet'))
    const { version, ...data } = body
    const { parts } = plateData.parse(row.data)
    const known = new Set(parts.map((p) => `${p.partId} ${p.copy}`))
    const stray = [...data.outcomes, ...data.marks].find((o) => !known.has(`${o.partId} ${o.copy}`))
    if (stray) throw new Refusal(422, 'not-on-plate', message('refusals.runs.aPartThatWasJudged'))
    const [changed] = await PlatePrint.update(
      { data: { ...row.data, ...data }, state: 'judged', version: version + 1 },
      { where: { id: row.id, version } },
    )
    await row.reload()
    if (changed === 0) throw stale(publicPlate(row))
    await announce({ type: 'run', id: owner.pieceId })
    return publicPlate(row)
  },
)

const cause = z.object({
  kind: z.string(),
  weight: z.number(),
  sentence: z.string(),
  words: z.string(),
  change: z.record(z.string(), z.unknown()),
})
endpoint(
  runs,
  'post',
  '/plates/:id/causes',
  'Probable causes of a fault, from what was computed before it was printed',
  { body: mark, reply: z.array(cause) },
  async (req, body) => {
    const { plate: row } = await findPlate(req.params.id!)
    const facts = await printFacts(row, body.partId, body.copy)
    return probableCauses(body, facts).map((c) => ({ ...c, change: { ...c.change } }))
  },
)

async function printFacts(row: PlatePrint, partId: string, copy: number): Promise<PrintFacts> {
  const data = plateData.parse(row.data)
  const part = data.parts.find((p) => p.partId === partId && p.copy === copy)
  if (!part) throw notFound('partOnPlate')
  const sliced = reportOfRow(await Derivation.findByPk(data.sliceKey), 'slice')
  const supported = part.facts.supportKey
    ? reportOfRow(await Derivation.findByPk(part.facts.supportKey), 'support')
    : null
  return {
    layerHeight: data.layerHeight,
    islands: sliced?.islands ?? [],
    cups: sliced?.cups ?? [],
    peel: sliced?.peel ?? [],
    bottomLayers: data.bottomLayers,
    exposure: data.exposure,
    bottomExposure: data.bottomExposure,
    tips: supported?.support.tips ?? [],
    x: part.x,
    y: part.y,
    angle: part.angle,
    stops: data.stops,
    failed: data.outcomes.filter((o) => o.result === 'failed').length,
    parts: data.parts.length,
  }
}

endpoint(
  runs,
  'get',
  '/record',
  'Print statistics: how often parts succeed, and how long layers really take',
  { reply: record },
  async () => {
    const owners = new Map((await RunRow.findAll({ where: { deletedAt: null } })).map((r) => [r.id, r]))
    const plates = (await PlatePrint.findAll({ where: { state: ['ended', 'judged'] } })).filter((p) =>
      owners.has(p.runId),
    )
    const outcomes: PartOutcome[] = [],
      timed = new Map<string, TimedPrint[]>()
    for (const p of plates) {
      const d = plateData.parse(p.data)
      const resin = (owners.get(p.runId)!.data as { resinName: string }).resinName
      for (const o of d.outcomes) {
        const part = d.parts.find((q) => q.partId === o.partId && q.copy === o.copy)
        if (part)
          outcomes.push({
            printer: d.printerName,
            resin,
            tilt: part.facts.tilt,
            finest: part.facts.finest,
            good: o.result !== 'failed',
          })
      }
      // A print that was stopped, or stood still, says nothing about how long layers take.
      if (d.took && p.device && d.stops.length === 0 && Number(p.progress.layer) === d.layers)
        timed.set(d.printerId, [
          ...(timed.get(d.printerId) ?? []),
          { ...d, estimate: d.estimate.seconds, took: d.took },
        ])
    }
    const times: PrintRecord['times'] = []
    for (const [printerId, prints] of timed) {
      const row = await StockItem.findByPk(printerId)
      const fitted = fitMotion(prints)
      if (!row || !fitted) continue
      const p = printerSchema.parse(row.data)
      times.push({ printerId, name: p.name, now: p.liftTime + p.retractTime + p.restTime, ...fitted })
    }
    return { rates: successRates(outcomes), times, plates: plates.length }
  },
)
