import { beforeEach, describe, expect, it } from 'vitest'
import { Bench, fakePage, settled } from './fakeServer'
import { useMixes } from './mixes'
import { useSculpts } from './sculpts'

const id = (n: number): string => `${String(n).repeat(8)}-1111-4111-8111-111111111111`
const sculpt = (n: number, more: object = {}): object => ({
  id: id(n),
  version: 1,
  family: id(n),
  edition: 1,
  name: `Sculpt ${n}`,
  fileName: 'a.stl',
  mesh: 'm'.repeat(64),
  createdAt: '2026-11-01T00:00:00Z',
  usedIn: [],
  ...more,
})
const mix = (n: number, more: object = {}): object => ({
  id: id(n),
  version: 1,
  name: `Mix ${n}`,
  predicted: [50, 0, 0],
  drops: [{ paintId: id(9), name: 'White', lab: [95, 0, 2], drops: 3 }],
  mixedOn: '2026-11-02',
  ...more,
})
let bench: Bench
/** What a call is refused with: a status and a body. */
let refused: Map<string, [number, object]>
beforeEach(() => {
  bench = new Bench()
  refused = new Map()
  fakePage(
    async (url, init) => {
      const no = refused.get(`${init?.method ?? 'GET'} ${url.replace('/api', '')}`)
      const answer = await bench.answer(url, init)
      return no ? new Response(JSON.stringify(no[1]), { status: no[0] }) : answer
    },
    (send) => {
      bench.event = send
    },
  )
  bench.replies.set('GET /sculpts/intakes', [])
})
const bodies = (call: string): unknown[] => bench.sent.filter((s) => s.call === call).map((s) => s.body)

describe('the library of sculpts', () => {
  const shelf = async (...list: object[]): Promise<ReturnType<typeof useSculpts>> => {
    bench.replies.set('GET /sculpts', list)
    const sculpts = useSculpts()
    await sculpts.load()
    return sculpts
  }
  it('shows of each family its newest edition, and all of them when asked', async () => {
    const sculpts = await shelf(
      sculpt(1),
      sculpt(2, { family: id(1), edition: 3 }),
      sculpt(3, { family: id(1), edition: 2 }),
      sculpt(4),
    )
    expect(sculpts.newest.map((s) => s.name)).toEqual(['Sculpt 2', 'Sculpt 4'])
    expect(sculpts.editions(id(1)).map((s) => s.edition)).toEqual([3, 2, 1])
    expect(sculpts.byId(id(3))!.name).toBe('Sculpt 3')
    expect(sculpts.byId(null)).toBeNull()
  })
  it('is fetched by the first who needs it, and again by news only if anybody ever did', async () => {
    const sculpts = useSculpts()
    bench.event!({ type: 'sculpts' })
    await settled()
    expect(bench.calls).toEqual([])
    bench.replies.set('GET /sculpts', [sculpt(1)])
    await Promise.all([sculpts.load(), sculpts.load()])
    expect(bench.calls.filter((c) => c === 'GET /sculpts')).toHaveLength(1)
    bench.replies.set('GET /sculpts', [sculpt(1), sculpt(2)])
    bench.event!({ type: 'sculpts' })
    await settled()
    expect(sculpts.list).toHaveLength(2)
  })
  it('that could not be fetched is asked for again by the next', async () => {
    refused.set('GET /sculpts', [500, { detail: 'The database does not answer.' }])
    bench.replies.set('GET /sculpts', [sculpt(1)])
    const sculpts = useSculpts()
    await expect(sculpts.load()).rejects.toThrow('The database does not answer.')
    refused.clear()
    await sculpts.load()
    expect(sculpts.list).toHaveLength(1)
  })
  it('shows a change at once, sends it from the version that is there, and keeps a second one apart', async () => {
    const sculpts = await shelf(sculpt(1))
    bench.replies.set(`PATCH /sculpts/${id(1)}`, sculpt(1, { name: 'Otter', version: 2 }))
    const done = sculpts.change(sculpts.byId(id(1))!, { name: 'Otter' })
    expect(sculpts.byId(id(1))!.name).toBe('Otter')
    bench.replies.set('GET /sculpts', [sculpt(1, { name: 'Otter', version: 2 })])
    expect(await done).toBe(true)
    await sculpts.change(sculpts.byId(id(1))!, { licence: 'one print' })
    expect(bodies(`PATCH /sculpts/${id(1)}`)).toEqual([
      { name: 'Otter', version: 1 },
      { licence: 'one print', version: 2 },
    ])
  })
  it('takes a change back that is refused, and says why', async () => {
    const sculpts = await shelf(sculpt(1))
    refused.set(`PATCH /sculpts/${id(1)}`, [400, { detail: 'A name has at most 120 letters.' }])
    expect(await sculpts.change(sculpts.byId(id(1))!, { name: 'x'.repeat(200) })).toBe(false)
    expect(sculpts.byId(id(1))!.name).toBe('Sculpt 1')
    expect(sculpts.problem).toBe('A name has at most 120 letters.')
  })
  it('says of a real conflict that the newer version is shown, and shows it', async () => {
    const sculpts = await shelf(sculpt(1))
    const newer = sculpt(1, { name: 'Theirs', version: 2 })
    refused.set(`PATCH /sculpts/${id(1)}`, [409, { detail: 'This was changed in another window.', current: newer }])
    bench.replies.set('GET /sculpts', [newer])
    expect(await sculpts.change(sculpts.byId(id(1))!, { name: 'Mine' })).toBe(false)
    expect(sculpts.byId(id(1))!.name).toBe('Theirs')
    expect(sculpts.problem).toBe('This was changed in another window. The newer version is shown now.')
  })
  it('sends what cannot be removed back with its reason, and forgets the reason with the next that works', async () => {
    const sculpts = await shelf(sculpt(1, { usedIn: [{ id: id(5), name: 'Bust' }] }))
    refused.set(`DELETE /sculpts/${id(1)}`, [409, { detail: 'The piece “Bust” uses this sculpt.' }])
    expect(await sculpts.remove(id(1))).toBe(false)
    // There is no newer version of it that could be shown.
    expect(sculpts.problem).toBe('The piece “Bust” uses this sculpt.')
    bench.replies.set(`POST /sculpts/${id(2)}/restore`, {})
    expect(await sculpts.restore(id(2))).toBe(true)
    expect(sculpts.problem).toBeNull()
  })
})

