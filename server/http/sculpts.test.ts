import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeStl } from '../../core/formats/stl'
import { boxBody } from '../../core/testBodies'
import { TestServer, until } from '../testServer'

let at: TestServer

describe('the library', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(() => at?.stop())

  it('keeps each sculpt once, whatever pieces use it, and swaps one for another under the same operations', async () => {
    interface Sculpt {
      id: string
      version: number
      name: string
      edition: number
      usedIn: { name: string }[]
    }
    const shelf = async (): Promise<Sculpt[]> => (await at.call('GET', '/sculpts')).body as unknown as Sculpt[]
    const block = writeStl(boxBody(7, 8, 9))
    const pieces = await Promise.all(['One', 'Another'].map((n) => at.newPiece(n)))
    for (const id of pieces) await at.drop(id, 'block.stl', block)
    await until(async () => (await shelf()).find((x) => x.name === 'block')?.usedIn.length === 2)
    const mine = (await shelf()).filter((x) => x.name === 'block')
    expect(mine).toHaveLength(1)
    const block1 = mine[0]!
    expect(block1.usedIn.map((u) => u.name).sort()).toEqual(['Another', 'One'])

    const change = { version: block1.version, tags: ['Wood', 'test'], maySell: 'no' }
    expect((await at.call('PATCH', `/sculpts/${block1.id}`, change)).body).toMatchObject({
      name: 'block',
      tags: ['wood', 'test'],
      maySell: 'no',
    })
    expect((await at.call('PATCH', `/sculpts/${block1.id}`, change)).status).toBe(409)

    await fetch(`http://127.0.0.1:${at.port}/api/sculpts/files?name=block-2.stl`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: Buffer.from(writeStl(boxBody(7, 8, 10))),
    })
    const second = await until(async () => (await shelf()).find((x) => x.name === 'block-2'))
    expect(second.usedIn).toEqual([])
    const own = await at.call('PUT', `/sculpts/${second.id}/edition`, { version: second.version, of: second.id })
    expect(own).toMatchObject({ status: 422, body: { detail: expect.stringContaining('edition of itself') } })
    const edition = { version: second.version, of: block1.id }
    expect((await at.call('PUT', `/sculpts/${second.id}/edition`, edition)).body).toMatchObject({ edition: 2 })

    const part = (await at.piece(pieces[0]!)).partList[0]
    const swap = (version: number, sculpt: string): Promise<{ status: number }> =>
      at.call('POST', `/pieces/${pieces[0]}/arrange`, {
        changes: [{ id: part.id, version, operations: [{ kind: 'scale', factor: 2 }] }],
        swap: [{ id: part.id, version: version + 1, sculpt }],
      })
    expect(
      (
        await swap(
          part.version,
          block1.id.replace(/^./, (c) => (c === '0' ? '1' : '0')),
        )
      ).status,
    ).toBe(404)
    // Nothing of it was kept: the change went with the swap that could not be.
    expect((await at.piece(pieces[0]!)).partList[0]).toMatchObject({ version: part.version, steps: [] })
    expect((await swap(part.version, second.id)).status).toBe(200)
    const after = await until(async () => {
      const p = (await at.piece(pieces[0]!)).partList[0]
      return p.steps[0]?.derivation?.status === 'done' && p
    })
    expect(after.sculptId).toBe(second.id)
    expect(after.steps[0].derivation.report.measures.size[2]).toBeCloseTo(20, 4)
    await at.call('DELETE', `/sculpts/${second.id}`)
    expect((await shelf()).some((x) => x.id === second.id)).toBe(false)
    expect((await at.piece(pieces[0]!)).partList[0].sculptId).toBe(second.id)
    await at.call('POST', `/sculpts/${second.id}/restore`, {})
    expect((await shelf()).some((x) => x.id === second.id)).toBe(true)
  })
})
