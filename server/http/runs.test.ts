/* eslint-disable @typescript-eslint/no-explicit-any -- replies are read loosely on purpose: their schemas are the server's */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { slicedResin } from '../../contract/stock'
import { meshFromBytes } from '../../core/formats/meshBytes'
import { writeStl } from '../../core/formats/stl'
import { concatenate, type Mesh } from '../../core/mesh/mesh'
import { measure } from '../../core/mesh/measure'
import { boxBody, cylinderBody, sphereBody } from '../../core/testBodies'
import { identity3 } from '../../core/math/vectors'
import { transformed } from '../../core/mesh/transform'
import { LayerMaker } from '../../core/print/slice/layerMaker'
import { subtract } from '../../core/shape/solid'
import type { Job } from '../devices/adapter'
import { overHttp } from '../devices/overHttp'
import { TestServer, until } from '../testServer'
import { say } from '../../core/words/say'

/** Plates sent to stand-in printers, printed, looked at and judged; with the real processes, some of them killed. */
const PANEL = { pixels: [400, 300], pitch: [0.1, 0.1], height: 60 }
const printerStock = {
  name: 'Test panel',
  pixelsX: 400,
  pixelsY: 300,
  pitchX: 0.1,
  pitchY: 0.1,
  height: 60,
  layerHeight: 0.1,
}
const motion = { liftTime: 3.2, retractTime: 2.4, restTime: 1, bottomLayers: 5 }
let at: TestServer, folder: string, printerId: string, resinId: string
const call = (...asked: Parameters<TestServer['ask']>): Promise<any> => at.ask(...asked)
let made = 0
async function device(more: object = {}, port?: number): ReturnType<TestServer['device']> {
  const serial = (more as { serial?: string }).serial ?? `d${++made}`
  const config = {
    kind: 'printer',
    serial,
    name: serial,
    folder: join(folder, serial),
    ...PANEL,
    vat: 500,
    filled: 300,
  }
  const d = await at.device({ power: null, lamp: null, dark: 300, ...config, ...more }, port)
  await call('POST', '/devices', { address: d.address })
  return d
}
async function sliced(mesh: string, printer: object = printerStock): Promise<any> {
  const stock = (await call('GET', '/stock')).find((s: any) => s.id === resinId)
  const resin = slicedResin.parse(stock.data)
  let d = await call('POST', '/checks', { mesh, check: { kind: 'slice', printer, resin } })
  d = await until(async () => {
    const now = await call('GET', `/derivations/${d.key}`)
    return now.status === 'done' && now
  })
  return d
}
/** A run of one plate with a body that stands as it came. */
async function runOf(
  name: string,
  body: Mesh,
  printer: object = printerStock,
): Promise<{ run: any; slice: any; piece: string }> {
  const piece = await at.pieceOf(name, writeStl(body))
  await at.operate(piece, [{ kind: 'orient', quaternion: [0, 0, 0, 1] }])
  const part = await at.derived(piece)
  const slice = await sliced(part.meshHash, printer)
  const plate = {
    printerId,
    sliceKey: slice.key,
    parts: [{ partId: part.id, name, copy: 0, mesh: part.meshHash, x: 0, y: 0, angle: 0 }],
  }
  return { run: await call('POST', `/pieces/${piece}/runs`, { resinId, lot: 'L7', plates: [plate] }), slice, piece }
}
const plateNow = async (piece: string, n = 0): Promise<any> => (await call('GET', `/pieces/${piece}/runs`))[0].plates[n]
const reaches = (piece: string, ok: (p: any) => boolean): Promise<any> =>
  until(async () => {
    const p = await plateNow(piece)
    return ok(p) && p
  }, 60)
const island = concatenate([boxBody(8, 8, 14), transformed(sphereBody(3, 3), identity3, [14, 4, 9])])