describe('the mix log', () => {
  it('is not fetched again by news before anybody has opened it', async () => {
    const mixes = useMixes()
    bench.event!({ type: 'stock' })
    await settled()
    expect(bench.calls).toEqual([])
    bench.replies.set('GET /mixes', [mix(1)])
    await mixes.load()
    bench.replies.set('GET /mixes', [mix(1), mix(2)])
    bench.event!({ type: 'stock' })
    await settled()
    expect(mixes.book!.map((m) => m.name)).toEqual(['Mix 1', 'Mix 2'])
  })
  it('sends two quick changes of one mix one after the other, each with the version that came of the last', async () => {
    bench.replies.set('GET /mixes', [mix(1)])
    const mixes = useMixes()
    await mixes.load()
    bench.replies.set(`PUT /mixes/${id(1)}`, mix(1, { version: 2 }))
    bench.replies.set('GET /mixes', [mix(1, { version: 2 })])
    const first = mixes.book![0]!
    await Promise.all([mixes.change(first, { kept: 2 }), mixes.change(first, { note: 'warm' })])
    expect(bodies(`PUT /mixes/${id(1)}`)).toEqual([
      { kept: 2, version: 1 },
      { note: 'warm', version: 2 },
    ])
  })
  it('reads what was stored or removed back from the server', async () => {
    bench.replies.set('GET /mixes', [])
    const mixes = useMixes()
    await mixes.load()
    bench.replies.set('POST /mixes', mix(3))
    bench.replies.set('GET /mixes', [mix(3)])
    expect((await mixes.note(mix(3) as never)).name).toBe('Mix 3')
    expect(mixes.book).toHaveLength(1)
    bench.replies.set('GET /mixes', [])
    bench.replies.set(`DELETE /mixes/${id(3)}`, {})
    await mixes.remove(id(3))
    expect(mixes.book).toEqual([])
  })
})
