// @vitest-environment happy-dom
import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { scheme as schemeSchema } from '../../../contract/scheme'
import { sphereBody } from '../../../core/testBodies'
import { PART, PIECE } from '../../stores/fakeServer'
import { useScheme } from '../../stores/scheme'
import { useViewport } from '../../viewport/useViewport'
import { settle, StageBench } from '../stageTesting'
import { useRegions } from './useRegions'

vi.mock('comlink', () => import('../../workers/inProcess'))

/** What a hand does to the regions of a ball of 20 mm, by the worker's own code. */
const ball = sphereBody(20, 4)
const vertices = ball.positions.length / 3
let page: StageBench, scope: EffectScope
const hash = (letter: string): string => letter.repeat(64)
const up = { point: [0, 0, 20], normal: [0, 0, 1], face: 0, companion: null } as never
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => {
  scope.stop()
  page.end()
})
/** The regions of a piece whose part is on the table. */
async function regionsOf(scheme: object = {}): Promise<ReturnType<typeof useRegions>> {
  page.bench.replies.set(`GET /pieces/${PIECE}/scheme`, {
    version: 1,
    regions: [{ id: 0, name: 'Whole' }],
    coats: [],
    maps: [],
    ...scheme,
  })
  await page.piece()
  scope = effectScope()
  const made = scope.run(() => {
    useScheme()
    return useRegions(() => undefined)
  })!
  useViewport().shown = { mesh: ball, hash: hash('a'), of: 'mesh-sculpt', bodyFaces: ball.triangles.length / 3 }
  await settle()
  await made.apply()
  return made
}
const counted = (labels: Uint8Array, id: number): number => labels.filter((l) => l === id).length

describe('regions of the part on the table', () => {
  it('begin as one over all of it', async () => {
    const r = await regionsOf()
    expect(r.ready.value).toBe(true)
    expect(counted(r.labels.value, 0)).toBe(vertices)
    expect(r.region.value?.name).toBe('Whole')
    expect(r.undoable.value).toBe(false)
  })
  it('are brushed within the brush and only on the side that is seen; one stroke is taken back at once', async () => {
    const r = await regionsOf()
    r.add()
    r.brush(up, 8)
    r.brush({ ...(up as object), point: [6, 0, 19] } as never, 8)
    const brushed = counted(r.labels.value, 1)
    expect(brushed).toBeGreaterThan(10)
    for (const [v, label] of r.labels.value.entries())
      if (label === 1) expect(ball.positions[3 * v + 2]!).toBeGreaterThan(0)
    r.takeBack()
    expect(counted(r.labels.value, 1)).toBe(0)
    expect(r.undoable.value).toBe(false)
  })
  it('keep two strokes apart that a pause parts', async () => {
    const r = await regionsOf()
    r.add()
    const now = vi.spyOn(performance, 'now').mockReturnValue(10_000)
    r.brush(up, 5)
    const first = counted(r.labels.value, 1)
    now.mockReturnValue(12_000)
    r.brush({ ...(up as object), point: [0, 14, 14], normal: [0, 0.7, 0.7] } as never, 5)
    expect(counted(r.labels.value, 1)).toBeGreaterThan(first)
    r.takeBack()
    expect(counted(r.labels.value, 1)).toBe(first)
    now.mockRestore()
  })
  it('take back twenty steps and no more', async () => {
    const r = await regionsOf()
    for (let i = 0; i < 25; i++) r.relabel(new Uint8Array(vertices).fill(i % 2))
    let steps = 0
    for (; r.undoable.value; steps++) r.takeBack()
    expect(steps).toBe(20)
  })
  it('are split at a plane: both halves are painted alike, with coats of their own, and taken back it is as before', async () => {
    const paint = '66666666-6666-4666-8666-666666666666'
    const r = await regionsOf({
      coats: [{ id: 'c1', regionId: 0, technique: 'base', paintId: paint, mix: [{ paintId: paint, drops: 2 }] }],
    })
    await r.splitAt([0, 0, 0], [0, 0, 1])
    const { scheme } = useScheme()
    expect(scheme!.regions.map((x) => x.name)).toEqual(['Whole', 'Whole, second half'])
    expect(scheme!.coats.map((c) => c.regionId)).toEqual([0, 1])
    expect(scheme!.coats[1]!.id).not.toBe('c1')
    expect(scheme!.coats[1]!.mix).toEqual(scheme!.coats[0]!.mix)
    // The mix of the one is not the other's.
    expect(scheme!.coats[1]!.mix[0]).not.toBe(scheme!.coats[0]!.mix[0])
    for (const [v, label] of r.labels.value.entries())
      if (Math.abs(ball.positions[3 * v + 2]!) > 0.01) expect(label).toBe(ball.positions[3 * v + 2]! > 0 ? 1 : 0)
    r.takeBack()
    expect(useScheme().scheme!.regions).toHaveLength(1)
    expect(useScheme().scheme!.coats.map((c) => c.id)).toEqual(['c1'])
  })
  it('are not split where nothing of them is beyond, and say so', async () => {
    const r = await regionsOf()
    await r.splitAt([0, 0, 30], [0, 0, 1])
    expect(r.fault.value).toContain('No face of Whole is beyond that place')
    expect(useScheme().scheme!.regions).toHaveLength(1)
    expect(r.undoable.value).toBe(false)
  })
  it('are given up to another with their coats, stacks and effects, and all of it comes back', async () => {
    const r = await regionsOf({
      regions: [
        { id: 0, name: 'Whole' },
        { id: 3, name: 'Scarf' },
      ],
      coats: [{ id: 'c3', regionId: 3, technique: 'base' }],
      variants: [{ id: 'v', regionId: 3, name: 'brighter', coats: [] }],
      effects: [{ id: 'e', regionId: 3, kind: 'snow', thickness: 1, coverage: 0.5 }],
    })
    r.current.value = 3
    r.brush(up, 8)
    const brushed = counted(r.labels.value, 3)
    r.joinTo(0)
    expect(useScheme().scheme).toMatchObject({ regions: [{ id: 0 }], coats: [], variants: [], effects: [] })
    expect(counted(r.labels.value, 0)).toBe(vertices)
    expect(r.current.value).toBe(0)
    r.takeBack()
    expect(useScheme().scheme).toMatchObject({
      regions: [{ id: 0 }, { id: 3 }],
      coats: [{ id: 'c3' }],
      variants: [{ id: 'v' }],
    })
    expect(counted(r.labels.value, 3)).toBe(brushed)
  })
  it('are not given up while they lie on another part too', async () => {
    const other = '77777777-7777-4777-8777-777777777777'
    const r = await regionsOf({
      regions: [
        { id: 0, name: 'Whole' },
        { id: 1, name: 'Scarf' },
      ],
      maps: [{ partId: other, meshHash: hash('b'), labels: hash('c'), chain: [], areas: { 1: 40 }, borders: [] }],
    })
    r.current.value = 1
    r.joinTo(0)
    expect(r.fault.value).toContain('Scarf is also on 1 other part')
    expect(useScheme().scheme!.regions).toHaveLength(2)
  })
  it('are proposed again only while nothing was painted', async () => {
    const r = await regionsOf()
    const next = new Uint8Array(vertices).map((_, v) => (v % 3 === 0 ? 2 : v % 2))
    r.propose(next)
    expect(useScheme().scheme!.regions.map((x) => x.name)).toEqual(['Region 1', 'Region 2', 'Region 3'])
    r.takeBack()
    useScheme().scheme!.coats.push({
      ...schemeSchema.shape.coats.element.parse({ id: 'c', regionId: 0, technique: 'base' }),
    })
    r.propose(next)
    expect(r.fault.value).toContain('There are coats already')
    expect(useScheme().scheme!.regions).toHaveLength(1)
  })
  it('get a stencil’s mark as one of their own, unless the copy is too coarse to show it', async () => {
    const r = await regionsOf()
    r.addOf('Emblem', new Uint8Array(vertices))
    expect(r.fault.value).toContain('smaller than the copy shown here can resolve')
    expect(useScheme().scheme!.regions).toHaveLength(1)
    const marked = new Uint8Array(vertices)
    marked[5] = marked[6] = 1
    r.addOf('Emblem', marked)
    expect(useScheme().scheme!.regions.at(-1)).toMatchObject({ id: 1, name: 'Emblem' })
    expect([...r.labels.value].flatMap((l, v) => (l === 1 ? [v] : []))).toEqual([5, 6])
  })
})

