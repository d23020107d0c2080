import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { TestServer, until } from '../testServer'

interface Item {
  kind: string
  version: number
  id: string
  data: { name: string; starting?: true; layerHeight?: number }
}
let at: TestServer

describe('an empty workshop', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(() => at?.stop())
  const stock = async (): Promise<Item[]> => (await at.call('GET', '/stock')).body
  const counted = async (): Promise<Record<string, number>> => {
    const out: Record<string, number> = {}
    for (const { kind } of await stock()) out[kind] = (out[kind] ?? 0) + 1
    return out
  }

  it('gets a stock to start with, marked as such until somebody sets his own figures, and nothing twice', async () => {
    expect((await at.call('POST', '/stock/starter', { printer: 'huge' })).status).toBe(422)
    expect(await stock()).toEqual([])
    expect((await at.call('POST', '/stock/starter', { printer: 'small' })).status).toBe(200)
    const all = await stock()
    expect(await counted()).toEqual({ printer: 1, resin: 1, paint: 24, material: 15 })
    expect(all.every((i) => i.data.starting === true)).toBe(true)
    // Again adds nothing, another size only its printer.
    expect((await at.call('POST', '/stock/starter', { printer: 'small' })).body).toEqual([])
    expect((await at.call('POST', '/stock/starter', { printer: 'large' })).body).toHaveLength(1)
    const { starting, ...own } = all.find((i) => i.kind === 'printer')!.data
    expect(starting).toBe(true)
    const printer = all.find((i) => i.kind === 'printer')!
    const put = await at.call('PUT', `/stock/printer/${printer.id}`, {
      version: 1,
      data: { ...own, layerHeight: 0.04 },
    })
    expect(put.body.data).toMatchObject({ layerHeight: 0.04 })
    expect(put.body.data).not.toHaveProperty('starting')
  })
  it('is filled with the demo when it is asked for, and only while it is empty', async () => {
    expect(await at.call('POST', '/workshop/demo')).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('empty workshop') },
    })
    for (const { kind, id } of await stock()) await at.call('DELETE', `/stock/${kind}/${id}`)
    expect((await at.call('POST', '/workshop/demo')).status).toBe(200)
    await until(async () => (await at.call('GET', '/workshop')).body.demo === 'filling')
    await until(async () => (await at.call('GET', '/pieces')).body.length === 5)
    // What is asked twice is filled once.
    expect((await at.call('POST', '/workshop/demo')).status).toBe(409)
  })
})
