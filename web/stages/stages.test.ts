// @vitest-environment happy-dom
import { mount, flushPromises, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { health } from '../../core/mesh/health'
import { measure } from '../../core/mesh/measure'
import { boxBody } from '../../core/testBodies'
import { Bench, fakePage, PIECE, settled } from '../stores/fakeServer'
import { usePiece } from '../stores/piece'
import { useRequestedFix } from '../stores/requestedFix'
import { useStock } from '../stores/stock'
import { useViewport } from '../viewport/useViewport'

/** What stages decide and show, on the stores as they are and a server that is made up. */
let bench: Bench, router: Router, open: VueWrapper | null
const body = boxBody(10, 10, 20)
beforeEach(() => {
  bench = new Bench()
  bench.checks.set('health', { ...health(body), measures: measure(body), points: 0 })
  bench.checks.set('thinness', {
    thinnest: 0.48,
    place: [1, 2, 3],
    thinArea: 40,
    samples: 900,
    places: [{ point: [1, 2, 3], thickness: 0.48 }],
    spots: [[1, 2, 3]],
  })
  bench.checks.set('presupported', { found: null })
  fakePage((url, init) => bench.answer(url, init))
  router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:rest(.*)', component: { template: '' } }],
  })
  open = null
})
afterEach(() => {
  open?.unmount()
  vi.unstubAllGlobals()
})
const settle = async (): Promise<void> => {
  await flushPromises()
  await settled(30)
  await flushPromises()
}
async function stage(load: () => Promise<{ default: object }>): Promise<VueWrapper> {
  await usePiece().open(PIECE)
  open = mount((await load()).default as never, { global: { plugins: [router] }, attachTo: document.body })
  await settle()
  return open
}
const button = (at: VueWrapper, name: string | RegExp) => {
  const found = at.findAll('button').find((b) => (typeof name === 'string' ? b.text() === name : name.test(b.text())))
  if (!found)
    throw new Error(
      `There is no button ${String(name)}: ${at
        .findAll('button')
        .map((b) => b.text())
        .join(' | ')}`,
    )
  return found
}

describe('the size stage', () => {
  it('says what it could not check without a printer, and enlarges to what survives only when it is set', async () => {
    const at = await stage(() => import('./ScaleStage.vue'))
    expect(at.text()).toContain('1 warning')
    expect(at.text()).toContain('Not checked: it fits the printer – needs a printer')
    expect(at.text()).not.toContain('No problems found')
    await button(at, 'Enlarge by 25 %').trigger('click')
    await settle()
    // Tried: the finding is gone, the size is shown, nothing was sent.
    expect(at.find('[data-finding=too-thin]').exists()).toBe(false)
    expect(at.text()).toContain('25.0')
    expect(bench.operations).toEqual([])
    await button(at, 'Scale').trigger('click')
    await settle()
    expect(bench.operations).toMatchObject([{ kind: 'scale', factor: 1.25, about: 'foot' }])
  })
  it('measures no thickness on a body that is inside out, and shows its volume all the same', async () => {
    const turned = { ...health(body), measures: { ...measure(body), volume: -2000 }, points: 0 }
    turned.insideOut = { count: 1, places: [[5, 5, 5]], complete: true } as never
    bench.checks.set('health', turned)
    const at = await stage(() => import('./ScaleStage.vue'))
    expect(at.find('[data-finding=too-thin]').exists()).toBe(false)
    expect(at.text()).toContain('needs faces that point outward')
    expect(at.text()).toContain('solid volume2.0 ml')
    expect(at.text()).not.toMatch(/[-−]\d+(\.\d+)? (g|ml)/)
  })
  it('goes back to the size that is set', async () => {
    const at = await stage(() => import('./ScaleStage.vue'))
    await button(at, 'Enlarge by 25 %').trigger('click')
    await button(at, /^Back to/).trigger('click')
    expect(at.find('[data-finding=too-thin]').exists()).toBe(true)
    expect(button(at, 'Scale').attributes('disabled')).toBeDefined()
  })
})

describe('the intake stage', () => {
  it('marks where a finding is, repairs once, and then says that it was repaired', async () => {
    const torn = { ...health(body), measures: measure(body), points: 0 }
    torn.holes = { count: 1, lengths: [12], places: [[1, 1, 20]], complete: true } as never
    bench.checks.set('health', torn)
    const at = await stage(() => import('./ImportStage.vue'))
    expect(useViewport().scene.markers).toMatchObject([{ point: [1, 1, 20], kind: 'problem' }])
    const hole = at.find('[data-finding=holes]')
    await hole
      .findAll('button')
      .find((b) => b.text() === 'Repair')!
      .trigger('click')
    await settle()
    expect(bench.operations).toMatchObject([{ kind: 'repair' }])
    const again = at
      .find('[data-finding=holes]')
      .findAll('button')
      .find((b) => b.text() === 'Repair')!
    expect(again.attributes('disabled')).toBeDefined()
    expect(at.find('[data-finding=holes]').text()).toContain('It was repaired already')
  })
})

describe('the stand stage', () => {
  it('offers a search for another orientation only with a printer, and does at once what was asked for elsewhere', async () => {
    bench.checks.set('layers', {
      areas: [],
      suction: [],
      islands: [{ layer: 30, area: 3, x: 1, y: 1 }],
      cups: [{ firstLayer: 3, lastLayer: 40, worstLayer: 9, x: 0, y: 0, startX: 0, startY: 0, area: 300, force: 30 }],
    })
    await usePiece().open(PIECE)
    await usePiece().apply({ kind: 'orient', quaternion: [0, 0, 0, 1] })
    const fix = { act: 'support' as const, closer: false, label: 'Generate supports', effect: '' }
    useRequestedFix().request('orient', fix)
    expect(useRequestedFix().taken('plates')).toBeNull()
    const at = await stage(() => import('./OrientStage.vue'))
    expect(bench.operations.map((o) => o.kind)).toEqual(['orient', 'support'])
    expect(useRequestedFix().taken('orient')).toBeNull()
    expect(useStock().printers).toEqual([])
    const cup = at.find('[data-finding=cup-0]')
    for (const name of ['Turn it', 'Place drain hole there'])
      expect(
        cup
          .findAll('button')
          .find((b) => b.text() === name)!
          .attributes('disabled'),
      ).toBeDefined()
    expect(button(at, 'Find the best').attributes('disabled')).toBeDefined()
    expect(cup.text()).toContain('The search needs a printer')
    expect(cup.text()).toContain('Only a hollow part can be vented')
  })
})
