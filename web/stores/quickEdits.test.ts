import { beforeEach, expect, it } from 'vitest'
import { workshop as workshopSchema } from '../../contract/workshop'
import { schoolDefaults } from '../../core/defaults/plan'
import { fakePage, settled } from './fakeServer'
import { useInspection } from './inspection'
import { useMixes } from './mixes'
import { usePiece } from './piece'
import { useRuns } from './runs'
import { useScheme } from './scheme'
import { useSculpts } from './sculpts'
import { useStock } from './stock'

/**
 * Every record that has a version, changed twice by the same hand faster than the server answers: both changes are kept,
 * and nobody hears of another window.
 */
const id = (n: number): string => `${n}`.repeat(8) + '-1111-4111-8111-' + `${n}`.repeat(12)
const [PIECE, FLAW, PLATE, SCULPT, MIX, PAINT, RUN, PART] = [1, 2, 3, 4, 5, 6, 7, 8].map(id) as [
  string,
  string,
  string,
  string,
  string,
  string,
  string,
  string,
]
const NOBODY = { resinId: RUN, resinName: 'Heron clear', lot: '', note: '', reprintOf: null, createdAt: '2026-11-01' }
type Fields = Record<string, unknown> & { version: number }

/** Keeps records under their addresses, answers late, and refuses what was changed from an older version. */
class Records {
  refused = 0
  readonly by = new Map<string, Fields>()
  /** how often each was changed */
  readonly changes = new Map<string, number>()

  constructor() {
    const put = (path: string, fields: object): void => void this.by.set(path, { version: 1, ...fields })
    put(`/pieces/${PIECE}`, { id: PIECE, createdAt: '2026-11-01', name: 'Pilot', partList: [], intakes: [] })
    put(`/pieces/${PIECE}/scheme`, { regions: [{ id: 0, name: 'Coat', target: null }], coats: [], maps: [] })
    put(`/flaws/${FLAW}`, {
      id: FLAW,
      partId: PART,
      kind: 'scratch',
      size: 1,
      point: [0, 0, 0],
      pass: 1,
      closedPass: null,
      state: 'open',
      cause: null,
    })
    put(`/plates/${PLATE}`, {
      ...{ id: PLATE, runId: RUN, number: 1, device: null, state: 'ended', progress: {} },
      ...{ printerId: RUN, printerName: 'Heron', sliceKey: 'k', archive: 'a'.repeat(64), layers: 10 },
      ...{ layerHeight: 0.05, bottomLayers: 3, exposure: 2, bottomExposure: 20, parts: [] },
      ...{ estimate: { seconds: 1, millilitres: 1, cost: 1 }, startedAt: null, endedAt: null },
    })
    put(`/sculpts/${SCULPT}`, {
      ...{ id: SCULPT, family: SCULPT, edition: 1, name: 'Tern', fileName: 'tern.stl', mesh: 'm' },
      ...{ createdAt: '2026-11-01', usedIn: [] },
    })
    put(`/mixes/${MIX}`, {
      ...{ id: MIX, name: 'Slate', predicted: [50, 0, 0], mixedOn: '2026-11-01' },
      drops: [{ paintId: PAINT, name: 'Slate', lab: [50, 0, 0], drops: 3 }],
    })
    put(`/stock/paint/${PAINT}`, { id: PAINT, kind: 'paint', data: { name: 'Slate', hex: '#405060' } })
    put('/workshop', WORKSHOP)
  }

  async answer(url: string, { method = 'GET', body }: RequestInit = {}): Promise<Response> {
    const path = url.replace('/api', '')
    const sent = typeof body === 'string' ? (JSON.parse(body) as Fields) : { version: 0 }
    const [status, value] = method === 'GET' ? this.read(path) : this.change(path, sent)
    const text = JSON.stringify(value)
    await new Promise((r) => setTimeout(r, 15))
    return new Response(text, { status })
  }
  private read(path: string): [number, unknown] {
    const all = (start: string): Fields[] => [...this.by].flatMap(([p, r]) => (p.startsWith(start) ? [r] : []))
    if (path.endsWith('/inspection'))
      return [
        200,
        {
          passes: [{ pass: 1, begunAt: '2026-11-01', endedAt: null, note: '', found: 1 }],
          flaws: all('/flaws'),
          closed: false,
        },
      ]
    if (path.endsWith('/runs'))
      return [200, [{ ...NOBODY, id: RUN, pieceId: PIECE, number: 1, version: 1, plates: all('/plates') }]]
    if (path === '/sculpts/intakes' || path === '/devices') return [200, []]
    if (path === '/sculpts' || path === '/mixes' || path === '/stock') return [200, all(path)]
    const one = this.by.get(path)
    return one ? [200, one] : [404, { detail: `no ${path}` }]
  }
  private change(path: string, sent: Fields): [number, unknown] {
    const [, at, last] = /^(.*?)(\/judgement|\/edition)?$/.exec(path)!
    const now = this.by.get(at!)
    if (!now) return [404, { detail: `no ${path}` }]
    if (sent.version !== now.version) {
      this.refused++
      return [409, { detail: 'This was changed in another window meanwhile.', current: now }]
    }
    const next = { ...now, ...(last === '/edition' ? {} : sent), version: now.version + 1 }
    this.by.set(at!, next)
    this.changes.set(at!, (this.changes.get(at!) ?? 0) + 1)
    return [200, next]
  }
}
const WORKSHOP = workshopSchema.parse({
  name: 'Gull Loft',
  currency: 'EUR',
  temperature: 20,
  humidity: 50,
  schools: schoolDefaults,
  benchHours: [],
  version: 1,
})

