// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { usePiece } from '../stores/piece'
import { press, StageBench } from '../stages/stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
  page.bench.operations = [
    { kind: 'scale', factor: 1 },
    { kind: 'hollow', wall: 9 },
    { kind: 'orient', quaternion: [0, 0, 0, 1] },
  ]
  page.bench.failing.set('hollow', 'The wall leaves no cavity.')
})
afterEach(() => page.end())
const at = (stage: string) => page.on(() => import('./FailedSteps.vue'), { stage })

describe('an operation that failed', () => {
  it('is said with its sentence from its stage onward, and what is shown in its place', async () => {
    const orient = await at('orient')
    expect(orient.findAll('[data-failed=hollow]')).toHaveLength(1)
    expect(orient.text()).toContain('Failed: hollowed, wall 9 mm.')
    expect(orient.text()).toContain('The wall leaves no cavity.')
    expect(orient.text()).toMatch(/You see .+ without this operation/)
    expect(orient.find('a').attributes('href')).toMatch(/hollow$/)
    // At its own stage one is there already, and before it nothing is missing.
    expect((await at('hollow')).find('a').exists()).toBe(false)
    expect((await at('scale')).find('[data-failed]').exists()).toBe(false)
  })
  it('is removed with one click, alone', async () => {
    await press(await at('plates'), 'Remove operation')
    expect(
      usePiece()
        .operations()
        .map((o) => o.kind),
    ).toEqual(['scale', 'orient'])
    expect(usePiece().failed).toEqual([])
  })
  it('says that all that follows waits where it makes the body', async () => {
    page.bench.operations = [{ kind: 'surface', voxel: 1 }]
    page.bench.failing.set('surface', 'The scan has no normals.')
    expect((await at('scale')).text()).toContain('There is no body without it')
  })
})
