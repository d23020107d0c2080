import { beforeEach, describe, expect, it, vi } from 'vitest'
import { health } from '../../core/mesh/health'
import { measure } from '../../core/mesh/measure'
import { keepFaces } from '../../core/mesh/mesh'
import { boxBody } from '../../core/testBodies'
import { useStages } from '../composables/useStages'
import { Bench, fakePage, PART, PIECE, SCULPT, settled } from './fakeServer'
import { useDerivations } from './derivations'
import { useFindings } from './findings'
import { usePiece } from './piece'
import { usePlan } from './plan'
import { useStock } from './stock'

let bench: Bench
beforeEach(() => {
  bench = new Bench()
  fakePage(
    (url, init) => bench.answer(url, init),
    (send) => {
      bench.event = send
    },
  )
})
const opened = async (): Promise<ReturnType<typeof usePiece>> => {
  const store = usePiece()
  await store.open(PIECE)
  return store
}
const kinds = (): string[] => bench.operations.map((o) => o.kind)

describe('the piece on the table', () => {
  it('puts operations in working order whatever order they are made in, one of a kind', async () => {
    const store = await opened()
    await store.apply({ kind: 'orient', quaternion: [0, 0, 0, 1] })
    await store.apply({ kind: 'hollow', wall: 2 })
    await store.apply({ kind: 'scale', factor: 1.5 })
    await store.apply({ kind: 'repair' })
    await store.apply({ kind: 'hollow', wall: 3 })
    expect(kinds()).toEqual(['repair', 'scale', 'hollow', 'orient'])
    expect(bench.operations.find((o) => o.kind === 'hollow')).toMatchObject({ wall: 3, voxel: 0.5 })
  })
  it('undoes and does again, and forgets what was undone when something else is done', async () => {
    const store = await opened()
    await store.apply({ kind: 'scale', factor: 2 })
    await store.apply({ kind: 'hollow', wall: 2 })
    await store.undo()
    expect(kinds()).toEqual(['scale'])
    await store.redo()
    expect(kinds()).toEqual(['scale', 'hollow'])
    await store.undo()
    await store.undo()
    await store.apply({ kind: 'repair' })
    expect(store.undone).toEqual([])
    await store.undo()
    expect(kinds()).toEqual([])
  })
  it('carries holes and hand-set supports along when the size changes', async () => {
    const store = await opened()
    await store.apply({ kind: 'scale', factor: 1 })
    await store.apply({ kind: 'drill', holes: [{ point: [5, 5, 4], direction: [0, 0, 1], diameter: 4 }] })
    await store.apply({ kind: 'support', edits: [{ kind: 'add', point: [1, 2, 3], grade: 'post' }] })
    await store.apply({ kind: 'scale', factor: 2 })
    // About the foot of the body: (5, 5, 0) stays, what is 4 above it is 8 above it.
    expect(bench.operations.find((o) => o.kind === 'drill')).toMatchObject({
      holes: [{ point: [5, 5, 8], diameter: 4 }],
    })
    expect(bench.operations.find((o) => o.kind === 'support')).toMatchObject({ edits: [{ point: [2, 4, 6] }] })
  })
  it('takes cuts and keys along when a part is moved, and its size about another point with it', async () => {
    const store = await opened()
    await store.apply({ kind: 'scale', factor: 2 })
    await store.apply({ kind: 'cut', point: [5, 5, 10], normal: [0, 0, 1], keep: 'above' })
    // A quarter turn about the upright, then 10 to the right.
    const q: [number, number, number, number] = [0, 0, Math.SQRT1_2, Math.SQRT1_2]
    const move = { matrix: [0, -1, 0, 1, 0, 0, 0, 0, 1], shift: [10, 0, 0] } as const
    const list = store.movedList(store.part!, move, (was) => ({ quaternion: q, mirror: was.mirror }))
    expect(list.map((o) => o.kind)).toEqual(['place', 'scale', 'cut'])
    const [place, scale, cut] = list
    expect(scale).toMatchObject({ factor: 2, about: 'origin' })
    expect((cut as { point: number[] }).point.map((v) => Number(v.toFixed(9)))).toEqual([5, 5, 10])
    // Where the foot of the sized body was, (5, 5, 0), it is after the turn and the shift: (−5, 5, 0) + (10, 0, 0).
    const seen = (p: number[]): number[] => [
      2 * (-p[1]! + (place as { shift: number[] }).shift[0]!),
      2 * (p[0]! + (place as { shift: number[] }).shift[1]!),
    ]
    // About its foot the middle of the foot was where it is on the sculpt.
    expect(seen([5, 5, 0]).map((v) => Number(v.toFixed(9)))).toEqual([5, 5])
  })
  it('follows what is on the table back to the sculpt, though the list has gone on or still computes', async () => {
    const store = await opened()
    await store.apply({ kind: 'repair' })
    await store.apply({ kind: 'scale', factor: 2 })
    expect(store.chainOf('mesh-scale')).toEqual(['mesh-scale', 'mesh-repair', 'mesh-sculpt'])
    // What was shown before the last step was done.
    expect(store.chainOf('mesh-repair')).toEqual(['mesh-repair', 'mesh-sculpt'])
    expect(store.chainOf('mesh-sculpt')).toEqual(['mesh-sculpt'])
    expect(store.chainOf('mesh-of-another-part')).toEqual([])
    const waiting = structuredClone(JSON.parse(JSON.stringify(store.part!))) as NonNullable<typeof store.part>
    waiting.steps[1]!.derivation = null
    expect(store.chainOf('mesh-repair', waiting)).toEqual(['mesh-repair', 'mesh-sculpt'])
    expect(store.chainOf('mesh-scale', waiting)).toEqual([])
  })
  it('shows the newer version and says so when another tab was faster, and loses no undo for it', async () => {
    const store = await opened()
    await store.apply({ kind: 'scale', factor: 2 })
    bench.operations = [{ kind: 'scale', factor: 3, axes: [1, 1, 1], about: 'foot' }]
    bench.version++
    expect(await store.apply({ kind: 'repair' })).toBe(false)
    expect(store.problem).toMatch(/Somebody else changed.*newer version is shown/)
    expect(store.step('scale')?.op).toMatchObject({ factor: 3 })
    expect(store.history).toHaveLength(1)
    expect(await store.apply({ kind: 'repair' })).toBe(true)
    expect(kinds()).toEqual(['repair', 'scale'])
  })
  it('stores changes that are made faster than the server answers, all of them, and can undo each', async () => {
    const store = await opened()
    bench.slow = 20
    const done = await Promise.all([
      store.apply({ kind: 'scale', factor: 2 }),
      store.apply({ kind: 'hollow', wall: 2 }),
      // Made from the list as it is shown, in which there is nothing yet.
      store.arrange({ lists: [{ id: PART, operations: store.withOperation(store.part, { kind: 'repair' }) }] }),
      store.change([...store.operations(), { kind: 'orient', quaternion: [0, 0, 0, 1] }]),
      store.save({ client: 'Mrs Ahn' }),
      store.save({ brief: 'With a lantern' }),
      store.reload(),
    ])
    expect(store.problem).toBeNull()
    expect(done.slice(0, 4)).not.toContain(false)
    expect(kinds()).toEqual(['repair', 'scale', 'hollow', 'orient'])
    expect(bench.fields).toMatchObject({ client: 'Mrs Ahn', brief: 'With a lantern' })
    expect(store.piece).toMatchObject({ client: 'Mrs Ahn', brief: 'With a lantern' })
    expect(store.operations().map((o) => o.kind)).toEqual(kinds())
    await Promise.all([store.undo(), store.undo(), store.undo()])
    expect(kinds()).toEqual(['scale'])
  })
  it('sends the version after the change of a part that is also given another sculpt', async () => {
    const store = await opened()
    await store.apply({ kind: 'repair' })
    const version = bench.version
    await store.arrange({ lists: [{ id: PART, operations: [] }], swap: [{ id: PART, sculpt: SCULPT }] })
    expect(bench.arranged).toMatchObject({ changes: [{ version }], swap: [{ version: version + 1, sculpt: SCULPT }] })
    await store.arrange({ swap: [{ id: PART, sculpt: SCULPT }] })
    expect(bench.arranged).toMatchObject({ changes: [], swap: [{ version: bench.version - 1 }] })
  })
  it('shows what came of a change once it is said to be done, though a burst of news fetched the piece meanwhile', async () => {
    const store = await opened()
    bench.slow = 10
    const made = store.arrange({ lists: [{ id: PART, operations: [{ kind: 'repair' }] }] })
    // The fetch after the change is overtaken by one that news asked for, and that is slower.
    await new Promise((r) => setTimeout(r, 15))
    bench.slow = 40
    void store.reload()
    await made
    expect(store.operations().map((o) => o.kind)).toEqual(['repair'])
  })
  it('keeps what could not be undone to be undone later', async () => {
    const store = await opened()
    await store.apply({ kind: 'repair' })
    bench.refuseNext = 1
    await store.undo()
    expect(store.history).toHaveLength(1)
    expect(store.undone).toEqual([])
    await store.undo()
    expect(kinds()).toEqual([])
  })
  it('says in a sentence that the server is gone', async () => {
    const store = await opened()
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed to fetch')))
    expect(await store.apply({ kind: 'repair' })).toBe(false)
    expect(store.problem).toMatch(/does not answer/)
  })
  it('fetches once for a burst of changes, and once more for what came meanwhile', async () => {
    await opened()
    bench.calls = []
    for (let i = 0; i < 20; i++) bench.event!({ type: 'piece', id: PIECE })
    await settled(30)
    const fetched = bench.calls.filter((c) => c === `GET /pieces/${PIECE}`).length
    expect(fetched).toBeGreaterThanOrEqual(1)
    expect(fetched).toBeLessThanOrEqual(2)
  })
})

