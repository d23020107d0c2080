// @vitest-environment happy-dom
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import * as THREE from 'three'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { boxBody } from '../../core/testBodies'
import type { Mesh } from '../../core/mesh/mesh'
import { useDerivations } from '../stores/derivations'
import type { SceneLayer } from './sceneDescription'
import Turntable from './Turntable.vue'
import { useViewport } from './useViewport'

/** What the scene was asked to do, in order. */
let asked: [string, ...unknown[]][] = []
let noWebGl = false
const done = (what: string): unknown[][] => asked.filter(([name]) => name === what).map(([, ...rest]) => rest)
vi.mock('./scene', () => ({
  Scene: class {
    size = new THREE.Vector3(10, 10, 10)
    gaze = { home: () => asked.push(['home']), leftTurns: () => undefined, turned: () => 0 }
    constructor() {
      if (noWebGl) throw new Error('no WebGL')
      return new Proxy(this, {
        get: (of, name) =>
          name in of ? of[name as keyof typeof of] : (...args: unknown[]) => void asked.push([String(name), ...args]),
      })
    }
  },
}))
/** Meshes by hash: loaded at once, unless a test holds one back or lets it fail. */
const loads = new Map<string, Promise<Mesh>>()
vi.mock('./meshCache', () => ({ loadMesh: (hash: string) => loads.get(hash) ?? Promise.resolve(boxBody(10, 10, 10)) }))

vi.stubGlobal(
  'EventSource',
  class {
    close = (): void => undefined
  },
)

let table: VueWrapper, scope: EffectScope
async function shown(layer: () => SceneLayer): Promise<void> {
  setActivePinia(createPinia())
  vi.spyOn(useDerivations(), 'settled').mockImplementation((mesh, check) =>
    Promise.resolve({
      meshHash: mesh,
      report: { bodyFaces: (check as { bodyFaces?: number }).bodyFaces ?? 12 },
    } as never),
  )
  scope = effectScope()
  scope.run(() => useViewport().describe(layer))
  table = mount(Turntable)
  await flushPromises()
}
beforeEach(() => {
  asked = []
  noWebGl = false
  loads.clear()
})
afterEach(() => {
  scope.stop()
  table.unmount()
})

describe('the turntable', () => {
  it('makes what stands beside the part once, whatever else of the scene changes', async () => {
    const hint = ref('a'),
      beside = ref(['other'])
    await shown(() => ({ mesh: 'body', companions: beside.value, hint: hint.value }))
    expect(done('accompany')).toHaveLength(1)
    for (const name of ['showLine', 'showGuides', 'showLiquid', 'light', 'cutOpen', 'beside']) asked = without(name)
    for (const h of ['b', 'c', 'd']) {
      hint.value = h
      await flushPromises()
    }
    expect(done('accompany')).toHaveLength(1)
    // Nothing is set again, and so nothing drawn, for a hint.
    expect(
      asked.filter(([name]) => ['showLine', 'showGuides', 'showLiquid', 'light', 'cutOpen'].includes(name)),
    ).toEqual([])
    beside.value = ['other', 'third']
    await flushPromises()
    expect(done('accompany').at(-1)).toMatchObject([[{ hash: 'other' }, { hash: 'third' }]])
  })
  it('shows the body that was asked for last, also when the one before it comes later', async () => {
    const mesh = ref('slow')
    const { promise, resolve: come } = withResolvers<Mesh>()
    loads.set('slow', promise)
    loads.set('quick', Promise.resolve(boxBody(20, 20, 20)))
    await shown(() => ({ mesh: mesh.value }))
    expect(table.attributes('aria-busy')).toBe('true')
    mesh.value = 'quick'
    await flushPromises()
    expect(table.attributes('aria-busy')).toBe('false')
    come(boxBody(10, 10, 10))
    await flushPromises()
    expect(done('show')).toHaveLength(1)
    expect(useViewport().shown).toMatchObject({ hash: 'quick', of: 'quick', bodyFaces: 12 })
  })
  it('leaves what stands there where nobody says what is to, and empties the disc where that is said', async () => {
    const mesh = ref<string | null | undefined>('body')
    await shown(() => ({ mesh: mesh.value }))
    mesh.value = undefined
    await flushPromises()
    expect(done('show')).toHaveLength(1)
    mesh.value = 'body'
    await flushPromises()
    expect(done('show')).toHaveLength(1)
    mesh.value = null
    await flushPromises()
    expect(done('show').at(-1)).toEqual([null, 0, true])
    expect(useViewport().shown).toBeNull()
  })
  it('paints, tips and repeats a new body as the old one was, when it comes', async () => {
    const mesh = ref('one')
    const twin = { name: 'two coats', colours: new Float32Array(24), sheen: new Float32Array(16), glow: null }
    const layer = (): SceneLayer => ({
      mesh: mesh.value,
      colours: twin.colours,
      sheen: twin.sheen,
      beside: [twin],
      quaternion: [0, 0, 1, 0],
      positions: new Float32Array(24),
    })
    await shown(layer)
    asked = []
    mesh.value = 'two'
    await flushPromises()
    const from = asked.findIndex(([name]) => name === 'show')
    const after = asked.slice(from).map(([name]) => name)
    for (const name of ['paint', 'tilt', 'beside', 'deform', 'mark']) expect(after).toContain(name)
  })
  it('says what kept a body from being shown, until another one is', async () => {
    const mesh = ref('broken')
    const gone = Promise.reject<Mesh>(new Error('The body is gone.'))
    gone.catch(() => undefined)
    loads.set('broken', gone)
    await shown(() => ({ mesh: mesh.value }))
    expect(table.text()).toContain('The body is gone.')
    expect(table.attributes('aria-busy')).toBe('false')
    mesh.value = 'Reset view'
    await flushPromises()
    expect(table.text()).not.toContain('The body is gone.')
    expect(done('show')).toHaveLength(1)
  })
  it('says that there is no picture where the browser draws none, and asks nothing of it', async () => {
    noWebGl = true
    await shown(() => ({ mesh: 'body', companions: ['other'] }))
    expect(table.text()).toContain('WebGL is off')
    await nextTick()
    expect(asked).toEqual([])
  })
  it('keeps the view for a body of the same size, and frames it when that is asked', async () => {
    const mesh = ref('one')
    await shown(() => ({ mesh: mesh.value }))
    asked = []
    mesh.value = 'two'
    await flushPromises()
    expect(done('home')).toEqual([])
    await table.find('button[title^="Show the whole"]').trigger('click')
    expect(done('home')).toHaveLength(1)
  })
})

function withResolvers<T>(): { promise: Promise<T>; resolve: (value: T) => void } {
  let resolve!: (value: T) => void
  const promise = new Promise<T>((r) => (resolve = r))
  return { promise, resolve }
}
const without = (name: string): typeof asked => asked.filter(([n]) => n !== name)
