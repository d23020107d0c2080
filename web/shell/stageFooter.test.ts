// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it } from 'vitest'
import { health } from '../../core/mesh/health'
import { measure } from '../../core/mesh/measure'
import { keepFaces } from '../../core/mesh/mesh'
import { boxBody } from '../../core/testBodies'
import { PIECE } from '../stores/fakeServer'
import { StageBench } from '../stages/stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const at = (stage: string) => page.on(() => import('./StageFooter.vue'), { pieceId: PIECE, stage })

it('the foot of a stage says what is open there, and leads to the next; the last leads nowhere', async () => {
  const torn = keepFaces(
    boxBody(10, 10, 20),
    Uint8Array.from({ length: 12 }, (_, f) => (f === 3 ? 0 : 1)),
  )
  page.bench.checks.set('health', { ...health(torn), measures: measure(torn), points: 0 })
  const foot = await at('import')
  expect(foot.text()).toContain('1 problem open here')
  expect(foot.find('a').text()).toBe('Next: Combine')
  expect(foot.find('a').attributes('href')).toBe(`/pieces/${PIECE}/combine`)
  expect((await at('plan')).find('a').exists()).toBe(false)
})
it('counts what is not checked where nothing was found, and is silent where all is well', async () => {
  // No printer: whether it fits is not known.
  expect((await at('scale')).text()).toContain('not done yet')
  expect((await at('import')).find('span').text()).toBe('')
})
