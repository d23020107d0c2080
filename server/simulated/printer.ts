import express, { Router } from 'express'
import { mkdirSync, rmSync, statSync } from 'node:fs'
import type { FileHandle } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import type { JobStatus, PlateSeen, PrinterState } from '../../contract/devices'
import type { LayerManifest } from '../../contract/manifest'
import type { ZipEntry } from '../../core/formats/zipDirectory'
import { Refusal } from '../domain/refusal'
import { checkJob, fileSource, MAX_JOB, plannedSeconds, receive, type PrinterFigures } from './job'
import { natureOf, Print, VAT_FLOOR } from './print'
import { keep, kept, Shell, type DeviceConfig } from './shell'
import { message } from '../../core/words/message'
import type { Problem } from '../../core/answer'
import { say } from '../../core/words/say'

const settings = z.object({
  pixels: z.tuple([z.int(), z.int()]),
  pitch: z.tuple([z.number(), z.number()]),
  height: z.number(),
  vat: z.number(),
  /** ml in the vat when it is first switched on */
  filled: z.number().default(0),
  /** s of exposure that its resin needs */
  exposure: z.number().default(2.4),
  /** planted, for trying things out: layers at which the mains fail or the lamp weakens; absent leaves it to luck, null bars it */
  power: z.int().nullable().optional(),
  lamp: z.int().nullable().optional(),
  /** ms for which it does not answer after the mains have failed */
  dark: z.number().default(3000),
})

interface Kept {
  state: PrinterState['state']
  why: PrinterState['why']
  job: string | null
  layer: number
  layers: number
  seconds: number
  vat: number
  clear: boolean
  /** prints begun, for the luck of each */
  runs: number
  seen: PlateSeen | null
}
interface Ready {
  manifest: LayerManifest
  layers: ZipEntry[]
  file: FileHandle
  source: Awaited<ReturnType<typeof fileSource>>['source']
}
/** Layers between two notes of how far it is, for after a power cut. */
const NOTE_EVERY = 20
const jobId = z.string().regex(/^[\w-]{1,80}$/)

