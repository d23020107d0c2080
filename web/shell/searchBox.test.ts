// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it } from 'vitest'
import { settled } from '../stores/fakeServer'
import { StageBench } from '../stages/stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const hit = (kind: string, id: string, name: string, more: object = {}) => ({
  kind,
  id,
  name,
  about: '',
  pieceId: null,
  ...more,
})

it('searches while one types, goes through what was found by the keys, and to where it is', async () => {
  const at = await page.show((await import('./SearchBox.vue')).default)
  const field = at.find('input')
  page.bench.replies.set('GET /search?q=heron', [
    hit('piece', 'p1', 'Grey heron'),
    hit('log', 'l1', 'Grey heron', { pieceId: 'p1', about: 'The beak broke off.' }),
  ])
  document.dispatchEvent(new KeyboardEvent('keydown', { key: '/', bubbles: true }))
  expect(document.activeElement).toBe(field.element)
  await field.setValue('heron')
  await settled(250)
  const options = () => at.findAll('[role=option]')
  expect(options().map((o) => o.find('.kind').text())).toEqual(['piece', 'log'])
  expect(options()[0]!.attributes('aria-selected')).toBe('true')
  await field.trigger('keydown', { key: 'ArrowDown' })
  expect(options()[1]!.attributes('aria-selected')).toBe('true')
  await field.trigger('keydown', { key: 'Enter' })
  await settled(30)
  expect(page.router.currentRoute.value.path).toBe('/pieces/p1/plan')
  expect(options()).toEqual([])
  expect(field.element.value).toBe('')
})
it('says that nothing was found, and why it could not look', async () => {
  const at = await page.show((await import('./SearchBox.vue')).default)
  page.bench.replies.set('GET /search?q=otter', [])
  await at.find('input').setValue('otter')
  await settled(250)
  expect(at.find('[role=status]').text()).toBe('Nothing has all of these words: otter')
  await at.find('input').setValue('otters')
  await settled(250)
  expect(at.find('[role=status]').text()).not.toContain('Nothing has')
  await at.find('input').trigger('keydown', { key: 'Escape' })
  expect(at.find('.hits').exists()).toBe(false)
})
