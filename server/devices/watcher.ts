import pg from 'pg'
import { plateData, plateProgress } from '../../contract/runs'
import { noteAir } from '../domain/air'
import { blobSize, readStream } from '../data/blobs'
import { databaseUrl } from '../data/database'
import { announce } from '../data/events'
import { DeviceRow, PlatePrint, RunRow, StockItem } from '../data/models'
import { endPlate } from '../domain/runs'
import { DeviceTrouble, type DeviceAdapter, type Found } from './adapter'
import { overHttp } from './overHttp'
import { message } from '../../core/words/message'
import type { Said } from '../../core/words/say'

/** One watcher in all, whichever worker holds this lock. */
const LOCK = 731_004
const LOOK_MS = 500,
  FIND_MS = 4000
/** ms between two tries to send to a device that does not answer */
const AGAIN_MS = 2000

/** What of a plate's progress its printer tells. */
const heard = plateProgress.omit({ sent: true, size: true, lostAt: true })
type Progress = ReturnType<typeof plateProgress.parse>

/**
 * Watches the devices: finds them, sends the jobs that wait to be sent, and follows what they print, whoever asked for it
 * and whether or not a browser is open. What it knows is in the database, so that another takes over where one ends.
 */
export class Watcher {
  private readonly tasks = new Map<string, AbortController>()
  private readonly client = new pg.Client({ connectionString: databaseUrl })
  private stopped = false
  private found = 0

  constructor(
    private readonly addresses: readonly string[],
    private readonly adapter: DeviceAdapter = overHttp,
  ) {}

  async run(): Promise<void> {
    await this.client.connect()
    // Without its lock another may be watching as well: what is under way is let go, and the process is started again.
    this.client.on('error', () => process.exit(1))
    while (!this.stopped && !(await this.locked())) await pause(FIND_MS)
    while (!this.stopped) {
      try {
        await this.round()
      } catch (e) {
        console.error('devices:', e)
      }
      await pause(LOOK_MS)
    }
  }

  async stop(): Promise<void> {
    this.stopped = true
    for (const t of this.tasks.values()) t.abort()
    await this.client.end().catch(() => undefined)
  }

  private async locked(): Promise<boolean> {
    const r = await this.client.query<{ ok: boolean }>('SELECT pg_try_advisory_lock($1) AS ok', [LOCK])
    return r.rows[0]!.ok
  }

  private async round(): Promise<void> {
    if (Date.now() - this.found > FIND_MS) {
      this.found = Date.now()
      await this.find()
    }
    const live = await PlatePrint.findAll({ where: { state: ['sending', 'printing'] } })
    for (const row of live) {
      if (this.tasks.has(row.id)) continue
      const device = row.device ? await DeviceRow.findByPk(row.device) : null
      // Printed by hand, without a device that says how far it is.
      if (!device) continue
      this.begin(row.id, row.state === 'sending' ? (s) => this.send(row.id, s) : (s) => this.follow(row.id, s))
    }
    // A plate that is asked back while it is being sent, or was ended, is let go.
    const at = new Set(live.map((r) => r.id))
    for (const [id, task] of this.tasks) if (!at.has(id)) task.abort()
  }

  private begin(id: string, work: (signal: AbortSignal) => Promise<void>): void {
    const task = new AbortController()
    this.tasks.set(id, task)
    work(task.signal)
      .catch((e: unknown) => {
        if (!task.signal.aborted) console.error(`plate ${id}:`, e)
      })
      .finally(() => this.tasks.delete(id))
  }

  private async find(): Promise<void> {
    const known = await DeviceRow.findAll()
    const addresses = [...new Set([...this.addresses, ...known.map((d) => d.address)])]
    const found = await this.adapter.discover(addresses)
    let changed = false
    for (const f of found) if (await this.note(f)) changed = true
    for (const d of known) {
      const answers = found.some((f) => f.card.serial === d.serial)
      if (d.reachable === answers) continue
      await d.update({ reachable: answers })
      changed = true
    }
    for (const f of found) {
      const state = await this.adapter.state(f).catch(() => null)
      if (state) await DeviceRow.update({ state, seenAt: new Date() }, { where: { serial: f.card.serial } })
      if (state && f.card.kind === 'sensor') await noteAir(state)
    }
    if (changed) await announce({ type: 'devices' })
  }

  private async note({ address, card }: Found): Promise<boolean> {
    const row = await DeviceRow.findByPk(card.serial)
    if (!row) {
      await DeviceRow.create({
        serial: card.serial,
        kind: card.kind,
        address,
        card,
        printerId: await printerNamed(card.name),
      })
      return true
    }
    if (row.printerId === null && card.kind === 'printer') {
      const printerId = await printerNamed(card.name)
      if (printerId) {
        await row.update({ printerId })
        return true
      }
    }
    if (row.address === address && JSON.stringify(row.card) === JSON.stringify(card)) return false
    await row.update({ address, card })
    return true
  }

