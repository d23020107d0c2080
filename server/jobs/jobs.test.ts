/* eslint-disable @typescript-eslint/no-explicit-any -- replies are read loosely on purpose: their schemas are the server's */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { meshFromBytes } from '../../core/formats/meshBytes'
import { writeStl } from '../../core/formats/stl'
import { acceptedAsSolid } from '../../core/shape/solid'
import { boxBody, sphereBody } from '../../core/testBodies'
import { derivationKey } from './derivations'
import { TestServer, until } from '../testServer'

/** Derivations through deaths, cancels and changes of mind, with the real worker processes. */
let at: TestServer

describe('jobs', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(() => at?.stop())

  it('derives a chain of operations, the same question only once, and recomputes what a change makes stale', async () => {
    const id = await at.pieceOf('Chain', writeStl(boxBody(30, 30, 30)))
    const hole = (x: number, y: number): object => ({ point: [x, y, 0], direction: [0, 0, 1], diameter: 4 })
    const chain = [
      { kind: 'scale', factor: 1 },
      { kind: 'hollow', wall: 2, voxel: 0.8 },
      { kind: 'drill', holes: [hole(10, 10), hole(20, 20)] },
    ]
    expect((await at.operate(id, chain)).status).toBe(200)
    const done = await at.derived(id)
    expect(done.steps.map((s: any) => s.derivation.status)).toEqual(['done', 'done', 'done'])
    const solid = meshFromBytes(await at.bytes(`/blobs/${done.meshHash}`))
    expect(solid.ok && (await acceptedAsSolid(solid.value))).toBe(true)
    const again = await at.newPiece('Same again')
    await at.drop(again, 'box.stl', writeStl(boxBody(30, 30, 30)))
    await until(async () => (await at.piece(again)).partList.length === 1)
    await at.operate(again, chain)
    // Nothing to compute: each step is known by its key.
    expect((await at.piece(again)).partList[0].meshHash).toBe(done.meshHash)
    await at.operate(id, [
      { kind: 'scale', factor: 0.2 },
      ...chain.slice(1),
      { kind: 'orient', quaternion: [1, 0, 0, 0] },
    ])
    const stale = await until(async () => {
      const p = (await at.piece(id)).partList[0]
      return p.steps[3].derivation?.status === 'done' && p
    })
    expect(stale.steps[1].derivation).toMatchObject({ status: 'failed', problem: { code: 'no-inside' } })
    // The holes of a wall that is not there are left out; what follows goes on from the last result.
    expect(stale.steps[2].derivation).toBeNull()
    expect(stale.steps[3].derivation.report.measures.volume).toBeCloseTo(6 ** 3, 1)
    expect(stale.meshHash).toBe(stale.steps[3].derivation.meshHash)
    expect(derivationKey('scale', { b: 1, a: 2 }, ['x'])).toBe(derivationKey('scale', { a: 2, b: 1 }, ['x']))
  })
  it('loses nothing when the worker is killed in the middle of a job', async () => {
    const id = await at.pieceOf('Killed', writeStl(sphereBody(40, 6)))
    await at.operate(id, [{ kind: 'hollow', wall: 2, voxel: 0.5 }])
    await until(async () => {
      const d = (await at.piece(id)).partList[0].steps[0].derivation
      return d.status === 'running' && d.progress > 0
    })
    await at.killWorker()
    await at.startWorker()
    const done = await at.derived(id)
    expect(done.steps[0].derivation).toMatchObject({ status: 'done', problem: null })
    expect(done.steps[0].derivation.report.hollow.cavityVolume / ((4 / 3) * Math.PI * 38 ** 3)).toBeCloseTo(1, 1.5)
  })
  it('cancels, says so, and computes again when asked again', async () => {
    const id = await at.pieceOf('Cancelled', writeStl(sphereBody(41, 6)))
    await at.operate(id, [{ kind: 'hollow', wall: 2, voxel: 0.5 }])
    const key = await until(async () => {
      const d = (await at.piece(id)).partList[0].steps[0].derivation
      return d.status === 'running' && (d.key as string)
    })
    await at.call('POST', `/derivations/${key}/cancel`)
    await until(async () => (await at.call('GET', `/derivations/${key}`)).body.problem?.code === 'cancelled', 20)
    await at.call('POST', `/derivations/${key}/retry`)
    await until(async () => (await at.call('GET', `/derivations/${key}`)).body.status === 'done')
  })
  it('takes in a file whose worker died between the result and its parts, and makes them once', async () => {
    const id = await at.pieceOf('Left over', writeStl(boxBody(7, 8, 9)))
    // As such a death leaves it: the derivation is over, the file still waits.
    await at.db.query('DELETE FROM part WHERE piece_id = $1', [id])
    await at.db.query("UPDATE intake SET status = 'waiting' WHERE piece_id = $1", [id])
    await until(async () => (await at.piece(id)).partList.length > 0, 20)
    await new Promise((r) => setTimeout(r, 4000))
    expect(await at.piece(id)).toMatchObject({ partList: [{ name: 'body' }], intakes: [{ status: 'done' }] })
    expect((await at.piece(id)).partList).toHaveLength(1)
  })
  it('resumes a step that a worker took from the queue and died before it said so', async () => {
    const id = await at.pieceOf('In nobody’s hands', writeStl(boxBody(11, 12, 13)))
    const mesh = (await at.piece(id)).partList[0].sculptMesh
    const { key } = (await at.call('POST', '/checks', { mesh, check: { kind: 'health' } })).body
    await until(async () => (await at.status(key)) === 'done')
    await at.db.query(
      "UPDATE derivation SET status = 'waiting', report = NULL, updated_at = now() - interval '1 minute' WHERE key = $1",
      [key],
    )
    await until(async () => (await at.status(key)) === 'done', 30)
  })
  it('shares the work between two workers, and the living one takes over from the dead one', async () => {
    const id = await at.pieceOf('Two hands', writeStl(sphereBody(60, 6)))
    const second = await at.up('worker', 'worker ready')
    try {
      const p = (await at.piece(id)).partList[0]
      const checks = Array.from({ length: 12 }, (_, i) => ({ kind: 'thinness', limit: 0.31 + i / 100 }))
      const keys = await Promise.all(
        checks.map(
          async (check) => (await at.call('POST', '/checks', { mesh: p.sculptMesh, check })).body.key as string,
        ),
      )
      // On a fast machine all may be over before the first look: then there was nothing to take over.
      await until(async () => {
        const now = await Promise.all(keys.map((k) => at.status(k)))
        return now.includes('running') || now.every((s) => s === 'done')
      })
      await at.killWorker()
      await until(async () => (await Promise.all(keys.map((k) => at.status(k)))).every((s) => s === 'done'))
    } finally {
      await at.kill(second)
      await at.startWorker()
    }
  })

  it('a disk that fills in the middle of slicing is said in words, leaves nothing half stored, and is over once there is room', async () => {
    const id = await at.pieceOf('Full disk', writeStl(sphereBody(12, 4)))
    await at.operate(id, [{ kind: 'orient', quaternion: [0, 0, 0, 1] }])
    const mesh = (await at.derived(id)).meshHash
    const printer = {
      name: 'Panel',
      pixelsX: 4000,
      pixelsY: 3000,
      pitchX: 0.02,
      pitchY: 0.02,
      height: 60,
      layerHeight: 0.02,
    }
    const ask = (): Promise<any> =>
      at.call('POST', '/checks', { mesh, check: { kind: 'slice', printer, resin: { name: 'R' } } })
    const chunks = async (): Promise<number> =>
      Number((await at.db.query('SELECT count(*) AS n FROM blob_chunk')).rows[0].n)
    const before = await chunks()
    // As PostgreSQL would say it, from the second chunk of four megabytes on.
    await at.db.query(`
      CREATE FUNCTION no_room() RETURNS trigger AS $$ BEGIN
        IF NEW.n >= 1 THEN RAISE EXCEPTION 'could not extend file' USING ERRCODE = '53100'; END IF; RETURN NEW;
      END $$ LANGUAGE plpgsql;
      CREATE TRIGGER no_room BEFORE INSERT ON blob_chunk FOR EACH ROW EXECUTE FUNCTION no_room()`)
    const { key } = (await ask()).body
    const failed = await until(async () => {
      const { body } = await at.call('GET', `/derivations/${key}`)
      return body.status === 'failed' && body
    })
    expect(failed.problem).toMatchObject({ code: 'disk-full' })
    expect(await chunks()).toBe(before)
    const upload = await at.call('POST', '/archives', new Uint8Array(9_000_000))
    expect([upload.status, upload.body.type]).toEqual([507, 'urn:undercut:disk-full'])
    await at.db.query('DROP TRIGGER no_room ON blob_chunk')
    await at.call('POST', `/derivations/${key}/retry`)
    await until(async () => (await at.status(key)) === 'done')
  })
})
