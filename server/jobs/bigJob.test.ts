/* eslint-disable @typescript-eslint/no-explicit-any -- replies are read loosely on purpose: their schemas are the server's */
import { Zip, ZipPassThrough } from 'fflate'
import { request } from 'node:http'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { crc32 } from '../../core/formats/crc32'
import { manifest } from '../../core/print/slice/manifest'
import { writeStl } from '../../core/formats/stl'
import { LayerMaker } from '../../core/print/slice/layerMaker'
import { layerName, type SliceReport } from '../../core/print/slice/slice'
import { boxBody } from '../../core/testBodies'
import { identity3 } from '../../core/math/vectors'
import { transformed } from '../../core/mesh/transform'
import { TestServer, until } from '../testServer'

/** ms: the job goes through the database three times. */
const PATIENCE = { timeout: 900_000 }
const LAYERS = 480,
  /** bytes a layer; with BIG=1 the whole weighs more than a gigabyte */
  HEAVY = process.env.BIG ? 2_200_000 : 1_100_000
const printer = {
  name: 'Heavy',
  pixelsX: 300,
  pixelsY: 200,
  pitchX: 0.1,
  pitchY: 0.1,
  height: 60,
  layerHeight: 0.1,
  liftTime: 1,
  retractTime: 1,
  restTime: 1,
  bottomLayers: 4,
}
const resin = {
  name: 'r',
  density: 1.1,
  pricePerLitre: 30,
  exposure: 2.4,
  bottomExposure: 20,
  peelPressure: 12_000,
  greenStrength: 4.5e6,
  clear: false,
}
let at: TestServer, folder: string

/** A layer that weighs a megabyte or two and shows a square: the rest is a chunk that readers pass over. */
function heavyLayer(): Uint8Array {
  const { png } = new LayerMaker(transformed(boxBody(8, 8, 48), identity3, [-4, -4, 0]), printer).make(10)
  const chunk = new Uint8Array(12 + HEAVY)
  const view = new DataView(chunk.buffer)
  view.setUint32(0, HEAVY)
  chunk.set(new TextEncoder().encode('paDd'), 4)
  for (let i = 8; i < 8 + HEAVY; i++) chunk[i] = (i * 2654435761) >>> 13
  view.setUint32(8 + HEAVY, crc32(chunk, 4, 8 + HEAVY))
  const end = png.length - 12
  const out = new Uint8Array(png.length + chunk.length)
  out.set(png.subarray(0, end))
  out.set(chunk, end)
  out.set(png.subarray(end), end + chunk.length)
  return out
}

/** The archive as it comes, a layer at a time: the test holds no gigabyte either. */
async function* archive(report: SliceReport): AsyncGenerator<Uint8Array> {
  const chunks: Uint8Array[] = []
  const zip = new Zip((error, chunk) => {
    if (error) throw error
    chunks.push(chunk)
  })
  const add = (name: string, bytes: Uint8Array): void => {
    const entry = new ZipPassThrough(name)
    zip.add(entry)
    entry.push(bytes, true)
  }
  const layer = heavyLayer()
  for (let i = 0; i < LAYERS; i++) {
    add(layerName(i), layer.slice())
    yield* chunks.splice(0)
  }
  add('manifest.json', new TextEncoder().encode(JSON.stringify(manifest(printer, resin, report))))
  zip.end()
  yield* chunks
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'devices-'))
  at = await TestServer.start()
})
afterAll(async () => {
  await at?.stop()
  if (folder) rmSync(folder, { recursive: true, force: true })
})

it('takes a job in that is larger than its memory may be, looks into it, and has it printed', PATIENCE, async () => {
  const flat = (v: number): number[] => Array.from({ length: LAYERS }, () => v)
  const report: SliceReport = {
    layers: LAYERS,
    layerHeight: 0.1,
    pixels: [300, 200],
    seconds: 2500,
    resinMl: 3,
    resinCost: 1,
    areas: flat(64),
    perimeters: flat(32),
    peel: flat(0.8),
    islands: [],
    cups: [],
    suction: flat(0),
    brokenRows: 0,
    mended: null,
  }
  const stored = await new Promise<any>((done, fail) => {
    const req = request({ port: at.port, path: '/api/archives', method: 'POST' }, (res) => {
      let text = ''
      res.setEncoding('utf8').on('data', (t: string) => (text += t))
      res.on('end', () => done(JSON.parse(text)))
    })
    pipeline(Readable.from(archive(report)), req).catch(fail)
  })
  expect(stored.size).toBeGreaterThan(LAYERS * HEAVY)
  const looked = await until(async () => {
    const { body } = await at.call('POST', '/checks', { mesh: stored.hash, check: { kind: 'archive' } })
    return body.status === 'done' && body.report
  })
  expect(looked).toMatchObject({ layers: LAYERS, islands: [], mishaps: [] })
  expect(looked.volume / (8 * 8 * 48)).toBeCloseTo(1, 2)

  const printerId = (await at.call('POST', '/stock/printer', printer)).body.id,
    resinId = (await at.call('POST', '/stock/resin', resin)).body.id
  const piece = await at.pieceOf('Heavy', writeStl(boxBody(8, 8, 48)))
  const [part] = (await at.piece(piece)).partList
  // As though it had been sliced here: what a gigabyte of layers costs to slice is not the question.
  await at.db.query(
    `INSERT INTO derivation (key, kind, params, inputs, status, progress, blobs, report, updated_at)
     VALUES ('heavy', 'slice', $1, '[]', 'done', 1, $2, $3, now())`,
    [JSON.stringify({ printer, resin }), JSON.stringify({ zip: stored.hash }), JSON.stringify(report)],
  )
  const at0 = { partId: part.id, name: 'Heavy', copy: 0, mesh: part.meshHash, x: 0, y: 0, angle: 0 }
  const run = await at.call('POST', `/pieces/${piece}/runs`, {
    resinId,
    plates: [{ printerId, sliceKey: 'heavy', parts: [at0] }],
  })
  expect(run.status).toBe(200)
  const config = { kind: 'printer', serial: 'heavy', name: 'Heavy', vat: 500, filled: 300, power: null, lamp: null }
  const panel = { pixels: [300, 200], pitch: [0.1, 0.1], height: 60 }
  const device = await at.device({ ...config, ...panel, folder: join(folder, 'heavy') })
  await at.call('POST', '/devices', { address: device.address })
  await at.call('POST', `/plates/${run.body.plates[0].id}/send`, { device: 'heavy' })
  const plate = await until(async () => {
    const [p] = (await at.call('GET', `/pieces/${piece}/runs`)).body[0].plates
    return p.state === 'ended' && p
  }, 300)
  expect(plate.progress).toMatchObject({ layer: LAYERS, state: 'finished' })
  // Held whole, or twice over in pieces, it would be beyond.
  for (const bytes of at.peakMemory()) expect(bytes).toBeLessThan(Math.min(500e6, 0.9 * stored.size))
})