  private async send(id: string, signal: AbortSignal): Promise<void> {
    const row = await PlatePrint.findByPk(id),
      device = row?.device ? await DeviceRow.findByPk(row.device) : null
    if (!row || !device) return
    const hash = row.data.archive as string,
      size = await blobSize(hash)
    if (size === null) return this.back(row, message('refusals.device.layersGone'))
    let told = 0
    const progress = (sent: number): void => {
      if (Date.now() - told < 400 && sent < size) return
      told = Date.now()
      void this.tell(row, { sent, size, state: 'sending', lostAt: null })
    }
    try {
      await this.adapter.send(device, { id, size, read: (from) => readStream(hash, from) }, progress, signal)
      // Asked back at the last moment: nothing is started.
      const [mine] = await PlatePrint.update(
        { state: 'printing', startedAt: new Date() },
        { where: { id, state: 'sending' } },
      )
      if (mine === 0) {
        await this.adapter.stop(device)
        return
      }
      await this.adapter.start(device, { job: id })
      await this.tell(row, { sent: size, size, state: 'printing' })
    } catch (e) {
      if (signal.aborted) {
        await this.adapter.stop(device).catch(() => undefined)
        return
      }
      if (!(e instanceof DeviceTrouble)) throw e
      if (e.kind === 'refused') return this.back(row, e.said)
      await this.tell(row, { lostAt: lostSince(row) })
      await pause(AGAIN_MS)
    }
  }

  /** It is not printed: what the device said stands with it, and it can be sent again. */
  private async back(row: PlatePrint, problem: Said): Promise<void> {
    await row.reload()
    await row.update({
      state: 'planned',
      device: null,
      startedAt: null,
      progress: {},
      data: { ...row.data, problem },
      version: row.version + 1,
    })
    await this.say(row)
  }

  private async follow(id: string, signal: AbortSignal): Promise<void> {
    const row = await PlatePrint.findByPk(id),
      device = row?.device ? await DeviceRow.findByPk(row.device) : null
    if (!row || !device) return
    const ended = new AbortController()
    const enough = AbortSignal.any([signal, ended.signal])
    await this.adapter.watch(
      device,
      async (state) => {
        if (!state) {
          await row.reload()
          await this.tell(row, { lostAt: lostSince(row) })
          return
        }
        await DeviceRow.update({ state, reachable: true, seenAt: new Date() }, { where: { serial: device.serial } })
        const s = state as { state: string; job: string | null; seconds: number } & Record<string, unknown>
        if (s.job !== id) {
          // Nothing was printed of it yet: it is as though it had not been sent.
          if (Number(row.progress.layer ?? 0) === 0) await this.back(row, LOST)
          else await this.end(row, null, message('refusals.device.jobGone'))
          ended.abort()
          return
        }
        await this.stands(row, s.state, (state.why as string | null) ?? '', Number(state.layer))
        // The process that sent it died between noting and starting.
        if (s.state === 'ready') await this.adapter.start(device, { job: id }).catch(() => undefined)
        await this.tell(row, {
          ...heard.parse(state),
          lostAt: null,
        })
        if (s.state === 'finished' || s.state === 'stopped') {
          await this.end(row, s.seconds, null)
          ended.abort()
        }
      },
      enough,
    )
  }

  /** Notes where a print stands still, once for each time. */
  private async stands(row: PlatePrint, state: string, why: string, layer: number): Promise<void> {
    const still = state === 'paused' || state === 'interrupted'
    const { state: before } = plateProgress.parse(row.progress)
    if (!still || before === state) return
    await row.reload()
    const stops = [...((row.data.stops as { layer: number; why: string }[] | undefined) ?? []), { layer, why }]
    await row.update({ data: { ...row.data, stops: stops.slice(-1000) } })
  }

  private async end(row: PlatePrint, took: number | null, problem: Said | null): Promise<void> {
    await row.reload()
    if (row.state !== 'printing') return
    await endPlate(row, { took, problem, share: Number(row.progress.layer ?? 0) / plateData.parse(row.data).layers })
    await this.say(row)
  }

  private async tell(row: PlatePrint, change: Partial<Progress>): Promise<void> {
    row.progress = { ...row.progress, ...change }
    await PlatePrint.update({ progress: row.progress }, { where: { id: row.id, state: ['sending', 'printing'] } })
    await this.say(row)
  }
  private async say(row: PlatePrint): Promise<void> {
    const run = await RunRow.findByPk(row.runId)
    if (run) await announce({ type: 'run', id: run.pieceId })
  }
}

const LOST = message('refusals.device.jobLost')
const lostSince = (row: PlatePrint): string =>
  (row.progress.lostAt as string | null | undefined) ?? new Date().toISOString()
const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

/** A device that bears the name of a printer in stock is taken for it, until somebody says otherwise. */
async function printerNamed(name: string): Promise<string | null> {
  const rows = await StockItem.findAll({ where: { kind: 'printer', deletedAt: null } })
  return rows.find((r) => (r.data as { name?: string }).name === name)?.id ?? null
}