describe('print runs', () => {
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'devices-'))
    at = await TestServer.start()
    printerId = (await call('POST', '/stock/printer', printerStock)).id
    resinId = (await call('POST', '/stock/resin', { name: 'Test resin', density: 1.1 })).id
  })
  afterAll(async () => {
    await at?.stop()
    rmSync(folder, { recursive: true, force: true })
  })

  it('fails at the layer that was predicted, is looked at, blamed on the island, weighed and judged', async () => {
    await device({ serial: 'able' })
    await device({ kind: 'scale', serial: 'balance', division: 0.01, noise: 0.02 })
    const { run, slice, piece } = await runOf('Island', island)
    expect(slice.report.islands).toHaveLength(1)
    // Made in threads or here, a layer is the same to the byte.
    const body = meshFromBytes(await at.bytes(`/blobs/${run.plates[0].parts[0].mesh}`))
    const maker = new LayerMaker((body as { value: Mesh }).value, { ...printerStock, ...motion })
    for (const i of [0, 70, 139])
      expect(Buffer.compare(maker.make(i).png, await at.bytes(`/layers/${run.plates[0].archive}/${i}`))).toBe(0)
    await call('POST', `/plates/${run.plates[0].id}/send`, { device: 'able' })
    const plate = await reaches(piece, (p) => p.state === 'ended')
    expect(plate).toMatchObject({ device: 'able', problem: null, stops: [] })
    expect(plate.progress).toMatchObject({ layer: slice.report.layers, lostAt: null })
    const seen = await call('POST', `/plates/${plate.id}/look`)
    expect(seen.outcomes).toMatchObject([{ result: 'failed' }])
    expect(seen.marks).toHaveLength(1)
    const [mark] = seen.marks
    expect(mark.kind).toBe('missing')
    expect(Math.round(mark.point[2] / 0.1)).toBe(slice.report.islands[0].layer)
    const causes = await call('POST', `/plates/${plate.id}/causes`, mark)
    expect(causes[0].kind).toBe('island')
    expect(causes[0].change.point[0]).toBeCloseTo(slice.report.islands[0].x, 3)
    // What hangs is the box alone; the scale shows it to its noise.
    await call('POST', '/devices/balance/commands', { do: 'load', grams: seen.grams })
    const { grams } = (await call('POST', '/devices/balance/commands', { do: 'state' })).state
    expect(Math.abs(grams - (8 * 8 * 14 * 1.1) / 1000)).toBeLessThan(0.1)
    const judged = { version: plate.version, outcomes: seen.outcomes, marks: seen.marks, weighed: grams }
    await call('PUT', `/plates/${plate.id}/judgement`, judged)
    await call('PUT', `/plates/${plate.id}/judgement`, judged, 409)
    const clean = await call('GET', `/plates/${plate.id}/cleaning`)
    expect(clean.steps.map((s: any) => s.key)).toEqual(['drain', 'wash', 'rinse', 'dry', 'cure', 'feel'])
    const tick = (done: boolean): Promise<any> => call('PUT', `/plates/${plate.id}/cleaning`, { key: 'wash', done })
    const inBath = async (): Promise<number> => (await call('GET', '/workshop')).baths.first.resin
    // Ticked by two at once, the wash puts its resin into the bath once; taken back, it is out again.
    await Promise.all([tick(true), tick(true)])
    expect(await inBath()).toBeCloseTo(clean.first, 9)
    await tick(false)
    expect(await inBath()).toBeCloseTo(0, 9)
    const record = await call('GET', '/record')
    expect(record.rates.find((r: any) => r.by === 'resin')).toMatchObject({ what: 'Test resin', parts: 1, good: 0 })
    expect(record.times[0].prints).toBe(1)
    expect(record.times[0].after).toBeLessThan(record.times[0].before)
  })

  it('tears an unvented cup at the layer that was predicted', async () => {
    const cup = await subtract(cylinderBody(9, 12, 96), [transformed(cylinderBody(8, 12, 96), identity3, [0, 0, 2])])
    if (!cup.ok) throw new Error(say(cup.problem.message))
    await device({ serial: 'baker' })
    const { run, slice, piece } = await runOf('Cup', cup.value)
    await call('POST', `/plates/${run.plates[0].id}/send`, { device: 'baker' })
    const plate = await reaches(piece, (p) => p.state === 'ended')
    const seen = await call('POST', `/plates/${plate.id}/look`)
    const torn = seen.marks.find((m: any) => m.kind === 'torn')
    // A quarter of a millimetre after it closes: in its third layer.
    expect(Math.round(torn.point[2] / 0.1) - slice.report.cups[0].firstLayer).toBe(2)
    expect((await call('POST', `/plates/${plate.id}/causes`, torn))[0].kind).toBe('cup')
  })

  it('gives a printer to one of two who press at the same moment, and a plate to one printer', async () => {
    await device({ serial: 'charlie', speedUp: 60 })
    await device({ serial: 'delta', speedUp: 60 })
    const [a, b] = [await runOf('One', boxBody(5, 5, 12)), await runOf('Two', boxBody(5, 6, 12))]
    const ask = (p: string, device: string) => at.call('POST', `/plates/${p}/send`, { device })
    const both = await Promise.all([ask(a.run.plates[0].id, 'charlie'), ask(b.run.plates[0].id, 'charlie')])
    expect(both.map((r) => r.status).sort()).toEqual([200, 409])
    expect(both.find((r) => r.status === 409)!.body.type).toBe('urn:undercut:printer-busy')
    const first = both[0]!.status === 200 ? a : b
    const again = await ask(first.run.plates[0].id, 'delta')
    expect([again.status, again.body.type]).toEqual([409, 'urn:undercut:plate-begun'])
    await reaches(first.piece, (p) => p.progress.state === 'printing' && p.progress.layer > 0)
    await call('POST', `/plates/${first.run.plates[0].id}/commands`, { do: 'pause' })
    await reaches(first.piece, (p) => p.progress.state === 'paused')
    await call('POST', `/plates/${first.run.plates[0].id}/commands`, { do: 'stop' })
    const ended = await reaches(first.piece, (p) => p.state === 'ended')
    expect(ended.progress.layer).toBeLessThan(ended.layers)
    expect(ended.stops).toHaveLength(1)
  })

  it('comes back with the printer’s own words when it refuses: pixels, height, no resin, plate not cleared', async () => {
    await device({ serial: 'echo', pixels: [410, 300] })
    await device({ serial: 'foxtrot', height: 10 })
    await device({ serial: 'golf', filled: 3 })
    const { run, piece } = await runOf('Refused', boxBody(6, 6, 13))
    const refusedBy = async (device: string, words: RegExp): Promise<void> => {
      await call('POST', `/plates/${run.plates[0].id}/send`, { device })
      const p = await reaches(piece, (q) => q.state === 'planned' && q.problem !== null)
      expect(p.problem).toMatch(words)
      expect(p.device).toBeNull()
    }
    await refusedBy('echo', /sliced for 400 × 300 pixels; this printer has 410 × 300/)
    await refusedBy('foxtrot', /13\.0 mm tall; this printer ends at 10 mm/)
    await refusedBy('golf', /no resin in golf’s vat/)
    await call('POST', '/devices/golf/commands', { do: 'refill', ml: 200 })
    await call('POST', `/plates/${run.plates[0].id}/send`, { device: 'golf' })
    await reaches(piece, (p) => p.state === 'ended')
    const next = await runOf('Next', boxBody(6, 7, 8))
    await call('POST', `/plates/${next.run.plates[0].id}/send`, { device: 'golf' })
    const p = await reaches(next.piece, (q) => q.state === 'planned' && q.problem !== null)
    expect(p.problem).toMatch(/last print is still in/)
  })

  it('stands still when the vat runs empty, and goes on once it is filled', async () => {
    await device({ serial: 'hotel', filled: 15.2 })
    const { run, piece } = await runOf('Thirsty', boxBody(8, 8, 14))
    await call('POST', `/plates/${run.plates[0].id}/send`, { device: 'hotel' })
    await reaches(piece, (p) => p.progress.why === 'vat-empty')
    await call('POST', `/plates/${run.plates[0].id}/commands`, { do: 'resume' }, 409)
    await call('POST', '/devices/hotel/commands', { do: 'refill', ml: 100 })
    await call('POST', `/plates/${run.plates[0].id}/commands`, { do: 'resume' })
    const p = await reaches(piece, (q) => q.state === 'ended')
    expect(p.stops).toMatchObject([{ why: 'vat-empty' }])
  })

  it('goes on after the printer was switched off, the line was cut and the worker killed, and loses nothing', async () => {
    const d = await device({ serial: 'india', speedUp: 200 })
    const { run, piece, slice } = await runOf('Storm', island)
    await call('POST', `/plates/${run.plates[0].id}/send`, { device: 'india' })
    await reaches(piece, (p) => p.progress.layer > 30)
    await at.kill(d.child)
    await reaches(piece, (p) => p.progress.lostAt !== null)
    const gone = await at.call('POST', `/plates/${run.plates[0].id}/commands`, { do: 'pause' })
    expect([gone.status, gone.body.type]).toEqual([503, 'urn:undercut:device-offline'])
    await at.killWorker()
    await device({ serial: 'india', speedUp: 2000 }, Number(new URL(d.address).port))
    await at.startWorker()
    await reaches(piece, (p) => p.progress.state === 'interrupted' && p.progress.lostAt === null)
    await call('POST', `/plates/${run.plates[0].id}/commands`, { do: 'resume' })
    const p = await reaches(piece, (q) => q.state === 'ended')
    expect(p.stops).toMatchObject([{ why: 'power' }])
    const seen = await call('POST', `/plates/${p.id}/look`)
    // The whole story from layer one: the island that had dropped before the cut is missing still.
    expect(seen.layers).toBe(slice.report.layers)
    expect(seen.marks.map((m: any) => m.kind)).toEqual(['missing'])
    const box = measure(boxBody(8, 8, 14)).volume
    expect(seen.grams / ((box * 1.1) / 1000)).toBeCloseTo(1, 1)
  })

  it('a plate asked back while the printer is away is planned again, and a run at work is not binned', async () => {
    const d = await device({ serial: 'juliet' })
    await at.kill(d.child)
    const { run, piece } = await runOf('Patience', boxBody(5, 8, 9))
    await call('POST', `/plates/${run.plates[0].id}/send`, { device: 'juliet' })
    await reaches(piece, (p) => p.progress.lostAt !== null)
    await call('DELETE', `/runs/${run.id}`, undefined, 409)
    await call('POST', `/plates/${run.plates[0].id}/commands`, { do: 'stop' })
    expect(await plateNow(piece)).toMatchObject({ state: 'planned', device: null })
    await call('DELETE', `/runs/${run.id}`, undefined, 204)
    expect((await at.call('POST', '/devices', { address: 'http://10.0.0.1:80' })).status).toBe(422)
  })

  it('printed by hand, all of it counts as printed when somebody says so, and its resin is gone from the shelf', async () => {
    const { run, piece } = await runOf('By hand', boxBody(6, 6, 4))
    const [plate] = run.plates
    const shelf = async (): Promise<any> => (await call('GET', '/stock')).find((s: any) => s.id === resinId)
    const { version, data } = await shelf()
    await call('PUT', `/stock/resin/${resinId}`, { version, data: { ...data, level: 500 } })
    await call('POST', `/plates/${plate.id}/send`, { device: null })
    expect(await plateNow(piece)).toMatchObject({ state: 'printing', device: null })
    await call('POST', `/plates/${plate.id}/commands`, { do: 'pause' }, 409)
    await call('POST', `/plates/${plate.id}/commands`, { do: 'stop' })
    const ended = await plateNow(piece)
    expect(ended).toMatchObject({ state: 'ended', progress: { layer: plate.layers } })
    expect((await shelf()).data.level).toBeCloseTo(500 - ended.estimate.millilitres, 6)
    await call('PUT', `/stock/resin/${resinId}`, { version: (await shelf()).version, data })
  })

  it('a job is gone on with from where the line broke, and one that was not begun is lost with the power', async () => {
    const d = await device({ serial: 'kilo' })
    const { run } = await runOf('Half sent', boxBody(7, 5, 9))
    const bytes = await at.bytes(`/blobs/${run.plates[0].archive}`),
      half = bytes.length >> 1
    const put = (from: number, part: Uint8Array): Promise<Response> =>
      fetch(`${d.address}/jobs/half`, {
        method: 'PUT',
        headers: { 'content-range': `bytes ${from}-${from + part.length - 1}/${bytes.length}` },
        body: Buffer.from(part),
      })
    expect((await put(0, bytes.subarray(0, half))).status).toBe(202)
    expect((await put(half + 5, bytes.subarray(half + 5))).status).toBe(409)
    const asked: number[] = []
    const job: Job = {
      id: 'half',
      size: bytes.length,
      read: async function* (from) {
        asked.push(from)
        yield bytes.subarray(from)
      },
    }
    const status = await overHttp.send(d, job, () => undefined, new AbortController().signal)
    expect(asked).toEqual([half])
    expect(status).toMatchObject({ received: bytes.length, problem: null, ready: { layers: 90 } })
    // Sent again it is there already.
    await overHttp.send(d, job, () => undefined, new AbortController().signal)
    expect(asked).toEqual([half])
    await at.kill(d.child)
    await device({ serial: 'kilo' }, Number(new URL(d.address).port))
    expect(await overHttp.state(d)).toMatchObject({ state: 'idle', job: null, vat: 300 })
    await expect(overHttp.start(d, { job: 'half' })).rejects.toMatchObject({ kind: 'refused', code: 'no-such-job' })
    // A page of some site gets nowhere.
    const page = await fetch(`${d.address}/state`, { headers: { origin: 'http://elsewhere.example' } })
    expect(page.status).toBe(403)
  })
})