/** A resin printer that is not there: it checks jobs, prints them in mind, and fails where they would fail. */
export async function simulatedPrinter(config: DeviceConfig): Promise<void> {
  const own = settings.parse(config)
  const figures: PrinterFigures = own
  const jobs = join(config.folder, 'jobs'),
    noted = join(config.folder, 'state.json')
  mkdirSync(jobs, { recursive: true })
  const pathOf = (id: string): string => join(jobs, `${id}.zip`)
  let speedUp = config.speedUp
  const now: Kept = kept<Kept>(noted) ?? {
    state: 'idle',
    why: null,
    job: null,
    layer: 0,
    layers: 0,
    seconds: 0,
    vat: own.filled,
    clear: true,
    runs: 0,
    seen: null,
  }
  if (now.state === 'printing' || now.state === 'paused') Object.assign(now, { state: 'interrupted', why: 'power' })
  // What was only in its memory is gone with the power: a job has to come again, and be checked again.
  if (now.state === 'receiving' || now.state === 'ready') Object.assign(now, { state: 'idle', job: null })
  const note = (change: Partial<Kept>): void => {
    Object.assign(now, change)
    keep(noted, now)
  }
  let print: Print | null = null,
    ready: Ready | null = null
  let status: (JobStatus & { id: string }) | null = null

  async function open(id: string): Promise<Ready | Problem> {
    const { source, file } = await fileSource(pathOf(id))
    const checked = await checkJob(source, figures)
    if (checked.ok) return { ...checked.value, source, file }
    await file.close()
    return checked.problem
  }

  async function run(from: number): Promise<void> {
    const r = ready!
    const luck = natureOf(config.seed, now.runs, own.exposure, r.layers.length)
    if (own.power !== undefined) luck.power = own.power
    if (own.lamp !== undefined) luck.lamp = own.lamp
    const p = new Print(r.source, r.manifest, r.layers, luck, now.vat, () => speedUp, {
      layer(layer, seconds, vat) {
        Object.assign(now, { layer, seconds, vat })
        if (layer % NOTE_EVERY === 0) note({})
      },
      paused: (why) => note({ state: 'paused', why }),
      power: () => {
        note({ state: 'interrupted', why: 'power' })
        void shell.dark(own.dark)
      },
    })
    print = p
    note({ state: 'printing', why: null, layers: r.layers.length, clear: false, seen: null })
    const ended = await p.run(from)
    print = null
    const { printed, meant, mishaps, losses } = p.result
    const grams = (printed / 1000) * r.manifest.resin.density
    note({ seen: { mishaps, losses, printed, meant, layers: now.layer, grams } })
    if (!ended && now.state === 'interrupted') return
    note({ state: ended ? 'finished' : 'stopped', why: ended ? null : 'asked' })
    await r.file.close()
    ready = null
  }

  const routes = Router()
  routes.get('/device', (_req, res) => {
    const { pixels, pitch, height, vat } = own
    res.json({ kind: 'printer', serial: config.serial, name: config.name, standIn: true, pixels, pitch, height, vat })
  })
  routes.get('/state', (_req, res) => {
    const m = ready?.manifest
    res.json({
      state: now.state,
      why: now.why,
      job: now.job,
      layer: now.layer,
      layers: now.layers,
      seconds: now.seconds,
      left: m ? plannedSeconds(m, now.layer, m.layers) : 0,
      // Resin warms by light and motion to a few degrees over the room.
      temperature: 21 + 6 * (1 - Math.exp(-now.seconds / 3600)),
      vat: now.vat,
      clear: now.clear,
      speedUp,
    } satisfies PrinterState)
  })
  routes.get('/jobs/:id', (req, res) => {
    const id = jobId.parse(req.params.id)
    if (status?.id !== id) throw new Refusal(404, 'no-such-job', message('refusals.printer.thePrinterHasNoSuch'))
    const { received, total, ready: checked, problem } = status
    res.json({ received, total, ready: checked, problem } satisfies JobStatus)
  })
  routes.put('/jobs/:id', (req, res, next) => {
    void (async () => {
      const id = jobId.parse(req.params.id)
      if (now.state === 'printing' || now.state === 'paused' || now.state === 'interrupted')
        throw new Refusal(409, 'busy', message('refusals.printer.isPrintingWaitUntilIt', { name: config.name }))
      const range = /^bytes (\d+)-\d+\/(\d+)$/.exec(req.headers['content-range'] ?? '')
      const from = range ? Number(range[1]) : 0,
        total = range ? Number(range[2]) : Number(req.headers['content-length'] ?? 0)
      if (!(total > 0) || total > MAX_JOB)
        throw new Refusal(411, 'job-size', message('refusals.printer.sayHowLongTheJob'))
      if (from === 0) {
        // One job at a time: what came before makes room.
        if (status) rmSync(pathOf(status.id), { force: true })
        await ready?.file.close()
        ready = null
        status = { id, received: 0, total, ready: null, problem: null }
      } else if (status?.id !== id || status.received !== from || status.total !== total)
        throw new Refusal(409, 'job-elsewhere', message('refusals.printer.theJobHasComeTo'), {
          received: status?.id === id ? status.received : 0,
        })
      const mine = status
      note({ state: 'receiving', job: id, layer: 0, layers: 0, seconds: 0, why: null })
      req.on('data', (c: Buffer) => (mine.received += c.length))
      try {
        await receive(pathOf(id), from, total, req)
      } finally {
        // What was under way when the line broke may not have got to the disk.
        mine.received = Math.min(mine.received, statSync(pathOf(id)).size)
        if (mine === status) note({ state: 'idle' })
      }
      if (mine.received < total) {
        res.status(202).json({ ...mine, id: undefined })
        return
      }
      const opened = await open(id)
      if ('code' in opened) {
        mine.problem = { code: opened.code, message: say(opened.message) }
        throw new Refusal(422, opened.code, opened.message)
      }
      ready = opened
      const m = opened.manifest
      mine.ready = { layers: m.layers, seconds: plannedSeconds(m, 0, m.layers), millilitres: m.resin.millilitres }
      note({ state: 'ready', layers: m.layers })
      res.json({ received: mine.received, total, ready: mine.ready, problem: null } satisfies JobStatus)
    })().catch(next)
  })
  routes.post('/jobs/:id/start', (req, res, next) => {
    void (async () => {
      const id = jobId.parse(req.params.id)
      if (now.state === 'interrupted' && now.job === id && !print) {
        // A machine that was switched off has the job still, and knows where it was.
        if (!ready) {
          const opened = await open(id)
          if ('code' in opened) throw new Refusal(422, opened.code, opened.message)
          ready = opened
        }
        void run(now.layer)
      } else {
        if (print) throw new Refusal(409, 'busy', message('refusals.printer.isPrintingAlready', { name: config.name }))
        if (!ready || now.job !== id)
          throw new Refusal(409, 'no-such-job', message('refusals.printer.thePrinterHasNoSuch2'))
        if (!now.clear)
          throw new Refusal(409, 'plate-full', message('refusals.printer.theLastPrintIsStill', { name: config.name }))
        if (now.vat < VAT_FLOOR)
          throw new Refusal(409, 'no-resin', message('refusals.printer.thereIsNoResinIn', { name: config.name }))
        note({ runs: now.runs + 1, layer: 0, seconds: 0 })
        void run(0)
      }
      res.status(204).end()
    })().catch(next)
  })
  const command = (path: string, act: (print: Print) => void): void => {
    routes.post(path, (_req, res) => {
      if (!print)
        throw new Refusal(409, 'not-printing', message('refusals.printer.isNotPrinting', { name: config.name }))
      act(print)
      res.status(204).end()
    })
  }
  command('/pause', (p) => p.pause('asked'))
  command('/resume', (p) => {
    if (now.vat < VAT_FLOOR)
      throw new Refusal(409, 'no-resin', message('refusals.printer.thereIsNoResinIn2', { name: config.name }))
    note({ state: 'printing', why: null })
    p.resume()
  })
  routes.post('/stop', (_req, res) => {
    if (print) print.stop()
    else if (now.state === 'interrupted') note({ state: 'stopped', why: 'asked' })
    else if (now.state === 'ready' || now.state === 'receiving') note({ state: 'idle', job: null })
    res.status(204).end()
  })
  routes.post('/refill', express.json(), (req, res) => {
    const ml = Math.min(z.object({ ml: z.number().gt(0).max(10_000) }).parse(req.body).ml, own.vat - now.vat)
    note({ vat: now.vat + ml })
    print?.refill(ml)
    res.status(204).end()
  })
  routes.post('/clear', (_req, res) => {
    if (print) throw new Refusal(409, 'busy', message('refusals.printer.isPrinting', { name: config.name }))
    note({ clear: true, state: 'idle', job: null })
    res.status(204).end()
  })
  routes.post('/settings', express.json(), (req, res) => {
    speedUp = z.object({ speedUp: z.number().gt(0).max(1e6) }).parse(req.body).speedUp
    res.status(204).end()
  })
  routes.get('/jobs/:id/plate', (req, res) => {
    if (now.job !== req.params.id || !now.seen)
      throw new Refusal(404, 'no-plate', message('refusals.printer.thereIsNoFinishedPrint'))
    res.json(now.seen)
  })
  const shell = new Shell(config.port, routes)
  await shell.up()
}