describe('derivations', () => {
  it('are never undone by a reply that was late', () => {
    const store = useDerivations()
    const base = { key: 'k', kind: 'rest' as const, meshHash: null, blobs: {}, problem: null }
    store.note({ ...base, status: 'running', progress: 0.5, report: null })
    const done = store.note({ ...base, status: 'done', progress: 1, report: { up: 1 } })
    store.note({ ...base, status: 'running', progress: 0.7, report: null })
    expect(done).toMatchObject({ status: 'done', report: { up: 1 } })
    expect(store.busy).toEqual([])
  })
  it('are asked again when their end overtook the reply that brought them', async () => {
    const store = useDerivations()
    const record = { key: 'k', kind: 'rest' as const, meshHash: null, blobs: {}, problem: null, report: null }
    const ask = vi.fn(() =>
      Promise.resolve(new Response(JSON.stringify({ ...record, status: 'done', progress: 1, report: { up: 2 } }))),
    )
    vi.stubGlobal('fetch', ask)
    bench.event!({ type: 'derivation', key: 'k', status: 'done', progress: 1 })
    store.note({ ...record, status: 'waiting', progress: 0 })
    await settled(30)
    expect(ask).toHaveBeenCalledTimes(1)
    expect(store.known.get('k')).toMatchObject({ status: 'done', report: { up: 2 } })
  })
  it('follow the stream while they run', async () => {
    const store = useDerivations()
    store.note({
      key: 'k',
      kind: 'rest',
      status: 'waiting',
      progress: 0,
      meshHash: null,
      blobs: {},
      report: null,
      problem: null,
    })
    bench.event!({ type: 'derivation', key: 'k', status: 'running', progress: 0.4 })
    bench.event!({ type: 'derivation', key: 'unknown', status: 'running', progress: 0.9 })
    expect(store.busy).toMatchObject([{ key: 'k', status: 'running', progress: 0.4 }])
    // Word of progress that comes after the end, for it went another way, does not wake it again.
    store.note({ ...store.known.get('k')!, status: 'done', progress: 1, report: { up: 1 } })
    bench.event!({ type: 'derivation', key: 'k', status: 'running', progress: 0.9 })
    expect(store.busy).toEqual([])
  })
})

