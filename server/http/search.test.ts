import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { TestServer } from '../testServer'

let at: TestServer
interface Hit {
  kind: string
  name: string
  pieceId: string | null
}
const find = async (q: string): Promise<Hit[]> => (await at.call('GET', `/search?q=${encodeURIComponent(q)}`)).body
const names = async (q: string): Promise<string[]> => (await find(q)).map((h) => `${h.kind}: ${h.name}`)

describe('the search', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(() => at?.stop())
  it('finds pieces, stock and logs by all of its words, what is called so first, and nothing that was deleted', async () => {
    const heron = await at.newPiece('Grey heron')
    const other = await at.newPiece('Kingfisher')
    await at.call('PATCH', `/pieces/${other}`, { version: 1, brief: 'beside the heron, 100 % to scale' })
    await at.call('POST', '/stock/paint', { name: 'Heron grey', hex: '#808890', opacity: 0.8, kind: 'acrylic' })
    await at.call('POST', '/stock/material', { name: 'Putty', safety: 'gloves' })
    const entry = { id: crypto.randomUUID(), at: new Date().toISOString(), stepKey: null, text: 'The beak broke off.' }
    expect((await at.call('POST', `/pieces/${heron}/log`, entry)).status).toBeLessThan(300)
    expect(await names('heron')).toEqual(['piece: Grey heron', 'piece: Kingfisher', 'paint: Heron grey'])
    expect(await names('GREY heron')).toEqual(['piece: Grey heron', 'paint: Heron grey'])
    expect(await names('gloves')).toEqual(['material: Putty'])
    expect(await find('beak broke')).toMatchObject([{ kind: 'log', name: 'Grey heron', pieceId: heron }])
    // What a pattern would take for any letter is a letter here.
    expect(await names('100 %')).toEqual(['piece: Kingfisher'])
    expect(await names('_eron')).toEqual([])
    expect(await names("'; DROP TABLE piece; --")).toEqual([])
    expect(await find('   ')).toEqual([])
    expect((await at.call('GET', `/search?q=${'x'.repeat(300)}`)).status).toBe(422)
    await at.call('DELETE', `/pieces/${heron}`)
    expect(await names('heron')).toEqual(['piece: Kingfisher', 'paint: Heron grey'])
    expect(await find('beak')).toEqual([])
  })
})
