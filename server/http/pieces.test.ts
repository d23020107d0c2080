import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeStl } from '../../core/formats/stl'
import { boxBody } from '../../core/testBodies'
import { TestServer } from '../testServer'

/** The list of pieces, and a piece as it is read. */
let at: TestServer

describe('pieces', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(() => at?.stop())

  it('counts as done what was ticked, not what is under a timer or was taken back', async () => {
    const id = await at.pieceOf('Counted', writeStl(boxBody(20, 20, 20)))
    const { steps } = (await at.call('GET', `/pieces/${id}/plan`)).body
    const tick = (i: number, doneAt: string | null, timerUntil: string | null): Promise<unknown> =>
      at.call('PUT', `/pieces/${id}/ticks`, { stepKey: steps[i].key, doneAt, timerUntil })
    const now = new Date().toISOString()
    await tick(0, now, null)
    await tick(1, null, now)
    await tick(2, now, null)
    await tick(2, null, null)
    const { body } = await at.call('GET', '/pieces')
    expect(body.find((p: { id: string }) => p.id === id).done).toBe(1)
  })
  it('lists pieces page by page: each once, in the order of the whole list, with its first sculpt', async () => {
    const made = await Promise.all(['One', 'Two', 'Three'].map((n) => at.newPiece(n)))
    const body = await at.pieceOf('With a body', writeStl(boxBody(20, 20, 20)))
    const whole = (await at.ask('GET', '/pieces')) as { id: string; parts: number; thumbnailMesh: string | null }[]
    const byPage: string[] = []
    let next: string | null = '/api/pieces?limit=2'
    while (next) {
      const r: Response = await fetch(`http://127.0.0.1:${at.port}${next}`)
      const page = (await r.json()) as { id: string }[]
      expect(page.length).toBeLessThanOrEqual(2)
      byPage.push(...page.map((p) => p.id))
      next = /<([^>]+)>; rel="next"/.exec(r.headers.get('link') ?? '')?.[1] ?? null
    }
    expect(byPage).toEqual(whole.map((p) => p.id))
    for (const id of made) expect(byPage).toContain(id)
    const [part] = (await at.piece(body)).partList
    expect(whole.find((p) => p.id === body)).toMatchObject({ parts: 1, thumbnailMesh: part.sculptMesh })
    expect(whole.find((p) => p.id === made[0])).toMatchObject({ parts: 0, thumbnailMesh: null, done: 0 })
    for (const wrong of ['limit=0', 'limit=x', 'cursor=abc'])
      expect((await at.call('GET', `/pieces?${wrong}`)).status).toBe(422)
    expect((await at.call('GET', `/pieces?cursor=${crypto.randomUUID()}`)).status).toBe(404)
  })
  it('writes nothing when a piece is read, and computes what was never asked for when it is told to', async () => {
    const id = await at.pieceOf('Read', writeStl(boxBody(20, 20, 20)))
    await at.operate(id, [{ kind: 'scale', factor: 2 }])
    const [done] = (await at.derived(id)).steps
    await at.db.query('DELETE FROM derivation WHERE key = $1', [done.derivation.key])
    expect((await at.piece(id)).partList[0].steps).toMatchObject([{ op: { kind: 'scale' }, derivation: null }])
    const there = await at.db.query('SELECT 1 FROM derivation WHERE key = $1', [done.derivation.key])
    expect(there.rows).toEqual([])
    expect((await at.ask('POST', `/pieces/${id}/advance`)).partList[0].steps[0].derivation.key).toBe(
      done.derivation.key,
    )
    expect(await at.derived(id)).toMatchObject({ steps: [{ derivation: { status: 'done' } }] })
  })
  it('bins a piece and gives it back, part, plan and all', async () => {
    const id = await at.pieceOf('Binned', writeStl(boxBody(20, 20, 20)))
    expect((await at.call('DELETE', `/pieces/${id}`)).status).toBe(204)
    expect((await at.call('GET', `/pieces/${id}`)).status).toBe(404)
    expect((await at.call('GET', `/pieces/${id}/plan`)).status).toBe(404)
    expect((await at.call('POST', `/pieces/${id}/restore`)).status).toBe(200)
    expect((await at.piece(id)).partList).toHaveLength(1)
  })
})