let server: Records
beforeEach(async () => {
  server = new Records()
  fakePage((url, init) => server.answer(url, init))
  await usePiece().open(PIECE)
})

interface Case {
  record: string
  at: string
  /** two changes at once */
  edit: () => Promise<unknown>[] | Promise<Promise<unknown>[]>
  kept: object
  /** as often as it is sent; what is gathered before it is sent may go as one */
  sent?: number
}
const CASES: Case[] = [
  {
    record: 'fields of a piece',
    at: `/pieces/${PIECE}`,
    edit: () => [usePiece().save({ client: 'Museum' }), usePiece().save({ brief: 'Cold light' } as never)],
    kept: { client: 'Museum', brief: 'Cold light' },
  },
  {
    record: 'one field of a piece, twice',
    at: `/pieces/${PIECE}`,
    edit: () => [usePiece().save({ client: 'Mus' }), usePiece().save({ client: 'Museum' })],
    kept: { client: 'Museum' },
  },
  {
    record: 'a scheme',
    at: `/pieces/${PIECE}/scheme`,
    async edit() {
      const book = useScheme()
      await settled(60)
      book.scheme!.regions[0]!.name = 'Cloak'
      const first = book.save()
      book.scheme!.tint = '#223344'
      return [first, book.save()]
    },
    kept: { regions: [{ name: 'Cloak' }], tint: '#223344' },
  },
  {
    record: 'a flaw',
    at: `/flaws/${FLAW}`,
    async edit() {
      const store = useInspection()
      await settled(60)
      const [f] = store.flaws
      return [store.change(f!, { note: 'by the ear' }), store.change(f!, { state: 'mended' } as never)]
    },
    kept: { note: 'by the ear', state: 'mended' },
  },
  {
    record: 'the judgement of a plate',
    at: `/plates/${PLATE}`,
    async edit() {
      const store = useRuns()
      await settled(60)
      const [p] = store.plates
      const judged = { outcomes: [], marks: [], weighed: 12 }
      return [store.judge(p!, judged), store.judge(p!, { ...judged, weighed: 14 })]
    },
    kept: { weighed: 14 },
  },
  {
    record: 'a sculpt, and its edition',
    at: `/sculpts/${SCULPT}`,
    async edit() {
      const store = useSculpts()
      await store.load()
      const s = store.byId(SCULPT)!
      return [store.change(s, { name: 'Old tern' }), store.change(s, { tags: ['bird'] }), store.setEdition(s, null)]
    },
    kept: { name: 'Old tern', tags: ['bird'] },
    sent: 3,
  },
  {
    record: 'a mix',
    at: `/mixes/${MIX}`,
    async edit() {
      const store = useMixes()
      await store.load()
      const [m] = store.book!
      return [store.change(m!, { note: 'thin' }), store.change(m!, { kept: 4 })]
    },
    kept: { note: 'thin', kept: 4 },
  },
  {
    record: 'a paint in stock',
    at: `/stock/paint/${PAINT}`,
    async edit() {
      const store = useStock()
      await store.load()
      return [store.change('paint', PAINT, { name: 'Wet slate' }), store.change('paint', PAINT, { opacity: 0.7 })]
    },
    kept: { data: { name: 'Wet slate', hex: '#405060', opacity: 0.7 } },
  },
  {
    record: 'the workshop’s settings',
    at: '/workshop',
    async edit() {
      const store = useStock()
      await store.load()
      return [store.changeWorkshop({ temperature: 8 }), store.changeWorkshop({ humidity: 70 })]
    },
    kept: { temperature: 8, humidity: 70 },
  },
]

it.each(CASES)('keeps two quick changes of $record', async ({ at, edit, kept, sent = 2 }) => {
  await Promise.all(await edit())
  expect(server.by.get(at)).toMatchObject(kept)
  expect(server.changes.get(at)).toBe(sent)
  expect(server.refused).toBe(0)
  expect(usePiece().problem).toBeNull()
})

it('and a change of the same field in another window in between is a conflict that is said, not overwritten', async () => {
  const piece = usePiece()
  const there = server.by.get(`/pieces/${PIECE}`)!
  server.by.set(`/pieces/${PIECE}`, { ...there, client: 'Harbour office', version: 7 })
  await Promise.all([piece.save({ client: 'Museum' }), piece.save({ brief: 'Cold light' } as never)])
  expect(server.by.get(`/pieces/${PIECE}`)).toMatchObject({ client: 'Harbour office', brief: 'Cold light' })
  expect(piece.piece!.client).toBe('Harbour office')
})