describe('what is kept of regions', () => {
  const blobs = (answer: unknown): void => {
    page.bench.replies.set('POST /blobs', answer)
  }
  it('is their labels with the area of each and the edges between them, measured on the part', async () => {
    const r = await regionsOf()
    r.add()
    r.relabel(new Uint8Array(vertices).map((_, v) => (ball.positions[3 * v + 2]! > 0 ? 1 : 0)))
    blobs({ hash: hash('d') })
    await r.keep()
    const [map] = useScheme().scheme!.maps
    expect(map).toMatchObject({ partId: PART, meshHash: hash('a'), labels: hash('d') })
    const sphere = 4 * Math.PI * 400
    // Halves of a ball, by the polyhedron that it is.
    expect(map!.areas[0]! + map!.areas[1]!).toBeGreaterThan(0.98 * sphere)
    expect(map!.areas[0]! + map!.areas[1]!).toBeLessThan(sphere)
    expect(map!.areas[1]! / map!.areas[0]!).toBeCloseTo(1, 0)
    expect(map!.borders).toHaveLength(1)
    expect(map!.borders[0]!.mm / (2 * Math.PI * 20)).toBeCloseTo(1, 0)
  })
  it('is sent again with the next change where the server did not take it', async () => {
    const r = await regionsOf()
    r.relabel(new Uint8Array(vertices).fill(0))
    await expect(r.keep()).rejects.toThrow()
    expect(useScheme().scheme!.maps).toEqual([])
    blobs({ hash: hash('e') })
    await r.keep()
    expect(useScheme().scheme!.maps).toMatchObject([{ labels: hash('e') }])
    // Nothing changed since: nothing is sent.
    const before = page.bench.sent.length
    await r.keep()
    expect(page.bench.sent).toHaveLength(before)
  })
})