describe('the size of a sculpt', () => {
  it('is that at which it is made: scaled from inches it is no problem any more', async () => {
    bench.checks.set('health', { ...health(boxBody(3, 3, 6)), measures: measure(boxBody(3, 3, 6)), points: 0 })
    const store = await opened()
    const ids = (): string[] => useFindings().byStage.import.findings.map((f) => f.id)
    useFindings()
    await settled(30)
    expect(ids()).toEqual(['units'])
    await store.apply({ kind: 'scale', factor: 25.4 })
    await settled(30)
    expect(ids()).toEqual([])
    expect(useFindings().size!.map((v) => Math.round(v * 10))).toEqual([762, 762, 1524])
    // Thin places are looked for where they are made.
    const asked = bench.sent.flatMap(({ call, body }) => {
      const { check, mesh } = body as { check?: { kind: string; limit: number }; mesh: string }
      return call === 'POST /checks' && check?.kind === 'thinness' ? [[check.limit, mesh]] : []
    })
    expect(asked.at(-1)).toEqual([0.6, 'mesh-scale'])
  })
})

describe('the stages', () => {
  const stageOf = (name: string): object =>
    useStages()
      .value.flatMap((l) => l.entries)
      .find((k) => k.name === name)!
  it('counts findings of stages that are not open, and keeps one from being done while something must be settled', async () => {
    const torn = keepFaces(
      boxBody(10, 10, 20),
      Uint8Array.from({ length: 12 }, (_, f) => (f === 3 ? 0 : 1)),
    )
    bench.checks.set('health', { ...health(torn), measures: measure(torn), points: 0 })
    bench.checks.set('layers', {
      areas: [],
      suction: [],
      islands: [{ layer: 30, area: 3, x: 1, y: 1 }],
      cups: [{ firstLayer: 3, lastLayer: 40, worstLayer: 9, x: 0, y: 0, startX: 0, startY: 0, area: 300, force: 30 }],
    })
    const store = await opened()
    useFindings()
    await store.apply({ kind: 'orient', quaternion: [0, 0, 0, 1] })
    await settled(30)
    expect(stageOf('import')).toMatchObject({ state: 'stale' })
    expect((stageOf('import') as { problems: number }).problems).toBeGreaterThan(0)
    expect(stageOf('orient')).toMatchObject({ state: 'stale', problems: 2 })
    expect(stageOf('hollow')).toMatchObject({ state: 'open', problems: 0, warnings: 0 })
    expect(useFindings().byStage.orient.findings.map((f) => f.id)).toEqual(['islands', 'cup-0'])
  })
  it('says until when the bench waits, what is done, and what is not painted', async () => {
    await opened()
    usePlan()
    useFindings()
    await settled(30)
    expect(stageOf('plan')).toMatchObject({ state: 'waiting', measure: expect.stringMatching(/^waits until /) })
    expect(stageOf('scheme')).toMatchObject({ state: 'open' })
    expect(usePlan().next?.key).toBe('b')
  })
  it('knows slices made before without asking for new ones', async () => {
    await opened()
    useFindings()
    await settled(30)
    expect(bench.calls.filter((c) => c === 'POST /checks').length).toBeGreaterThan(0)
    expect(useFindings().sliced).toBeNull()
    expect(useStock().printers).toEqual([])
  })
})
