import { spawn, type ChildProcess } from 'node:child_process'
import { request } from 'node:http'
import { createServer } from 'node:net'
import { fileURLToPath } from 'node:url'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { meshFromBytes } from '../core/formats/meshBytes'
import { writeStl } from '../core/formats/stl'
import { acceptedAsSolid } from '../core/shape/solid'
import { boxBody, sphereBody } from '../core/testBodies'
import { derivationKey } from './derivations'

/** The real processes against a real database; `npm test` provides one in DATABASE_URL. */
const url = process.env.DATABASE_URL
const node = (name: string): string => fileURLToPath(new URL(`../dist/node/${name}.mjs`, import.meta.url))
let port = 0, api: ChildProcess, worker: ChildProcess, db: pg.Client

const up = (name: string, ready: string): Promise<ChildProcess> => new Promise((done, fail) => {
  const child = spawn(process.execPath, [node(name)], { env: { ...process.env, PORT: String(port) }, stdio: ['ignore', 'pipe', 'inherit'] })
  child.stdout!.setEncoding('utf8').on('data', (t: string) => { if (t.includes(ready)) done(child) })
  child.once('exit', (code) => fail(new Error(`${name} ended with ${code}`)))
})
async function call(method: string, path: string, body?: unknown): Promise<{ status: number; body: any }> { // eslint-disable-line @typescript-eslint/no-explicit-any
  const raw = body instanceof Uint8Array
  const r = await fetch(`http://127.0.0.1:${port}/api${path}`, { method, headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' }, body: raw ? Buffer.from(body) : body === undefined ? undefined : JSON.stringify(body) })
  const text = await r.text()
  return { status: r.status, body: text ? JSON.parse(text) : undefined }
}
async function until<T>(ask: () => Promise<T | null | undefined | false>, seconds = 120): Promise<T> {
  for (let i = 0; i < seconds * 5; i++) { const v = await ask(); if (v) return v; await new Promise((r) => setTimeout(r, 200)) }
  throw new Error('It did not come about in time.')
}
const newPiece = async (name: string): Promise<string> => (await call('POST', '/pieces', { name })).body.id as string
const drop = (piece: string, name: string, bytes: Uint8Array): ReturnType<typeof call> => call('POST', `/pieces/${piece}/files?name=${name}`, bytes)
const piece = async (id: string): Promise<any> => (await call('GET', `/pieces/${id}`)).body // eslint-disable-line @typescript-eslint/no-explicit-any
const operate = async (id: string, operations: object[]): Promise<ReturnType<typeof call>> => { const { partList: [p] } = await piece(id); return call('PUT', `/parts/${p.id}/operations`, { version: p.version, operations }) }
const derived = (id: string): Promise<any> => until(async () => { const p = (await piece(id)).partList[0]; return p.steps.every((s: any) => s.derivation && ['done', 'failed'].includes(s.derivation.status)) && p }) // eslint-disable-line @typescript-eslint/no-explicit-any

describe.skipIf(!url)('server', () => {
  beforeAll(async () => {
    port = await new Promise((done) => { const s = createServer(); s.listen(0, '127.0.0.1', () => { const p = (s.address() as { port: number }).port; s.close(() => done(p)) }) })
    api = await up('server', 'api ready')
    worker = await up('worker', 'worker ready')
    db = new pg.Client({ connectionString: url })
    await db.connect()
  })
  afterAll(async () => { await db?.end(); worker?.removeAllListeners('exit'); api?.removeAllListeners('exit'); worker?.kill('SIGKILL'); api?.kill('SIGKILL') })

  it('describes itself, and answers mistakes as problem details in a sentence', async () => {
    expect(Object.keys((await call('GET', '/openapi.json')).body.paths)).toEqual(expect.arrayContaining(['/api/pieces', '/api/parts/{id}/operations', '/api/checks']))
    expect(await call('POST', '/pieces', { name: '  ' })).toMatchObject({ status: 422, body: { field: 'name', detail: expect.stringContaining('Give the piece a name') } })
    expect((await call('GET', '/pieces/nonsense')).status).toBe(404)
    expect((await call('GET', '/nowhere')).status).toBe(404)
    expect((await fetch(`http://127.0.0.1:${port}/api/pieces`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{oops' })).status).toBe(400)
  })
  it('refuses an edit from a stale tab and shows what is there', async () => {
    const id = await newPiece('Two tabs')
    expect((await call('PATCH', `/pieces/${id}`, { version: 1, client: 'first' })).body).toMatchObject({ version: 2, client: 'first', name: 'Two tabs' })
    expect(await call('PATCH', `/pieces/${id}`, { version: 1, client: 'second' })).toMatchObject({ status: 409, body: { current: { client: 'first', version: 2 } } })
  })
  it('takes the good files of a drop and says what is wrong with each bad one', async () => {
    const id = await newPiece('Mixed drop')
    await Promise.all([drop(id, 'good.stl', writeStl(sphereBody(10, 3))), drop(id, 'cut.stl', writeStl(sphereBody(10, 3)).slice(0, 700)), drop(id, 'letter.stl', new TextEncoder().encode('Dear museum')), drop(id, 'empty.obj', new Uint8Array(0)), drop(id, 'two.obj', new TextEncoder().encode('o a\nv 0 0 0\nv 9 0 0\nv 0 9 0\nf 1 2 3\no b\nv 0 0 5\nv 9 0 5\nv 0 9 5\nf -3 -2 -1\n'))])
    const p = await until(async () => { const x = await piece(id); return x.intakes.every((i: { status: string }) => i.status !== 'waiting') && x })
    expect(p.partList.map((x: { name: string }) => x.name).sort()).toEqual(['a', 'b', 'good'])
    const refused = p.intakes.filter((i: { status: string }) => i.status === 'refused')
    expect(refused).toHaveLength(3)
    for (const r of refused) expect(r.problem.message.startsWith(r.fileName)).toBe(true)
  })
  it('refuses two gigabytes at the announcement and keeps no half file of a broken upload', async () => {
    const id = await newPiece('Too large')
    const status = await new Promise((done) => { const r = request({ port, host: '127.0.0.1', method: 'POST', path: `/api/pieces/${id}/files?name=huge.stl`, headers: { 'content-length': 2_000_000_000, 'content-type': 'application/octet-stream' } }, (res) => { done(res.statusCode); r.destroy() }); r.on('error', () => undefined); r.write('x') })
    expect(status).toBe(413)
    await new Promise<void>((done) => { const r = request({ port, host: '127.0.0.1', method: 'POST', path: `/api/pieces/${id}/files?name=broken.stl`, headers: { 'content-length': 50_000_000, 'content-type': 'application/octet-stream' } }); r.on('error', () => done()); r.write(Buffer.alloc(9_000_000), () => setTimeout(() => { r.destroy(); done() }, 300)) })
    await until(async () => (await db.query('SELECT count(*)::int AS n FROM blob_chunk c WHERE NOT EXISTS (SELECT 1 FROM blob b WHERE b.id = c.id)')).rows[0].n === 0, 20)
    expect(await piece(id)).toMatchObject({ partList: [], intakes: [] })
  })
  it('stores a file of several chunks once, and gives it back byte for byte', async () => {
    const bytes = new Uint8Array(9_500_001).map((_, i) => (i * 31) ^ (i >> 8))
    const a = await call('POST', '/blobs', bytes), b = await call('POST', '/blobs', bytes)
    expect(a.body.hash).toBe(b.body.hash)
    expect(Buffer.from(await (await fetch(`http://127.0.0.1:${port}/api/blobs/${a.body.hash}`)).arrayBuffer()).equals(Buffer.from(bytes))).toBe(true)
    expect((await db.query('SELECT count(*)::int AS n FROM blob_chunk c JOIN blob b ON b.id = c.id WHERE b.hash = $1', [a.body.hash])).rows[0].n).toBe(3)
  })
  it('derives a chain of operations, the same question only once, and recomputes what a change makes stale', async () => {
    const id = await newPiece('Chain')
    await drop(id, 'box.stl', writeStl(boxBody(30, 30, 30)))
    await until(async () => (await piece(id)).partList.length === 1)
    const hole = (x: number, y: number): object => ({ point: [x, y, 0], direction: [0, 0, 1], diameter: 4 })
    const chain = [{ kind: 'scale', factor: 1 }, { kind: 'hollow', wall: 2, voxel: 0.8 }, { kind: 'drill', holes: [hole(10, 10), hole(20, 20)] }]
    expect((await operate(id, chain)).status).toBe(200)
    const done = await derived(id)
    expect(done.steps.map((s: any) => s.derivation.status)).toEqual(['done', 'done', 'done']) // eslint-disable-line @typescript-eslint/no-explicit-any
    const solid = meshFromBytes(new Uint8Array(await (await fetch(`http://127.0.0.1:${port}/api/blobs/${done.meshHash}`)).arrayBuffer()))
    expect(solid.ok && (await acceptedAsSolid(solid.value))).toBe(true)
    const again = await newPiece('Same again')
    await drop(again, 'box.stl', writeStl(boxBody(30, 30, 30)))
    await until(async () => (await piece(again)).partList.length === 1)
    await operate(again, chain)
    // Nothing to compute: each step is known by its key.
    expect((await piece(again)).partList[0].meshHash).toBe(done.meshHash)
    await operate(id, [{ kind: 'scale', factor: 0.2 }, ...chain.slice(1)])
    const stale = await until(async () => { const p = (await piece(id)).partList[0]; return p.steps[1].derivation?.status === 'failed' && p })
    expect(stale.steps[1].derivation.problem.code).toBe('no-inside')
    expect(stale.steps[2].derivation).toBeNull()
    expect(derivationKey('scale', { b: 1, a: 2 }, ['x'])).toBe(derivationKey('scale', { a: 2, b: 1 }, ['x']))
  })
  it('loses nothing when the worker is killed in the middle of a job', async () => {
    const id = await newPiece('Killed')
    await drop(id, 'ball.stl', writeStl(sphereBody(40, 6)))
    await until(async () => (await piece(id)).partList.length === 1)
    await operate(id, [{ kind: 'hollow', wall: 2, voxel: 0.5 }])
    await until(async () => { const d = (await piece(id)).partList[0].steps[0].derivation; return d.status === 'running' && d.progress > 0 })
    worker.removeAllListeners('exit')
    worker.kill('SIGKILL')
    worker = await up('worker', 'worker ready')
    const done = await derived(id)
    expect(done.steps[0].derivation).toMatchObject({ status: 'done', problem: null })
    expect(done.steps[0].derivation.report.hollow.cavityVolume / ((4 / 3) * Math.PI * 38 ** 3)).toBeCloseTo(1, 1.5)
  })
  it('cancels, says so, and computes again when asked again', async () => {
    const id = await newPiece('Cancelled')
    await drop(id, 'ball.stl', writeStl(sphereBody(41, 6)))
    await until(async () => (await piece(id)).partList.length === 1)
    await operate(id, [{ kind: 'hollow', wall: 2, voxel: 0.5 }])
    const key = await until(async () => { const d = (await piece(id)).partList[0].steps[0].derivation; return d.status === 'running' && d.key as string })
    await call('POST', `/derivations/${key}/cancel`)
    await until(async () => (await call('GET', `/derivations/${key}`)).body.problem?.code === 'cancelled', 20)
    await call('POST', `/derivations/${key}/retry`)
    await until(async () => (await call('GET', `/derivations/${key}`)).body.status === 'done')
  })
  it('lays a plan on the bench hours, keeps ticks and the log with its photo, through a restart', async () => {
    const id = await newPiece('Planned')
    await drop(id, 'box.stl', writeStl(boxBody(30, 30, 30)))
    await until(async () => (await piece(id)).partList.length === 1)
    const { body: first } = await call('GET', `/pieces/${id}/plan`)
    expect(first.steps.length).toBeGreaterThan(6)
    expect(first.impossible).toEqual([])
    const photo = (await call('POST', '/blobs', new Uint8Array([0x89, 0x50, 0x4e, 0x47]))).body.hash
    await call('PUT', `/pieces/${id}/ticks`, { stepKey: first.steps[0].key, doneAt: new Date().toISOString(), timerUntil: null })
    await call('POST', `/pieces/${id}/log`, { stepKey: first.steps[0].key, text: 'Bath is getting tired.', photo })
    api.removeAllListeners('exit')
    api.kill('SIGKILL')
    api = await up('server', 'api ready')
    expect((await call('GET', `/pieces/${id}/plan`)).body.steps[0].doneAt).not.toBeNull()
    expect((await call('GET', `/pieces/${id}/log`)).body).toMatchObject([{ text: 'Bath is getting tired.', photo, stepKey: first.steps[0].key }])
  })
})
