/* eslint-disable @typescript-eslint/no-explicit-any -- replies are read loosely on purpose: their schemas are the server's */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeStl } from '../../core/formats/stl'
import { boxBody } from '../../core/testBodies'
import { TestServer } from '../testServer'

/** Paints as lists and the mix book, over HTTP. */
let at: TestServer
const call = (...asked: Parameters<TestServer['ask']>): Promise<any> => at.ask(...asked)
const csv = (text: string): Promise<any> => at.call('POST', '/paints.csv', new TextEncoder().encode(text))
const paints = async (): Promise<any[]> =>
  (await call('GET', '/stock')).filter((i: any) => i.kind === 'paint').map((i: any) => ({ ...i.data, id: i.id }))

describe('paints and mixes', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(async () => {
    await at.stop()
  })

  it('takes a list of paints in whole or not at all, and gives it out so that it comes back the same', async () => {
    const wrong = await csv(
      'name,colour,opacity,L,a,b\nSoot,#1b1a1c,0.9\nFog,grey,0.8\nMist,,0.5,80,2\nDusk,,2,40,1,1\n',
    )
    expect(wrong.status).toBe(422)
    const said = wrong.body.detail as string
    expect(said).toMatch(/Line 3.*“grey” is no colour/)
    expect(said).toMatch(/Line 4.*all three/)
    expect(said).toMatch(/Line 5: opacity/)
    expect(await paints()).toEqual([])
    expect((await csv('shade\nred\n')).status).toBe(422)

    const list =
      'name,colour,L,a,b,opacity,black L,black a,black b,kind,ml\nSoot,#1b1a1c,,,,0.95,,,,acrylic,17\nBay,,52,-20,-18,0.6,30,-8,-9,acrylic,"12,5"\n'
    expect((await csv(list)).body).toEqual({ added: 2, changed: 0 })
    const [bay, soot] = (await paints()).sort((a, b) => a.name.localeCompare(b.name))
    expect(bay).toMatchObject({ lab: [52, -20, -18], overBlack: [30, -8, -9], level: 12.5 })
    expect(soot).toMatchObject({ hex: '#1b1a1c', lab: null, opacity: 0.95 })
    const out = new TextDecoder().decode(await at.bytes('/paints.csv'))
    expect((await csv(out)).body).toEqual({ added: 0, changed: 2 })
    expect((await paints()).sort((a, b) => a.name.localeCompare(b.name))).toEqual([bay, soot])
  })

  it('keeps a mix as it was, whatever becomes of its paints, and refuses an edit from a stale page', async () => {
    const [soot] = (await paints()).filter((p) => p.name === 'Soot')
    const mix = {
      name: 'Shadow of the hull',
      predicted: [22, -3, -4],
      drops: [{ paintId: soot.id, name: 'Soot', lot: 'S-1', lab: [10, 0, 0], drops: 3 }],
      mixedOn: '2026-11-02',
    }
    const made = await call('POST', '/mixes', mix)
    expect(made).toMatchObject({ batches: 1, tool: 'brush', version: 1 })
    await call('POST', '/mixes', { ...mix, drops: [] }, 422)
    await call('POST', '/mixes', { ...mix, name: ' ' }, 422)
    await call('POST', '/mixes', { ...mix, photo: 'a'.repeat(64) }, 409)
    await call('DELETE', `/stock/paint/${soot.id}`, undefined, 204)
    expect((await call('GET', '/mixes'))[0].drops[0]).toMatchObject({ name: 'Soot', lot: 'S-1' })
    const changed = await call('PUT', `/mixes/${made.id}`, { version: 1, measured: [23, -3, -4] })
    expect(changed).toMatchObject({ measured: [23, -3, -4], name: mix.name, batches: 1, version: 2 })
    await call('PUT', `/mixes/${made.id}`, { version: 1, kept: 2 }, 409)
    await call('DELETE', `/mixes/${made.id}`, undefined, 204)
    expect(await call('GET', '/mixes')).toEqual([])
    await call('PUT', `/mixes/${made.id}`, { version: 2, kept: 2 }, 404)
  })
  it('paints by an order of one’s own, and a ticked coat stays ticked whatever the order is', async () => {
    const id = await at.pieceOf('Two colours', writeStl(boxBody(20, 20, 20)))
    const [bay] = (await paints()).filter((p) => p.name === 'Bay')
    const coat = (n: number, technique: string): object => ({ id: `c${n}`, regionId: 0, technique, paintId: bay.id })
    const made = await call('PUT', `/pieces/${id}/scheme`, {
      version: 0,
      regions: [{ id: 0, name: 'All' }],
      coats: [coat(1, 'base'), coat(2, 'varnish'), coat(3, 'wash'), coat(4, 'dry brush')],
    })
    expect(made).toMatchObject({ order: [], eyes: null })
    const painted = async (): Promise<any[]> =>
      (await call('GET', `/pieces/${id}/plan`)).steps.filter((s: any) => s.key.startsWith('coat-'))
    const before = await painted()
    expect(before.map((s) => s.key)).toEqual(['coat-0-All-base', 'coat-1-All-wash', 'coat-2-All-dry brush'])
    const doneAt = new Date(Date.now() - 60_000).toISOString()
    await call('PUT', `/pieces/${id}/ticks`, { stepKey: 'coat-2-All-dry brush', doneAt }, 204)
    await call('PUT', `/pieces/${id}/scheme`, { ...made, order: ['c4', 'gone', 'c1', 'c3'] })
    const after = await painted()
    expect(after.map((s) => s.key).sort()).toEqual(before.map((s) => s.key).sort())
    expect(after.map((s) => [s.key, s.doneAt !== null])).toContainEqual(['coat-2-All-dry brush', true])
    const open = after.filter((s) => s.doneAt === null).map((s) => s.key)
    expect(open).toEqual(['coat-0-All-base', 'coat-1-All-wash'])
    await call('PUT', `/pieces/${id}/scheme`, { ...made, version: 2, order: ['c3', 'c1'] })
    expect((await painted()).filter((s) => s.doneAt === null).map((s) => s.key)).toEqual([
      'coat-1-All-wash',
      'coat-0-All-base',
    ])
    await call('PUT', `/pieces/${id}/scheme`, { ...made, version: 3, eyes: { partId: bay.id, balls: [] } }, 422)
  })
})
