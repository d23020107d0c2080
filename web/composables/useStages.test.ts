// @vitest-environment happy-dom
import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { PIECE } from '../stores/fakeServer'
import { settle, StageBench } from '../stages/stageTesting'
import { PLATE, plate, run } from '../stages/plateTesting'
import { useStages, type StageEntry } from './useStages'

let page: StageBench, scope: EffectScope
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set(`GET /pieces/${PIECE}/runs`, [])
  page.bench.replies.set('GET /devices', [])
})
afterEach(() => {
  scope.stop()
  page.end()
})
async function stages(): Promise<
  (name: StageEntry['name']) => Pick<StageEntry, 'state' | 'measure' | 'problems' | 'warnings'>
> {
  await page.piece()
  scope = effectScope()
  const list = scope.run(() => useStages())!
  await settle()
  await settle()
  return (name) => {
    const { state, measure, problems, warnings } = list.value.flatMap((l) => l.entries).find((e) => e.name === name)!
    return { state, measure, problems, warnings }
  }
}

describe('the list of stages', () => {
  it('is open where nothing was done, and names what the part is when it is imported', async () => {
    const of = await stages()
    expect(of('import')).toMatchObject({ measure: '1 part' })
    expect(of('hollow')).toMatchObject({ state: 'open', measure: 'solid' })
    for (const name of ['orient', 'print', 'clean', 'scheme'] as const)
      expect(of(name)).toMatchObject({ state: 'open', measure: '' })
  })
  it('tells of each stage the one measure that matters there', async () => {
    page.bench.deadline = '2027-02-01'
    page.bench.operations = [
      { kind: 'scale', factor: 2, about: 'foot' },
      { kind: 'hollow', wall: 2, voxel: 0.5, opening: 1 },
      { kind: 'orient', quaternion: [0, 0, 0, 1] },
    ]
    const of = await stages()
    expect(of('brief').measure).toContain('due')
    expect(of('scale')).toMatchObject({ state: 'done', measure: '40 mm tall' })
    expect(of('hollow').measure).toBe('−0.0 ml')
    expect(of('orient').measure).toBe('oriented')
  })
  it('says that a stage needs a look where what was done there failed', async () => {
    page.bench.operations = [{ kind: 'hollow', wall: 2, voxel: 0.5, opening: 1 }]
    page.bench.failing.set('hollow', 'The wall leaves no cavity.')
    expect((await stages())('hollow').state).toBe('stale')
  })
  it('counts plates that print, that came off and that were cleaned', async () => {
    const still = plate().progress
    const runs = (...plates: ReturnType<typeof plate>[]): void => {
      page.bench.replies.set(`GET /pieces/${PIECE}/runs`, [run(plates)])
    }
    runs(plate({ state: 'printing', device: 'p1', progress: { ...still, layer: 7, layers: 40 } }))
    expect((await stages())('print')).toMatchObject({ state: 'waiting', measure: 'layer 7 of 40' })
    scope.stop()
    page.end()
    page = new StageBench()
    page.bench.replies.set('GET /devices', [])
    const second = PLATE.replace('7', '6')
    runs(
      plate({ state: 'judged', cleaned: { feel: '2026-11-20T10:00:00Z' } }),
      plate({ id: second, number: 2, state: 'ended' }),
    )
    const of = await stages()
    expect(of('print')).toMatchObject({ state: 'open', measure: '1 of 2 plates' })
    expect(of('clean')).toMatchObject({ state: 'open', measure: '1 of 2 plates' })
  })
  it('keeps a stage from being done while something of it must be settled', async () => {
    const torn = page.bench.checks.get('health') as unknown as Record<string, unknown>
    page.bench.checks.set('health', {
      ...torn,
      holes: { count: 1, lengths: [12], places: [[1, 1, 20]], complete: true },
    })
    const of = await stages()
    expect(of('import').problems).toBeGreaterThan(0)
    expect(of('import').state).toBe('stale')
  })
  it('names regions that are bare', async () => {
    page.bench.replies.set(`GET /pieces/${PIECE}/scheme`, {
      version: 1,
      regions: [
        { id: 0, name: 'Coat' },
        { id: 1, name: 'Scarf' },
      ],
      coats: [{ id: 'c', regionId: 0, technique: 'base' }],
      maps: [],
    })
    expect((await stages())('scheme')).toMatchObject({ state: 'open', measure: '1 of 2 without coats' })
  })
})
