import { request } from 'node:http'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeStl } from '../../core/formats/stl'
import { boxBody, sphereBody } from '../../core/testBodies'
import { TestServer, until } from '../testServer'
import { say } from '../../core/words/say'

/** What the API takes, keeps and refuses, asked of the real processes. */
let at: TestServer

/** A PNG of one pixel. */
const PIXEL = new Uint8Array(
  Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  ),
)

describe('the API', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(() => at?.stop())

  it('describes itself, and answers mistakes as problem details in a sentence', async () => {
    expect(Object.keys((await at.call('GET', '/openapi.json')).body.paths)).toEqual(
      expect.arrayContaining(['/api/pieces', '/api/parts/{id}/operations', '/api/checks']),
    )
    expect(await at.call('POST', '/pieces', { name: '  ' })).toMatchObject({
      status: 422,
      body: { field: 'name', detail: expect.stringContaining('Give the piece a name') },
    })
    expect((await at.call('GET', '/pieces/nonsense')).status).toBe(404)
    expect((await at.call('GET', '/nowhere')).status).toBe(404)
    expect(
      (
        await fetch(`http://127.0.0.1:${at.port}/api/pieces`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: '{oops',
        })
      ).status,
    ).toBe(400)
  })
  it('refuses an edit from a stale tab and shows what is there', async () => {
    const id = await at.newPiece('Two tabs')
    expect((await at.call('PATCH', `/pieces/${id}`, { version: 1, client: 'first' })).body).toMatchObject({
      version: 2,
      client: 'first',
      name: 'Two tabs',
    })
    expect(await at.call('PATCH', `/pieces/${id}`, { version: 1, client: 'second' })).toMatchObject({
      status: 409,
      body: { current: { client: 'first', version: 2 } },
    })
  })
  it('changes several parts at once or not at all, brings them back, and tries before it keeps', async () => {
    const id = await at.newPiece('Parts')
    await at.drop(id, 'box.stl', writeStl(boxBody(10, 10, 10)))
    interface Parts {
      partList: { id: string; version: number; name: string; meshHash: string; steps: { op: { kind: string } }[] }[]
    }
    const parts = async (): Promise<Parts['partList']> =>
      ((await at.call('GET', `/pieces/${id}`)).body as unknown as Parts).partList
    await until(async () => (await parts()).length === 1)
    const [box] = await parts()
    const half = (keep: string): object => ({ kind: 'cut', point: [5, 5, 5], normal: [0, 0, 1], keep })
    const arrange = (version: number): Promise<{ status: number; body: { created?: string[] } }> =>
      at.call('POST', `/pieces/${id}/arrange`, {
        changes: [{ id: box!.id, version, operations: [half('below')] }],
        create: [
          { name: 'upper', from: box!.id, operations: [half('above')] },
          { name: 'plinth', from: null, operations: [{ kind: 'base' }] },
        ],
      })
    expect((await arrange(box!.version + 5)).status).toBe(409)
    expect(await parts()).toHaveLength(1)
    const { created } = (await arrange(box!.version)).body
    expect(created).toHaveLength(2)
    await until(async () => new Set((await parts()).map((p) => p.meshHash)).size === 3)
    expect((await parts()).map((p) => p.name)).toEqual(['box', 'upper', 'plinth'])
    await at.call('POST', `/pieces/${id}/arrange`, { remove: created })
    expect(await parts()).toHaveLength(1)
    await at.call('POST', `/pieces/${id}/arrange`, { restore: [created![0]] })
    expect((await parts()).map((p) => p.name)).toEqual(['box', 'upper'])

    // A cut that misses, tried: a sentence, and no list is any different for it.
    const { body: tried } = await at.call('POST', '/trials', {
      mesh: box!.meshHash,
      op: { ...half('above'), point: [0, 0, 90] },
    })
    const key = (tried as unknown as { key: string }).key
    await until(async () => (await at.call('GET', `/derivations/${key}`)).body.status === 'failed')
    expect((await at.call('GET', `/derivations/${key}`)).body.problem).toMatchObject({ code: 'cut-misses' })
    expect((await parts()).flatMap((p) => p.steps.map((s) => s.op.kind))).toEqual(['cut', 'cut'])

    const unknown = { kind: 'join', mode: 'union', others: [{ part: 'x', mesh: 'a'.repeat(64) }] }
    const [now] = await parts()
    expect(
      await at.call('PUT', `/parts/${now!.id}/operations`, { version: now!.version, operations: [unknown] }),
    ).toMatchObject({ status: 422, body: { detail: expect.stringContaining('Choose it again') } })
  })
  it('takes the good files of a drop and says what is wrong with each bad one', async () => {
    const id = await at.newPiece('Mixed drop')
    await Promise.all([
      at.drop(id, 'good.stl', writeStl(sphereBody(10, 3))),
      at.drop(id, 'cut.stl', writeStl(sphereBody(10, 3)).slice(0, 700)),
      at.drop(id, 'letter.stl', new TextEncoder().encode('Dear museum')),
      at.drop(id, 'empty.obj', new Uint8Array(0)),
      at.drop(
        id,
        'two.obj',
        new TextEncoder().encode(
          'o a\nv 0 0 0\nv 9 0 0\nv 0 9 0\nf 1 2 3\no b\nv 0 0 5\nv 9 0 5\nv 0 9 5\nf -3 -2 -1\n',
        ),
      ),
    ])
    const p = await until(async () => {
      const x = await at.piece(id)
      return x.intakes.every((i: { status: string }) => i.status !== 'waiting') && x
    })
    expect(p.partList.map((x: { name: string }) => x.name).sort()).toEqual(['a', 'b', 'good'])
    const refused = p.intakes.filter((i: { status: string }) => i.status === 'refused')
    expect(refused).toHaveLength(3)
    for (const r of refused) expect(say(r.problem.message).startsWith(r.fileName)).toBe(true)
  })
  it('refuses two gigabytes at the announcement and keeps no half file of a broken upload', async () => {
    const id = await at.newPiece('Too large')
    const status = await new Promise((done) => {
      const r = request(
        {
          port: at.port,
          host: '127.0.0.1',
          method: 'POST',
          path: `/api/pieces/${id}/files?name=huge.stl`,
          headers: { 'content-length': 2_000_000_000, 'content-type': 'application/octet-stream' },
        },
        (res) => {
          done(res.statusCode)
          r.destroy()
        },
      )
      r.on('error', () => undefined)
      r.write('x')
    })
    expect(status).toBe(413)
    await new Promise<void>((done) => {
      const r = request({
        port: at.port,
        host: '127.0.0.1',
        method: 'POST',
        path: `/api/pieces/${id}/files?name=broken.stl`,
        headers: { 'content-length': 50_000_000, 'content-type': 'application/octet-stream' },
      })
      r.on('error', () => done())
      r.write(Buffer.alloc(9_000_000), () =>
        setTimeout(() => {
          r.destroy()
          done()
        }, 300),
      )
    })
    await until(
      async () =>
        (
          await at.db.query(
            'SELECT count(*)::int AS n FROM blob_chunk c WHERE NOT EXISTS (SELECT 1 FROM blob b WHERE b.id = c.id)',
          )
        ).rows[0].n === 0,
      20,
    )
    expect(await at.piece(id)).toMatchObject({ partList: [], intakes: [] })
  })
  it('stores a file of several chunks once, and gives it back byte for byte', async () => {
    const bytes = new Uint8Array(9_500_001).map((_, i) => (i * 31) ^ (i >> 8))
    const a = await at.call('POST', '/blobs', bytes),
      b = await at.call('POST', '/blobs', bytes)
    expect(a.body.hash).toBe(b.body.hash)
    expect(
      Buffer.from(await (await fetch(`http://127.0.0.1:${at.port}/api/blobs/${a.body.hash}`)).arrayBuffer()).equals(
        Buffer.from(bytes),
      ),
    ).toBe(true)
    expect(
      (
        await at.db.query('SELECT count(*)::int AS n FROM blob_chunk c JOIN blob b ON b.id = c.id WHERE b.hash = $1', [
          a.body.hash,
        ])
      ).rows[0].n,
    ).toBe(3)
  })
  it('schedules a plan on the bench hours, keeps ticks and the log with its photo, through a restart', async () => {
    const id = await at.pieceOf('Planned', writeStl(boxBody(30, 30, 30)))
    const { body: first } = await at.call('GET', `/pieces/${id}/plan`)
    expect(first.steps.length).toBeGreaterThan(6)
    expect(first.impossible).toEqual([])
    const photo = (await at.call('POST', '/blobs', PIXEL)).body.hash
    await at.call('PUT', `/pieces/${id}/ticks`, {
      stepKey: first.steps[0].key,
      doneAt: new Date().toISOString(),
    })
    await at.call('POST', `/pieces/${id}/log`, { stepKey: first.steps[0].key, text: 'Bath is getting tired.', photo })
    await at.killApi()
    await at.startApi()
    expect((await at.call('GET', `/pieces/${id}/plan`)).body.steps[0].doneAt).not.toBeNull()
    expect((await at.call('GET', `/pieces/${id}/log`)).body).toMatchObject([
      { text: 'Bath is getting tired.', photo, stepKey: first.steps[0].key },
    ])
  })
  it('tells every listener what changes, by way of the database', async () => {
    const heard: { type: string; id?: string }[] = []
    const quit = new AbortController()
    const reply = await fetch(`http://127.0.0.1:${at.port}/api/events`, { signal: quit.signal })
    expect(reply.headers.get('content-type')).toBe('text/event-stream')
    const reader = reply.body!.getReader()
    const listening = (async () => {
      for (let text = ''; ;) {
        const { done, value } = await reader.read()
        if (done) return
        text += new TextDecoder().decode(value)
        for (let end = text.indexOf('\n\n'); end >= 0; end = text.indexOf('\n\n')) {
          if (text.startsWith('data: ')) heard.push(JSON.parse(text.slice(6, end)))
          text = text.slice(end + 2)
        }
      }
    })().catch(() => undefined)
    await until(async () => heard.length === 1)
    expect(heard[0]).toEqual({ type: 'hello' })
    const id = await at.newPiece('Rumour')
    await until(async () => heard.some((c) => c.type === 'piece' && c.id === id), 10)
    // A change made by another process reaches this one too.
    await at.db.query('SELECT pg_notify($1, $2)', ['undercut', JSON.stringify({ type: 'stock' })])
    await until(async () => heard.some((c) => c.type === 'stock'), 10)
    quit.abort()
    await listening
  })
  it('slices into an archive whose layers it shows one by one, and knows it again', async () => {
    const id = await at.pieceOf('Sliced', writeStl(sphereBody(8, 4, [0, 0, 8])))
    const mesh = (await at.piece(id)).partList[0].sculptMesh
    const printer = {
      name: 'P',
      pixelsX: 400,
      pixelsY: 300,
      pitchX: 0.08,
      pitchY: 0.08,
      height: 60,
      layerHeight: 0.2,
    }
    const question = { mesh, check: { kind: 'slice', printer, resin: { name: 'R' } } }
    expect((await at.call('POST', '/checks/known', question)).body).toBeNull()
    const sliced = await until(async () => {
      const d = (await at.call('POST', '/checks', question)).body
      return d.status === 'done' && d
    })
    expect((await at.call('POST', '/checks/known', question)).body.key).toBe(sliced.key)
    const zip = unzipSync(await at.bytes(`/blobs/${sliced.blobs.zip}`))
    const layers = Object.keys(zip)
      .filter((n) => n.endsWith('.png'))
      .sort()
    expect(layers).toHaveLength(80)
    expect(JSON.parse(new TextDecoder().decode(zip['manifest.json'])).layers).toBe(80)
    for (const i of [0, 40, 79]) {
      const one = await fetch(`http://127.0.0.1:${at.port}/api/layers/${sliced.blobs.zip}/${i}`)
      expect(Buffer.from(await one.arrayBuffer()).equals(Buffer.from(zip[layers[i]!]!))).toBe(true)
    }
    expect((await fetch(`http://127.0.0.1:${at.port}/api/layers/${sliced.blobs.zip}/80`)).status).toBe(404)
    expect((await fetch(`http://127.0.0.1:${at.port}/api/layers/${mesh}/0`)).status).toBe(404)
  })
  it('gives each part its own label map, and takes a scheme of the first kind over into that', async () => {
    const id = await at.pieceOf('Labelled', writeStl(boxBody(10, 10, 10)))
    const part = (await at.piece(id)).partList[0].id
    const hash = 'ab'.repeat(32)
    const old = {
      regions: [
        { id: 0, name: 'Coat', target: null, area: 12.5 },
        { id: 1, name: 'Face', target: '#aa8866', area: null },
      ],
      coats: [],
      labels: hash,
      meshHash: hash,
    }
    await at.db.query('INSERT INTO scheme (piece_id, data, version) VALUES ($1, $2, 3)', [id, JSON.stringify(old)])
    const { up: forward, down: back } = await import('../data/migrations/002-maps-by-part')
    // The migrations speak to a query interface; only its raw query is used.
    const lens = { sequelize: { query: (sql: string) => at.db.query(sql) } } as never
    await forward(lens)
    await forward(lens)
    const scheme = (await at.call('GET', `/pieces/${id}/scheme`)).body
    expect(scheme).toMatchObject({
      version: 3,
      regions: [
        { id: 0, name: 'Coat' },
        { id: 1, name: 'Face', target: '#aa8866' },
      ],
      maps: [{ partId: part, labels: hash, meshHash: hash, areas: { 0: 12.5 } }],
    })
    await back(lens)
    expect((await at.db.query('SELECT data FROM scheme WHERE piece_id = $1', [id])).rows[0].data).toMatchObject({
      labels: hash,
      meshHash: hash,
      regions: [{ area: 12.5 }, { id: 1 }],
    })
    await forward(lens)
    const next = {
      ...scheme,
      maps: [...scheme.maps, { partId: crypto.randomUUID(), labels: hash, meshHash: hash, areas: { 1: 4 } }],
    }
    expect((await at.call('PUT', `/pieces/${id}/scheme`, next)).body).toMatchObject({ version: 4 })
    expect((await at.call('PUT', `/pieces/${id}/scheme`, next)).status).toBe(409)
  })
  it('takes the change stream up again when the database drops the connection, and tells browsers to look again', async () => {
    const quit = new AbortController()
    const reader = (await fetch(`http://127.0.0.1:${at.port}/api/events`, { signal: quit.signal })).body!.getReader()
    let heard = ''
    const listening = (async () => {
      for (;;) {
        const { done, value } = await reader.read()
        if (done) return
        heard += new TextDecoder().decode(value)
      }
    })().catch(() => undefined)
    await until(async () => heard.includes('hello'))
    const { rows } = await at.db.query(
      "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query = 'LISTEN undercut' AND datname = current_database()",
    )
    expect(rows).toHaveLength(1)
    await until(async () => heard.split('hello').length === 3, 20)
    const id = await at.newPiece('After the break')
    await until(async () => heard.includes(id), 20)
    quit.abort()
    await listening
  })
  it('keeps stock by version, and refuses what a printer or paint cannot be', async () => {
    const printer = {
      name: 'Tern',
      pixelsX: 100,
      pixelsY: 100,
      pitchX: 0.05,
      pitchY: 0.05,
      height: 90,
      layerHeight: 0.05,
    }
    expect(await at.call('POST', '/stock/printer', { ...printer, height: -1 })).toMatchObject({
      status: 422,
      body: { field: 'height' },
    })
    const { body } = await at.call('POST', '/stock/printer', printer)
    expect(
      (await at.call('PUT', `/stock/printer/${body.id}`, { version: 1, data: { ...printer, height: 120 } })).status,
    ).toBe(200)
    expect((await at.call('PUT', `/stock/printer/${body.id}`, { version: 1, data: printer })).status).toBe(409)
    const listed = (await at.call('GET', '/stock')).body.find((s: { id: string }) => s.id === body.id)
    expect(listed).toMatchObject({ version: 2, data: { height: 120 } })
    expect((await at.call('POST', '/stock/spoon', {})).status).toBeGreaterThanOrEqual(400)
  })
})
